import { STAGE_KINDS } from '../stages';
import type { StageKind } from '../stages';

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

/** Stages that hang on the power's way at its own height. */
const BESIDE: readonly StageKind[] = ['startup', 'current-sense', 'clamp'];

/** Stages that carry the power, in its order; the others hang on them. */
export const POWER_ORDER = STAGE_KINDS.filter((kind) => !BELOW.includes(kind) && !BESIDE.includes(kind));

/** Height on the sheet that a stage tends to: 0 the top, 1 the bottom. */
export function tendency(kind: StageKind | 'unplaced'): number {
  if (kind === 'unplaced') return 1;
  if (kind === 'feedback' || kind === 'barrier') return 0.9;
  return BELOW.includes(kind) ? 0.75 : 0.2;
}
