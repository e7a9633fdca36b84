import type { Basis } from '../quantity';

/** Where a voltage is known from, best first. */
export const VOLTS_SOURCES = ['measured', 'computed', 'regulated', 'nameplate', 'rating'] as const;
export type VoltsSource = (typeof VOLTS_SOURCES)[number];

/**
 * What stands between two places, the first against the second.
 *
 * nominal, low, high  volts at work (rms where `alternating`); null where only a bound is known.
 * highest             the most that may stand there either way round, whatever has failed; highestBasis and highestWhy: how
 *                     that is known. Never less than what stands there at work.
 * source, basis, why  of the volts at work; source `rating` with no figure means that nothing else is known.
 */
export interface Volts {
  readonly nominal: number | null;
  readonly low: number | null;
  readonly high: number | null;
  readonly alternating: boolean;
  readonly source: VoltsSource;
  readonly basis: Basis;
  readonly why: string;
  readonly highest: number;
  readonly highestBasis: Basis;
  readonly highestWhy: string;
}

/** One thing that is known of the volts between two rails; nets as keys. */
export interface Statement {
  readonly plus: ReadonlySet<string>;
  readonly minus: ReadonlySet<string>;
  readonly nominal: number;
  readonly low: number;
  readonly high: number;
  readonly alternating: boolean;
  readonly source: VoltsSource;
  readonly basis: Basis;
  readonly why: string;
}

/** A reading of volts taken at work: red against black. */
export interface MeasuredVolts {
  readonly red: string;
  readonly black: string;
  readonly volts: number;
}

/**
 * What the engine of the unit under power finds between two nets, red against black: nominal at the usual source and full
 * load, low to high over all sources and loads that are printed, bands included.
 */
export interface ComputedVolts {
  readonly red: string;
  readonly black: string;
  readonly nominal: number;
  readonly low: number;
  readonly high: number;
  readonly why: string;
}

/** Under which conditions a unit is looked at. source: volts at its inlet, rms on mains; left out: all that the nameplate allows. */
export interface Conditions {
  readonly source?: number;
  readonly measured?: readonly MeasuredVolts[];
  readonly computed?: readonly ComputedVolts[];
}
