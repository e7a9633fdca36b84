import { startTimes } from '@/core/work';
import type { MeasuredUnit } from '@/core/work';
import type { StatedUnit } from './poweredMessages';

/** A unit as a whole, as it crosses to the page. */
export function statedUnit({ reader, contradictions }: MeasuredUnit): StatedUnit {
  const { unitState, states, period, warnings, destroys } = reader.operation;
  return {
    state: unitState,
    states,
    period,
    warnings,
    destroys,
    starts: startTimes(reader.operation),
    contradictions: contradictions.map(({ words, adopted }) => ({ words, adopted })),
  };
}
