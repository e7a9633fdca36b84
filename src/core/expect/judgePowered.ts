import type { PoweredReading } from '../work';
import type { Outcome } from './judge';

/** A figure outside the band by less than this share of its width is still in it: a meter of 1 % on a band of 3 sigma. */
const GRACE = 0.25;

/**
 * Judges a figure read on a unit under power against its band. Where nothing can be expected, or where the unit as
 * computed does not come to rest, all is noted.
 */
export function judgePowered(
  { value, low, high }: PoweredReading,
  seen: { readonly value: number; readonly unsteady?: boolean | undefined },
  atRest: boolean,
): Outcome {
  if (value === null || low === null || high === null || !atRest) return 'noted';
  const grace = GRACE * (high - low);
  if (seen.value >= low - grace && seen.value <= high + grace) return 'agree';
  return seen.unsteady ? 'noted' : 'disagree';
}
