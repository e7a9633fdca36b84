import type { PowerConverter } from '../stages';
import { closeLoops } from './loops';
import { controllerOf } from './makeCell';
import type { UnitUnderPower } from './unit';
import type { WorkState } from './unitCircuit';
import { held } from './workDevice';
import type { WorkDevice } from './workDevice';
import { supplyThresholds } from './workPlan';

/** A supply pin that saws between two thresholds: how long it falls and rises, s, and the mean volts of the unit meanwhile. */
export interface Hiccup {
  readonly ref: string;
  readonly period: number;
  readonly onShare: number;
  readonly volts: Float64Array;
}

/** A supply that lifts itself from the middle between its thresholds: where the unit stands meanwhile. */
export interface Sustained {
  readonly sustained: Float64Array;
}

/**
 * Whether a controller whose converter runs cannot hold its own supply; and if so how it cycles.
 *
 * Charge balance of the supply pin: what flows into it at the middle between its thresholds, running and waiting, over the
 * capacitors that hang on it. Outputs charge while it runs and fall with their loads while it waits.
 */
export function hiccupOf(
  unit: UnitUnderPower,
  state: WorkState,
  index: number,
  running: Float64Array,
): Hiccup | Sustained | null {
  const ic = controllerOf(unit, unit.plan.converters[index]!);
  const thresholds = ic && supplyThresholds(ic);
  if (!ic || !thresholds) return null;
  const [vcc, ground] = [unit.pin(ic, 'VCC'), unit.ground(ic)];
  const { start, stop } = thresholds;
  if (vcc < 0 || ground < 0 || running[vcc]! - running[ground]! >= stop) return null;
  const middle = (start + stop) / 2;
  const farads = unit.faradsBetween(vcc, ground);
  const idle: WorkState = {
    powered: new Set([...state.powered].filter((r) => r !== ic.ref)),
    running: new Set([...state.running].filter((i) => i !== index)),
    closed: state.closed,
  };
  const hold = (volts: number): WorkDevice => held('supply pin', vcc, ground, volts, HOLD);
  const flow = (x: Float64Array): number => (x[vcc]! - x[ground]! - middle) / HOLD;
  const begun = Float64Array.from(running);
  begun[vcc] = begun[ground]! + middle;
  const working = closeLoops(unit, state, begun, [hold(middle)]) ?? closeLoops(unit, state, null, [hold(middle)]);
  // Last, so that the devices kept are those of a unit that waits.
  const waiting = closeLoops(unit, idle, null, [hold(middle)]);
  if (!waiting || !working || farads <= 0) return null;
  const [into, out] = [flow(waiting), -flow(working)];
  if (out <= 0) return { sustained: working };
  // Nothing flows in: it ran once, if ever.
  if (into <= 0) return { ref: ic.ref, period: Infinity, onShare: 0, volts: waiting };
  const swing = start - stop;
  const [up, down] = [(farads * swing) / into, (farads * swing) / out];
  const period = up + down;
  return {
    ref: ic.ref,
    period,
    onShare: down / period,
    volts: meanOf(unit, unit.plan.converters[index]!, idle, working, up, down, hold(middle)),
  };
}

const HOLD = 1;

/** The mean of a unit whose outputs run for a while and then fall with their loads. */
function meanOf(
  unit: UnitUnderPower,
  converter: PowerConverter,
  idle: WorkState,
  working: Float64Array,
  up: number,
  down: number,
  hold: WorkDevice,
): Float64Array {
  const holds: WorkDevice[] = [hold];
  const outputs = unit.plan.outputs.filter((o) => o.kind === 'dc' && converter.outputs.includes(o.rail));
  const rails = outputs.map((o) => [unit.node(o.rail), unit.node(o.return)] as const);
  const volts = rails.map(([a, b]) => working[a]! - working[b]!);
  // What the loads draw from each rail at its full volts tells how it falls.
  const full = rails.map(([a, b], i) => held('full', a, b, volts[i]!, HOLD));
  const drawn = closeLoops(unit, idle, null, [hold, ...full]);
  rails.forEach(([a, b], i) => {
    const v = volts[i]!;
    const amps = drawn ? (v - (drawn[a]! - drawn[b]!)) / HOLD : 0;
    const tau = Math.max((outputFarads(unit, a, b) * v) / Math.max(amps, 1e-6), 1e-6);
    const tail = (tau / up) * (1 - Math.exp(-up / tau));
    holds.push(held('fallen', a, b, (v * down + v * up * tail) / (up + down), 1e-2));
  });
  return closeLoops(unit, idle, null, holds) ?? working;
}

/** Farad on an output and on what a choke or small resistance joins to it. */
function outputFarads(unit: UnitUnderPower, a: number, b: number): number {
  const { circuit } = unit;
  const near = new Set([a]);
  for (let grown = true; grown;) {
    grown = false;
    for (const d of circuit.devices) {
      const passes =
        (d.model.kind === 'windings' && d.model.states === 1) ||
        (d.model.kind === 'resistor' && circuit.parameters[d.at]! < 1);
      if (!passes || !d.nodes.some((n) => near.has(n)) || d.nodes.includes(b) || d.nodes.every((n) => near.has(n)))
        continue;
      for (const n of d.nodes) near.add(n);
      grown = true;
    }
  }
  return [...near].reduce((sum, n) => sum + unit.faradsBetween(n, b), 0);
}
