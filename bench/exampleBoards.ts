import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { openBoard } from '@/wire/openBoard';
import { NOT_CONNECTED, netKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import type { StageLabels } from './stageLabels';

/** The example boards, smallest interest first; each has its labels with nameplate and facts beside it. */
export const EXAMPLE_BOARDS = [
  'lamp-supply-24v',
  'weather-buck-5v',
  'radio-charger-5v',
  'pump-aux-buck',
  'fence-energiser',
  'bench-supply-13v8',
  'ups-frontend-pfc',
  'galley-inverter-600',
] as const;

/** All of them, those that came later too. */
export const ALL_BOARDS = [
  ...EXAMPLE_BOARDS,
  'bilge-drive-48v',
  'buoy-boost-28',
  'dock-pushpull-48',
  'galley-hob-2k',
  'kiln-relay-25a',
  'quay-charger-24v',
  'shelf-lamp-led',
  'sign-royer-12',
  'split-inverter-1k5',
  'winch-forward-12v',
] as const;

const folder = join(process.env['LANTERN_ROOT'] ?? process.cwd(), 'fixtures');

/** Opens an example board with its nameplate. */
export function exampleBoard(name: string): Board {
  return openBoard(join(folder, 'boards', `${name}.cir`), join(folder, 'boards', `${name}.labels.json`));
}

/** Example boards as one board: what comes after the first has `_1`, `_2` … behind its designators and nets. */
export function boardsTogether(names: readonly string[]): Board {
  const boards = names.map(exampleBoard);
  const name = (text: string, i: number): string => (i === 0 ? text : `${text}_${i}`);
  const parts = boards.flatMap((b, i) =>
    b.parts.map((p) => ({
      ...p,
      ref: name(p.ref, i),
      nets: p.nets.map((n) => (netKey(n) === netKey(NOT_CONNECTED) ? n : name(n, i))),
    })),
  );
  const couplings = boards.flatMap((b, i) =>
    b.couplings.map((c) => ({ ...c, name: name(c.name, i), first: name(c.first, i), second: name(c.second, i) })),
  );
  return { ...boards[0]!, parts, couplings };
}

/** The labels of an example board: stages, pins, topology. */
export function exampleLabels(name: string): StageLabels {
  return JSON.parse(readFileSync(join(folder, 'boards', `${name}.labels.json`), 'utf8')) as StageLabels;
}

/** Reference readings of an example board, one object a line. */
export function referenceLines(name: string): readonly unknown[] {
  const text = readFileSync(join(folder, 'reference', `cold-${name}.jsonl`), 'utf8');
  return text
    .trim()
    .split('\n')
    .map((line): unknown => JSON.parse(line));
}
