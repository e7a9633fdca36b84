import { ok } from '../problem';
import type { SumDefinition } from './sumDefinition';

/** Odd ones in a bank of capacitors. Source: modified z-score of Iglewicz and Hoaglin (1993), limit 3.5. */
export const capBankOutlier: SumDefinition = {
  name: 'cap-bank-outlier',
  title: 'The odd one in a capacitor bank',
  formula: 'outlier: 0.6745 |x - median| > 3.5 MAD; slip: x/median within 12 % of 0.1 or 10',
  source: 'modified z-score, Iglewicz and Hoaglin 1993',
  inputs: [
    { key: 'readings', unit: 'F', meaning: 'capacitances read', rule: 'positive', list: true },
    { key: 'nominal', unit: 'F', meaning: 'printed value', rule: 'positive' },
    { key: 'tol', unit: '1', meaning: 'tolerance', rule: 'fraction-below-one', preset: 0.2 },
  ],
  resultUnits: { median: 'F', mad: 'F', total: 'F' },
  task: 'judge-a-part',
  words: 'bank parallel capacitors odd one readings median',
  lead: ['outliers', 'total'],
  resultWords: {
    median: 'median',
    mad: 'median deviation',
    total: 'all together',
    outOfTolerance: 'out of tolerance',
    outliers: 'unlike the others',
    decadeSlips: 'a decade off: slip of the range?',
  },
  steps: [],
  example: { readings: [468e-6, 472e-6, 465e-6, 310e-6, 470e-6], nominal: 470e-6 },
  compute({ nominal = 0, tol = 0 }, { lists }) {
    const readings = lists['readings'] ?? [];
    const median = medianOf(readings);
    const mad = medianOf(readings.map((x) => Math.abs(x - median)));
    const where = (odd: (x: number) => boolean): number[] => readings.flatMap((x, i) => (odd(x) ? [i] : []));
    const results = {
      median,
      mad,
      total: readings.reduce((sum, x) => sum + x, 0),
      outOfTolerance: where((x) => Math.abs(x - nominal) > tol * nominal),
      outliers: where((x) => (mad === 0 ? Math.abs(x / median - 1) > 1e-9 : 0.6745 * Math.abs(x - median) > 3.5 * mad)),
      decadeSlips: where((x) => [0.1, 10].some((slip) => Math.abs(x / median / slip - 1) <= 0.12)),
    };
    return ok({ results, cautions: ['In circuit, parallel parts add to every reading.'] });
  },
};

function medianOf(list: readonly number[]): number {
  const sorted = [...list].sort((a, b) => a - b);
  const half = sorted.length / 2;
  return sorted.length % 2 === 1 ? sorted[Math.floor(half)]! : (sorted[half - 1]! + sorted[half]!) / 2;
}
