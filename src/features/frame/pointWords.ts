import { formatQuantity } from '@/core/quantity';
import type { AlivePoint } from '@/core/work';
import { poweredWords } from './lineWords';

/** What to mind at a point by the hazard of its island. */
export const POINT_CAUTIONS = {
  mains:
    'Mains side, and its black lead too: unit behind an isolating transformer or the meter on its own. Never clip an earthed instrument here.',
  hv: 'High voltage. One hand, probes rated for it, nothing held that is not insulated.',
  battery: 'A battery feeds a short without limit: a fused lead, no rings, no slipping probe.',
  elv: null,
} as const;

const rough = (volts: number): string => formatQuantity(volts, 'V', 2);

/** The band of a point in words. */
export function bandWords({ mode, reading }: AlivePoint): string {
  const { value, low, high } = reading;
  if (value === null || low === null || high === null) return 'nothing periodic';
  // A ripple is known in two figures at the best.
  if (mode === 'ripple') return low === 0 ? `up to ${rough(high)}` : `${rough(low)} to ${rough(high)}`;
  if (low === 0 && mode !== 'dcv') return `up to ${poweredWords(mode, high)}`;
  return `${poweredWords(mode, low)} to ${poweredWords(mode, high)}`;
}
