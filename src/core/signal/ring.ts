import { netKey, netPairKey } from '../circuit';
import type { Board } from '../circuit';
import { flatten } from '../device';
import { partFigure } from '../part';
import type { Part } from '../part';
import { ringingPole } from './ringdown';
import { signalSigma } from './shown';
import type { SmallSignal } from './smallSignal';
import { GOOD_CYCLES, RING_LIMIT } from './tones';

/** The capacitor that a ring tester puts across the leads, farads (contract, section 3). */
export const RING_FARADS = 10e-9;
/** It counts until so much is left, and sees nothing where less than this of what it puts on rings. */
const RING_LEFT = 0.15;

/**
 * How two points ring with the tester's capacitor across them.
 *
 * cycles  until `RING_LEFT` of the swing is left, not rounded; share: of the volts put on, what swings so; omega: rad/s.
 */
export interface Ring {
  readonly cycles: number;
  readonly share: number;
  readonly omega: number;
}

/** The ring between two nets; null where nothing swings, or a net is not there. */
export function ringAcross(signal: SmallSignal, redNet: string, blackNet: string): Ring | null {
  const [red, black] = [signal.nodeOf(netKey(redNet)), signal.nodeOf(netKey(blackNet))];
  if (red === undefined || black === undefined) return null;
  const found = red === black ? null : ringingPole(signal.system(red, black, RING_FARADS), RING_FARADS);
  if (!found) return null;
  const { re, im } = found.pole;
  const cycles = (Math.log(1 / RING_LEFT) * im) / (2 * Math.PI * Math.abs(re));
  return { cycles, share: 2 * found.residue, omega: im };
}

/** Cycles that are counted, not rounded: none where too little swings. */
export function countedCycles(ring: Ring | null): number {
  return ring && ring.share >= RING_LEFT ? ring.cycles : 0;
}

/** What the tester shows; null: overload. */
export function shownCycles(ring: Ring | null): number | null {
  const cycles = Math.floor(countedCycles(ring));
  return cycles >= RING_LIMIT ? null : cycles;
}

/** What the parts and the model of windings leave open, a share of the cycles. */
const MODEL_SHARE = 0.3;

/** One sigma of so many cycles, by the tester, the parts and the model. */
export function cyclesSigma(cycles: number): number {
  return Math.hypot(signalSigma('ring', cycles), MODEL_SHARE * cycles);
}

/** By how much, as a natural log, what swings lies above what is needed to be counted at all; far below where nothing does. */
export function swingMargin(ring: Ring | null): number {
  return ring ? Math.log(Math.max(ring.share, 1e-9) / RING_LEFT) : -Infinity;
}

/** Windings on one core with one between two nets among them, as parts; none where no winding is there. */
export function coreAcross(board: Board, red: string, black: string): readonly Part[] {
  const across = netPairKey(red, black);
  for (const { model, owners } of flatten(board).devices) {
    const parts = model.kind === 'windings' ? [...new Set(owners)].map((o) => board.parts[o]!) : [];
    if (parts.some((p) => p.nets.length === 2 && netPairKey(p.nets[0]!, p.nets[1]!) === across)) return parts;
  }
  return [];
}

/** Whether what a core takes is noted of one of the windings on it. */
export function isCoreKnown(windings: readonly Part[]): boolean {
  return windings.some((p) => partFigure(p, 'coreLossOhms') !== undefined);
}

/** Fewest cycles of a sound winding that rings so long by all that is noted: of an unknown core it may be `GOOD_CYCLES`. */
export function leastCycles(cycles: number, coreKnown: boolean): number {
  return coreKnown ? cycles : Math.min(cycles, GOOD_CYCLES);
}
