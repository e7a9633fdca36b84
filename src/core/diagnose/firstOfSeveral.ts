import type { MainDraws } from '../solve';

/**
 * Of n equal normal draws the lowest: by how much it lies below their mean and how far it spreads, in their sigmas.
 * Source: H. L. Harter, Expected values of normal order statistics, Biometrika 48 (1961).
 */
const LOWEST: readonly (readonly [below: number, spread: number])[] = [
  [0, 1],
  [0.5642, 0.8256],
  [0.8463, 0.748],
  [1.0294, 0.7012],
];

/** Effects that differ by less are those of switches side by side; less of an effect is not felt, volts. */
const ALIKE = 0.03;
const LEAST_VOLTS = 0.05;

/** Nothing turns on. */
export const NONE_FIRST = { lower: 0, variance: 0 };

/**
 * Switches side by side that the meter turns on: the one of the lowest threshold does, so that the reading is lower than
 * with all of them as they should be, and spreads farther than by the share that each has there.
 *
 * Gives by how much, volts, and what that adds to the variance.
 */
export function firstOfSeveral({ effects, spreads = [] }: MainDraws): typeof NONE_FIRST {
  const [most = 0] = effects.map(Math.abs).sort((a, b) => b - a);
  const alike = effects.filter((e, i) => spreads[i] === spreads[0] && Math.abs(Math.abs(e) - most) < ALIKE * most);
  const n = alike.length;
  const told = LOWEST[n - 1];
  if (n < 2 || !told || most < LEAST_VOLTS) return NONE_FIRST;
  // Each has its share of what one of them alone would do.
  const one = n * most;
  return { lower: told[0] * one, variance: (told[1] * one) ** 2 - n * most * most };
}
