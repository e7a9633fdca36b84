import type { StageKind } from '../stages';

/** Stages that carry the power, in its order; the others hang on them. */
export const POWER_ORDER: readonly StageKind[] = [
  'mains-input',
  'surge',
  'emi-filter',
  'inrush',
  'rectifier',
  'pfc',
  'bulk',
  'switch',
  'transformer',
  'tank',
  'output-rectifier',
  'multiplier',
  'output-filter',
  'regulator',
  'inverter-bridge',
  'connector',
];

/** Stages that stand below the power's way: what is told back, judged and shown. */
const BELOW: readonly StageKind[] = [
  'controller',
  'gate-drive',
  'aux-supply',
  'discharge',
  'feedback',
  'sensing',
  'charge-control',
  'protection',
  'indicator',
  'barrier',
];

/** Height on the sheet that a stage tends to: 0 the top, 1 the bottom. */
export function tendency(kind: StageKind | 'unplaced'): number {
  if (kind === 'unplaced') return 1;
  if (kind === 'feedback' || kind === 'barrier') return 0.9;
  return BELOW.includes(kind) ? 0.75 : 0.2;
}
