import { netKey, netPairKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import type { Outcome } from '@/core/expect';
import type { UnpoweredMode } from '@/core/meter';

/** How a part stands by what was read right across it. */
export type ReadMark = 'agree' | 'disagree';

/** A reading with its verdict. */
export interface Read {
  readonly mode: UnpoweredMode;
  readonly red: string;
  readonly black: string;
  readonly outcome: Outcome | null;
}

const SIDES = {
  diode: 'steady',
  ohms: 'steady',
  continuity: 'steady',
  esr: 'esr',
  cap: 'cap',
  ring: 'ring',
} as const satisfies Record<UnpoweredMode, string>;

/** Marks by what was read last right across a part, or between two of three legs; what was measured agrees. */
export function readMarks(board: Board, reads: readonly Read[]): ReadonlyMap<string, ReadMark> {
  const marks = new Map<string, ReadMark>();
  for (const p of board.parts) if (p.basis === 'measured' || p.basis === 'confirmed') marks.set(p.ref, 'agree');
  // The last reading between two nets is the one that counts; a steady current and each tone see another side of a part, and
  // one wrong side is enough.
  const last = new Map(reads.map((r) => [`${netPairKey(r.red, r.black)} ${SIDES[r.mode]}`, r]));
  const wrongLast = [...last.values()].sort(
    (a, b) => Number(a.outcome === 'disagree') - Number(b.outcome === 'disagree'),
  );
  for (const { red, black, outcome } of wrongLast) {
    if (outcome === null || outcome === 'noted') continue;
    for (const p of board.parts) {
      const nets = new Set(p.nets.map(netKey));
      if (!p.fitted || p.kind === 'connector' || !nets.has(netKey(red)) || !nets.has(netKey(black))) continue;
      // Two of three legs that read well say little of the part; that they read wrong says it.
      if (p.nets.length === 2 || (p.nets.length === 3 && outcome === 'disagree')) marks.set(p.ref, outcome);
    }
  }
  return marks;
}
