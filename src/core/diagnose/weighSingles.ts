import type { Hypothesis } from './hypotheses';

/**
 * Hypotheses weighed by a likelihood that is worked out for each single fault, the likeliest first, until the time is up. A
 * fault that is joined by others counts by the one that began it; what was not worked out, or of which nothing can be said,
 * weighs like the middle of the rest.
 *
 * seconds     works until then; the sound unit is worked out in any case.
 * likelihood  its logarithm; null where nothing can be said.
 */
export function weighSingles(
  hypotheses: readonly Hypothesis[],
  seconds: number,
  clock: () => number,
  likelihood: (faults: Hypothesis['faults']) => number | null,
): readonly Hypothesis[] {
  const known = new Map<string, number>();
  const until = clock() + seconds;
  const first = [...hypotheses].filter((h) => h.faults.length <= 1).sort((a, b) => b.weight - a.weight);
  for (const { label, faults } of first) {
    if (clock() > until && faults.length > 0) break;
    const own = likelihood(faults);
    if (own !== null) known.set(label, own);
  }
  const found = [...known.values()].sort((a, b) => a - b);
  const middle = found[found.length >> 1] ?? 0;
  const best = found.at(-1) ?? 0;
  return hypotheses.map((h) => {
    const own = known.get(h.label) ?? known.get(h.label.split('+')[0]!) ?? middle;
    return { ...h, weight: h.weight * Math.exp(own - best) };
  });
}
