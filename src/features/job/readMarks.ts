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

/** Marks by what was read right across a part: what disagreed last counts for more than what agreed; what was measured agrees. */
export function readMarks(board: Board, reads: readonly Read[]): ReadonlyMap<string, ReadMark> {
  const marks = new Map<string, ReadMark>();
  for (const p of board.parts) if (p.basis === 'measured' || p.basis === 'confirmed') marks.set(p.ref, 'agree');
  // The last reading between two nets is the one that counts.
  const last = new Map(reads.map((r) => [[netKey(r.red), netKey(r.black)].sort().join(' '), r]));
  for (const { red, black, outcome } of last.values()) {
    if (outcome === null || outcome === 'noted') continue;
    for (const p of board.parts) {
      const nets = p.nets.map(netKey);
      if (p.fitted && nets.includes(netKey(red)) && nets.includes(netKey(black)))
        if (marks.get(p.ref) !== 'disagree') marks.set(p.ref, outcome);
    }
  }
  return marks;
}
