import type { Unit } from './prefixes';

/** How well a value is known, rising: guessed, read off the part, measured, data sheet or known-good unit. */
export const BASES = ['assumed', 'seen', 'measured', 'confirmed'] as const;
export type Basis = (typeof BASES)[number];

/**
 * A value that carries its history.
 *
 * nominal, low, high  SI units, low <= nominal <= high.
 * why                 a short derivation that can be checked by hand, with the numbers in it.
 */
export interface Quantity {
  readonly nominal: number;
  readonly low: number;
  readonly high: number;
  readonly unit: Unit;
  readonly basis: Basis;
  readonly why: string;
}

/** The weakest of several bases: a figure is only as well known as its least known part. */
export function weakestBasis(bases: readonly Basis[]): Basis {
  let weakest = BASES.length - 1;
  for (const basis of bases) weakest = Math.min(weakest, BASES.indexOf(basis));
  return BASES[weakest] ?? 'assumed';
}

/** A quantity with a symmetrical relative band. `fraction` is 0.05 for plus or minus 5 %. */
export function banded(nominal: number, fraction: number, unit: Unit, basis: Basis, why: string): Quantity {
  const spread = Math.abs(nominal) * fraction;
  return { nominal, low: nominal - spread, high: nominal + spread, unit, basis, why };
}
