import { noiseOf, placeOn } from './scale';
import type { OutcomeScale } from './scale';
import { density, figureBelow, mainMode, overloadChance } from './outcome';
import type { OutcomeSpread } from './outcome';

/** What was observed at a point. `at-least` is a creeping reading: its last figure is a lower limit. */
export type Observation =
  | { readonly kind: 'figure'; readonly value: number }
  | { readonly kind: 'at-least'; readonly value: number }
  | { readonly kind: 'overload' }
  | { readonly kind: 'agrees' };

/** Share of readings that mean nothing (slipped probe, wrong net): no single reading convicts or clears. */
export const OUTLIER_SHARE = 0.02;
/** Share of those that mean nothing in the same way again when the point is read once more: the wrong net stays wrong. */
const OUTLIER_AGAIN = 0.1;
/** Share of readings that mean nothing among those that were taken again and came out otherwise. */
const OUTLIER_REPLACED = 0.2;
const OUTLIER_OVERLOAD = 0.3;
/** Likelihood of an observation where the reading means something. `healthy` gives meaning to "agrees, no figure". */
function likelihood(scale: OutcomeScale, spread: OutcomeSpread, healthy: OutcomeSpread, seen: Observation): number {
  const overload = overloadChance(spread);
  switch (seen.kind) {
    case 'overload':
      return overload;
    case 'figure':
      return (1 - overload) * density(spread, placeOn(scale, seen.value));
    case 'at-least':
      return overload + (1 - overload) * (1 - figureBelow(spread, placeOn(scale, seen.value)));
    case 'agrees': {
      if (overloadChance(healthy) > 0.5) return overload;
      const { mean, sigma } = mainMode(healthy);
      return (1 - overload) * (figureBelow(spread, mean + 2.5 * sigma) - figureBelow(spread, mean - 2.5 * sigma));
    }
  }
}

/** Likelihood of an observation where the reading means nothing. */
function outlierLikelihood(scale: OutcomeScale, seen: Observation): number {
  switch (seen.kind) {
    case 'overload':
      return OUTLIER_OVERLOAD;
    case 'figure':
      return (1 - OUTLIER_OVERLOAD) / scale.span;
    case 'at-least':
      return 0.5;
    case 'agrees':
      return 0.3;
  }
}

/** Readings at one point that say the same: what they say, and how many they are. */
export interface SameReadings {
  readonly seen: Observation;
  readonly count: number;
}

/**
 * Readings at one point, in the order taken, put together where they say the same within the meter's own noise; those
 * that the last one belongs to come last.
 */
export function sameReadings(scale: OutcomeScale, seen: readonly Observation[]): readonly SameReadings[] {
  const out: SameReadings[] = [];
  for (const one of seen) {
    const at = out.findIndex((s) => saysTheSame(scale, s.seen, one));
    const count = at < 0 ? 0 : out.splice(at, 1)[0]!.count;
    out.push({ seen: one, count: count + 1 });
  }
  return out;
}

/** Widest difference of two readings of one thing by one meter, in sigmas of the difference. */
const SAME_SIGMAS = 4;

function saysTheSame(scale: OutcomeScale, a: Observation, b: Observation): boolean {
  if (a.kind === 'overload' || a.kind === 'agrees') return a.kind === b.kind || (a.kind === 'overload' && rising(b));
  if (b.kind === 'overload') return rising(a);
  if (b.kind === 'agrees') return false;
  const sigma = Math.max(noiseOf(scale, a.value), noiseOf(scale, b.value));
  // A creeping figure goes on rising: whatever is read later above it says the same.
  if (rising(a)) return b.value > a.value - SAME_SIGMAS * sigma;
  return !rising(b) && Math.abs(a.value - b.value) <= SAME_SIGMAS * Math.SQRT2 * sigma;
}

function rising(seen: Observation): boolean {
  return seen.kind === 'at-least';
}

/** Share of readings that mean nothing, of the group `i` among those of one point. */
function outlierShare(groups: readonly SameReadings[], i: number): number {
  const { count } = groups[i]!;
  if (count === 1 && i < groups.length - 1) return OUTLIER_REPLACED;
  return OUTLIER_SHARE * OUTLIER_AGAIN ** (count - 1);
}

/**
 * Likelihood of all that was read at one point: either one group of equal readings means something and the others
 * nothing, or none does. A part keeps its draw for the whole job, so equal readings count once; but they are the less
 * likely to mean nothing the more often they were taken, and of two that differ the earlier is doubted more.
 *
 * total  the likelihood; last: what of it rests on the last group; meant: the figure that most of it rests on, if on one.
 */
export function pointLikelihood(
  scale: OutcomeScale,
  spread: OutcomeSpread,
  healthy: OutcomeSpread,
  groups: readonly SameReadings[],
): { readonly total: number; readonly last: number; readonly meant: number | null } {
  const nothing = groups.map((g, i) => outlierShare(groups, i) * outlierLikelihood(scale, g.seen));
  const parts = groups.map(({ seen }, i) =>
    nothing.reduce(
      (product, n, k) => (k === i ? product : product * n),
      (1 - outlierShare(groups, i)) * likelihood(scale, spread, healthy, seen),
    ),
  );
  const total = parts.reduce((a, b) => a + b, 0) + nothing.reduce((a, b) => a * b, 1);
  const most = parts.findIndex((p) => p > 0.5 * total);
  const seen = groups[most]?.seen;
  return { total, last: parts.at(-1) ?? 0, meant: seen?.kind === 'figure' ? seen.value : null };
}

/** Natural log of the likelihood of one observation. */
export function logLikelihood(
  scale: OutcomeScale,
  spread: OutcomeSpread,
  healthy: OutcomeSpread,
  seen: Observation,
): number {
  return Math.log(pointLikelihood(scale, spread, healthy, [{ seen, count: 1 }]).total);
}

/** Odds that reading a point again says the same as the last time, for one prediction. */
export function saysItAgain(
  scale: OutcomeScale,
  spread: OutcomeSpread,
  healthy: OutcomeSpread,
  groups: readonly SameReadings[],
): number {
  const { total, last } = pointLikelihood(scale, spread, healthy, groups);
  const meant = last / total;
  return meant * (1 - OUTLIER_SHARE) + (1 - meant) * OUTLIER_AGAIN;
}
