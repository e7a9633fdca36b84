import type { Part } from '@/core/part';
import { movedPoints } from '@/core/expect';
import { supplyOf } from '@/core/operate';
import { rateUnit, usableOutput } from '@/core/rate';
import type { KnownCorners } from '@/core/rate';
import { PoweredReader, alivePoints, railVolts, readerLike, startSequence, wavePlaces } from '@/core/work';
import { exampleBoard } from './exampleBoards';

/** What a change of one part costs the working board, median over several parts, and the ratings with the usable output. */
export interface WorkingTime {
  readonly parts: number;
  readonly expectMs: number;
  readonly rateMs: number;
  readonly usableMs: number;
  readonly claim: string;
}

/** So many parts are changed, one after the other. */
const CHANGES = 15;

/** Times a change of a part as the worker of the page works it out. */
export function workingTime(name: string): WorkingTime | null {
  const board = exampleBoard(name);
  const source = supplyOf(board).nominal;
  if (source === null) return null;
  const condition = { source, load: 'half' } as const;
  const base = PoweredReader.at(board, condition, []);
  const before = alivePoints(base);
  const known: KnownCorners = new Map();
  const rated = rateUnit(board, { known });
  const changed = board.parts.filter((p) => p.fitted && p.kind === 'resistor').slice(0, CHANGES);
  const times = { expect: [] as number[], rate: [] as number[] };
  for (const part of changed) {
    const turned = (p: Part): Part => (p === part && 'value' in p ? { ...p, value: 1.1 * p.value } : p);
    const other = { ...board, parts: board.parts.map(turned) };
    const begun = performance.now();
    const reader = readerLike(other, condition, [], base.operation);
    movedPoints(before, alivePoints(reader));
    railVolts(reader);
    startSequence(reader);
    wavePlaces(reader);
    const shown = performance.now();
    rateUnit(other, { known: new Map(known) });
    times.expect.push(shown - begun);
    times.rate.push(performance.now() - shown);
  }
  const began = performance.now();
  const usable = rated && usableOutput(board, rated, known);
  const median = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[list.length >> 1] ?? 0;
  return {
    parts: board.parts.length,
    expectMs: median(times.expect),
    rateMs: median(times.rate),
    usableMs: performance.now() - began,
    claim: usable
      ? `${usable.claim}, ${Math.round(100 * usable.share)} %${usable.limiting ? ` by ${usable.limiting.ref}` : ''}`
      : 'none printed',
  };
}
