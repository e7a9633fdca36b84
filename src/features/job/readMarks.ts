import { netKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import type { Outcome } from '@/core/expect';

/** How a part stands by what was read right across it. */
export type ReadMark = 'agree' | 'disagree';

/** A reading with its verdict. */
export interface Read {
  readonly red: string;
  readonly black: string;
  readonly outcome: Outcome | null;
}

const pairKey = (a: string, b: string): string => [netKey(a), netKey(b)].sort().join(' ');

/** Marks by what was read last right across a part of two pins; what was measured agrees. */
export function readMarks(board: Board, reads: readonly Read[]): ReadonlyMap<string, ReadMark> {
  const marks = new Map<string, ReadMark>();
  for (const p of board.parts) if (p.basis === 'measured' || p.basis === 'confirmed') marks.set(p.ref, 'agree');
  // The last reading between two nets is the one that counts.
  const last = new Map(reads.map((r) => [pairKey(r.red, r.black), r]));
  for (const { red, black, outcome } of last.values()) {
    if (outcome === null || outcome === 'noted') continue;
    const key = pairKey(red, black);
    for (const p of board.parts)
      if (p.fitted && p.kind !== 'connector' && p.nets.length === 2 && pairKey(p.nets[0]!, p.nets[1]!) === key)
        marks.set(p.ref, outcome);
  }
  return marks;
}
