import { fitHomography, mapPoint } from './homography';
import type { Homography, PointPair } from './homography';

/** How well the back lies on the front. Residuals in pixels of the front, one per pair. */
export interface Registration {
  readonly map: Homography;
  readonly residuals: readonly number[];
  /** Root of the mean square residual. */
  readonly rms: number;
  /** Index of the pair that spoils the rest, or null: with it left out the others fit far better. */
  readonly outlier: number | null;
  /** Two pairs whose ends were exchanged: swapped back, all fit. */
  readonly swapped: readonly [number, number] | null;
}

/** A pair that the others put further away than this is suspect; a careful hand marks within a few pixels. */
const SUSPECT_PIXELS = 12;
/** Left out or exchanged back, the suspect must bring the others' residual down by this factor. */
const SPOILED = 2;

/**
 * Registers the back onto the front from four or more pairs of points; null where they do not settle it.
 *
 * With five pairs and more a pair that does not fit is named: the one that the map of the others puts furthest from
 * its mark, where the rest fit far better without it. Two pairs whose ends were exchanged are found by trying to
 * exchange them back.
 */
export function registerPhotographs(pairs: readonly PointPair[]): Registration | null {
  const whole = fitted(pairs);
  if (!whole) return null;
  const plain = { ...whole, outlier: null, swapped: null };
  if (pairs.length < 5) return plain;
  const without = pairs.map((_, i) => fitted(pairs.filter((_p, j) => j !== i)));
  const best = without.reduce((kept, fit, i) => (fit && fit.rms < (without[kept]?.rms ?? Infinity) ? i : kept), 0);
  const there = without[best] ? mapPoint(without[best].map, pairs[best]!.from) : null;
  const off = there ? Math.hypot(there.x - pairs[best]!.to.x, there.y - pairs[best]!.to.y) : Infinity;
  if (off < SUSPECT_PIXELS) return plain;
  const alone = without[best]?.rms ?? Infinity;
  const swap = bestSwap(pairs);
  if (swap && swap.rms * SPOILED < whole.rms && (pairs.length < 6 || swap.rms < 1.5 * alone)) {
    const first = whole.residuals[swap.pair[0]]! >= whole.residuals[swap.pair[1]]! ? 0 : 1;
    return { ...whole, outlier: swap.pair[first], swapped: swap.pair };
  }
  if (pairs.length >= 6 && alone * SPOILED < whole.rms) return { ...whole, outlier: best, swapped: null };
  return whole.rms > SUSPECT_PIXELS
    ? { ...plain, outlier: whole.residuals.indexOf(Math.max(...whole.residuals)) }
    : plain;
}

function fitted(
  pairs: readonly PointPair[],
): { readonly map: Homography; readonly residuals: readonly number[]; readonly rms: number } | null {
  const map = fitHomography(pairs);
  if (!map) return null;
  const residuals = pairs.map(({ from, to }) => {
    const there = mapPoint(map, from);
    return there ? Math.hypot(there.x - to.x, there.y - to.y) : Infinity;
  });
  return { map, residuals, rms: Math.sqrt(residuals.reduce((s, r) => s + r * r, 0) / residuals.length) };
}

function bestSwap(
  pairs: readonly PointPair[],
): { readonly pair: readonly [number, number]; readonly rms: number } | null {
  let best: { pair: readonly [number, number]; rms: number } | null = null;
  for (let i = 0; i < pairs.length; i++) {
    for (let j = 0; j < i; j++) {
      const tried = pairs.map((p, k) =>
        k === i ? { ...p, to: pairs[j]!.to } : k === j ? { ...p, to: pairs[i]!.to } : p,
      );
      const fit = fitted(tried);
      if (fit && (best === null || fit.rms < best.rms)) best = { pair: [j, i], rms: fit.rms };
    }
  }
  return best;
}
