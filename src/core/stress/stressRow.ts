import { formatQuantity } from '../quantity';
import type { Unit } from '../quantity';
import { judgeStress } from './derating';
import type { Derating, StressKind, Verdict } from './derating';

/** One stress against its rating. stress, rating and limit (derated) in `unit`; null where not known. */
export interface StressRow {
  readonly ref: string;
  readonly quantity: 'voltage' | 'power' | 'current' | 'limit';
  readonly unit: Unit;
  readonly stress: number | null;
  readonly rating: number | null;
  readonly limit: number | null;
  readonly ratio: number | null;
  readonly verdict: Verdict;
  readonly why: string;
}

/** Makes rows under one set of deratings. */
export type RowMaker = (
  ref: string,
  quantity: StressRow['quantity'],
  kind: StressKind,
  stress: number | null,
  rating: number | null | undefined,
  why: string,
) => StressRow;

const UNITS = { voltage: 'V', power: 'W', current: 'A', limit: 'V' } as const;

/** See `RowMaker`. */
export function rowMaker(derating: Derating): RowMaker {
  return (ref, quantity, kind, stress, rated, why) => {
    const rating = rated ?? null;
    const { factor, words, why: reason } = derating[kind];
    const verdict = judgeStress(stress, rating, factor);
    const share = stress !== null && rating !== null ? stress / rating : null;
    const against =
      share === null
        ? ''
        : `: ${Math.round(share * 100)} % of its ${formatQuantity(rating!, UNITS[quantity])}${
            verdict === 'tight' ? `, beyond the ${Math.round(factor * 100)} % used of it (${words}: ${reason})` : ''
          }`;
    const limit = rating === null ? null : rating * factor;
    return {
      ref,
      quantity,
      unit: UNITS[quantity],
      stress,
      rating,
      limit,
      ratio: share,
      verdict,
      why: `${why}${against}`,
    };
  };
}
