import { closeLoops } from './loops';
import type { Operation } from './operate';
import type { WorkState } from './unitCircuit';
import { held } from './workDevice';
import { supplyThresholds } from './workPlan';
import type { WorkIc } from './workPlan';

/** Behind what the supply pin is held while it is asked what flows into it, ohm. */
const HOLD = 1;
/** Below this a pin is charged by a source itself, s. */
const AT_ONCE = 1e-3;

/**
 * Seconds that the supply pin of each controller takes from nothing to where it starts, once the unit is fed: what flows in
 * at a tenth and at nine tenths of the way, straight between, over the capacitors that hang there. Infinity: it never gets
 * there. Controllers that a source feeds at once, or whose start nobody knows, are left out.
 * Source: charge of a capacitor through a resistance, t = C/g ln(I0 / (I0 - g V)).
 */
export function startTimes(operation: Operation): Readonly<Record<string, number>> {
  const found: Record<string, number> = {};
  for (const ic of operation.unit.plan.ics.values()) {
    const seconds = startTime(operation, ic);
    if (seconds !== null && seconds > AT_ONCE) found[ic.ref] = seconds;
  }
  return found;
}

function startTime({ unit }: Operation, ic: WorkIc): number | null {
  const thresholds = supplyThresholds(ic);
  const [vcc, ground] = [unit.pin(ic, 'VCC'), unit.ground(ic)];
  if (!thresholds || vcc < 0 || ground < 0) return null;
  const farads = unit.faradsBetween(vcc, ground);
  if (!(farads > 0)) return null;
  const { lastDevices, settled, ranDown } = unit;
  const nothing: WorkState = { powered: new Set(), running: new Set(), closed: new Set() };
  const flowAt = (volts: number): number | null => {
    const x = closeLoops(unit, nothing, null, [held('supply pin', vcc, ground, volts, HOLD)]);
    return x && (x[vcc]! - x[ground]! - volts) / HOLD;
  };
  const { start } = thresholds;
  const [early, late] = [flowAt(0.1 * start), flowAt(0.9 * start)];
  Object.assign(unit, { lastDevices, settled, ranDown });
  if (early === null || late === null) return null;
  const slope = (early - late) / (0.8 * start);
  const first = early + 0.1 * start * slope;
  const end = first - slope * start;
  if (first <= 0 || end <= 0) return Infinity;
  return Math.abs(slope) * start < 1e-3 * first ? (farads * start) / first : (farads / slope) * Math.log(first / end);
}
