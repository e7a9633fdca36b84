import type { Board } from '../circuit';
import { weakestBasis } from '../quantity';
import type { Basis } from '../quantity';

/** A part's share of what makes a reading. */
export interface Share {
  readonly ref: string;
  readonly share: number;
  readonly basis: Basis;
}

/** A part with less than this share of the reading is not named. */
const NAMED_SHARE = 0.02;
const DECIDING_SHARE = 0.1;

/** The parts that make a reading, by number, largest share first; those that hardly matter are left out. */
export function sharesOf(board: Board, byOwner: ReadonlyMap<number, number>): readonly Share[] {
  const total = [...byOwner.values()].reduce((a, b) => a + b, 0);
  if (!(total > 0)) return [];
  return [...byOwner]
    .map(([owner, size]) => ({ ref: board.parts[owner]!.ref, share: size / total, basis: board.parts[owner]!.basis }))
    .filter((s) => s.share >= NAMED_SHARE)
    .sort((a, b) => b.share - a.share);
}

/** The basis of a reading: of the least known part that matters to it. */
export function basisOf(shares: readonly Share[]): Basis {
  const deciding = shares.filter((s) => s.share >= DECIDING_SHARE).map((s) => s.basis);
  return deciding.length > 0 ? weakestBasis(deciding) : 'seen';
}
