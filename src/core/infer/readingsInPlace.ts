import { findPart } from '../circuit';
import type { Board } from '../circuit';
import type { RankedReading } from '../marking';
import { formatQuantity } from '../quantity';
import { recogniseStages } from '../stages';
import type { StageKind } from '../stages';

/** Values that parts of a stage have in practice, SI units: resistors in ohms, capacitors in farads. */
const USUAL: Partial<
  Record<StageKind, { readonly resistor?: readonly [number, number]; readonly capacitor?: readonly [number, number] }>
> = {
  'current-sense': { resistor: [0.0005, 5e3], capacitor: [47e-12, 22e-9] },
  startup: { resistor: [10e3, 5e6] },
  'gate-drive': { resistor: [1, 47e3] },
  clamp: { resistor: [1, 220e3], capacitor: [47e-12, 47e-9] },
  bulk: { capacitor: [1e-6, 10e-3] },
  'emi-filter': { resistor: [100e3, 4.7e6], capacitor: [470e-12, 4.7e-6] },
  'output-filter': { capacitor: [47e-9, 50e-3] },
  'aux-supply': { capacitor: [47e-9, 1e-3] },
  discharge: { resistor: [22, 2.2e6] },
  barrier: { capacitor: [100e-12, 10e-9] },
};
/** A resistor straight between a switch and ground carries the whole current: it is below this. */
const SHUNT_OHMS = 5;
/** How much less likely a reading is that does not suit its place. */
const MISFIT = 0.12;

/** A reading with what its place says about it, null where nothing does. */
export interface PlacedReading extends RankedReading {
  readonly place: string | null;
}

/**
 * Reorders the readings of a marking by where the part stands: a value that such a place does not have goes back, with
 * the reason said. Nothing is thrown away.
 */
export function readingsInPlace(
  board: Board,
  ref: string,
  readings: readonly RankedReading[],
): readonly PlacedReading[] {
  const part = findPart(board, ref);
  const stage = recogniseStages(board).stages.find((s) => s.parts.some((p) => p.toLowerCase() === ref.toLowerCase()));
  if (!part || !stage) return readings.map((r) => ({ ...r, place: null }));
  const shunt = stage.kind === 'current-sense' && (stage.reasons[part.ref] ?? '').includes('into volts');
  const usual = shunt ? ([0.0005, SHUNT_OHMS] as const) : USUAL[stage.kind]?.[part.kind as 'resistor' | 'capacitor'];
  const where = shunt ? "where the switch's current is sensed" : `in the ${stage.kind.replaceAll('-', ' ')}`;
  const placed = readings.map((r) => {
    if (!usual || r.value === null || r.kind !== part.kind) return { ...r, place: null };
    const fits = r.value >= usual[0] && r.value <= usual[1];
    const unit = r.unit === 'F' ? 'F' : 'ohm';
    const place = fits
      ? `fits ${where}`
      : `${formatQuantity(r.value, unit)} would be odd ${where}: check it with the meter`;
    return { ...r, likelihood: r.likelihood * (fits ? 1 : MISFIT), place };
  });
  const total = placed.reduce((sum, r) => sum + r.likelihood, 0) || 1;
  return placed.map((r) => ({ ...r, likelihood: r.likelihood / total })).sort((a, b) => b.likelihood - a.likelihood);
}
