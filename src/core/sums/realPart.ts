import { nearestPreferred } from '../quantity';
import type { SeriesName } from '../quantity';
import type { SumDefinition } from './sumDefinition';

/**
 * The preferred value to fit for a result: the nearest one, or the nearest that does not lie on the wrong side.
 * Null where the sum names no part for it, or the result is none.
 */
export function realPart(sum: SumDefinition, key: string, value: unknown, series: SeriesName): number | null {
  const side = sum.fit?.[key];
  if (side === undefined || typeof value !== 'number' || !(value > 0)) return null;
  const near = nearestPreferred(value, series);
  const allow = 1e-9 * value;
  if (side === 'near') return near;
  if (side === 'above' ? near >= value - allow : near <= value + allow) return near;
  // The neighbour on the right side: E24's steps are at most 12 %, E12's 22 %, wider than half a step of any.
  for (let wanted = near; ; wanted *= side === 'above' ? 1.01 : 1 / 1.01) {
    const next = nearestPreferred(wanted, series);
    if (side === 'above' ? next >= value - allow : next <= value + allow) return next;
  }
}
