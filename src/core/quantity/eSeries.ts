/** Preferred numbers of one decade. Source: IEC 60063; E96 computed as round(100·10^(n/96))/100. */
const E12 = [1, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2] as const;
const E24 = [
  1, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2, 2.2, 2.4, 2.7, 3, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8, 7.5, 8.2, 9.1,
] as const;
const E96 = Array.from({ length: 96 }, (_, n) => Math.round(100 * 10 ** (n / 96)) / 100);

/** The names of the preferred-number series we know. */
export type SeriesName = 'E12' | 'E24' | 'E96';

/** One decade (1 up to 10) of a preferred-number series, rising. */
export const E_SERIES: Readonly<Record<SeriesName, readonly number[]>> = { E12, E24, E96 };

/**
 * The preferred value nearest to a wanted one, over every decade, by ratio (smallest |ln|; a tie goes to the lower).
 *
 * wanted  > 0, any unit; the answer has the same unit.
 */
export function nearestPreferred(wanted: number, series: SeriesName): number {
  const decade = Math.floor(Math.log10(wanted));
  let best = Number.NaN;
  let least = Infinity;
  for (let shift = -1; shift <= 1; shift++) {
    for (const step of E_SERIES[series]) {
      const value = Number(`${step}e${decade + shift}`);
      const distance = Math.abs(Math.log(value / wanted));
      if (distance < least - 1e-12) [best, least] = [value, distance];
    }
  }
  return best;
}
