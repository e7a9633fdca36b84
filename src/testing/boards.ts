import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { ARCHETYPES, archetypeBoard } from '@/core/archetype';
import type { Board } from '@/core/circuit';
import { exampleBoard } from '../../bench/exampleBoards';

/** A board of the repository with its nameplate, for tests: an example or a typical circuit. */
export interface TestBoard {
  readonly name: string;
  readonly board: Board;
}

/** All example boards and typical circuits; part k of n takes every n-th, so that test files may share them. */
export function testBoards(part = 0, parts = 1): readonly TestBoard[] {
  const folder = join(process.cwd(), 'fixtures', 'boards');
  const names = readdirSync(folder).flatMap((f) => (f.endsWith('.cir') ? [f.slice(0, -4)] : []));
  const examples = names.sort().map((name) => ({ name, board: exampleBoard(name) }));
  const typical = ARCHETYPES.map((a) => ({ name: a.name, board: archetypeBoard(a.name)! }));
  return [...examples, ...typical].filter((_, i) => i % parts === part);
}
