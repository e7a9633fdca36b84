import { isCapacitor } from '../device';
import type { Device } from '../device';
import type { PowerConverter } from '../stages';
import type { UnitCircuit } from './unitCircuit';
import { sqrtRatio, windingsOf } from './windingsOf';
import { transfer } from './workDevice';
import type { WorkDevice } from './workDevice';

/** Volts of a conducting base, of a saturated collector, and of the diode that charges the output. */
const BASE_VOLTS = 0.75;
const SATURATED_VOLTS = 0.25;
const DIODE_VOLTS = 0.8;
/** Share of the energy of the core that reaches the output: the rest stays in its leakage and resistances. */
const PASSED_ON = 0.85;
/** Below this peak current it does not oscillate, ampere. */
const LEAST_PEAK = 5e-3;
/** A feedback path up to this drives the base, ohm. */
const DRIVE_OHMS = 20e3;

/** What makes a self-oscillating stage go: its windings, the resistances into the base, the gain of its transistor. */
interface Oscillator {
  readonly transistor: Device;
  readonly supply: number;
  readonly low: number;
  readonly base: number;
  readonly henries: number;
  /** Turns of the feedback winding and of the output winding over those of the collector's. */
  readonly feedback: number;
  readonly output: number;
  readonly feedbackOhms: number;
  readonly startOhms: number;
  readonly gain: number;
  /** Where the output's current comes from and goes to. */
  readonly from: number;
  readonly to: number;
}

/** Finds the oscillator of a converter on its board with faults; null where something of its loop is missing. */
export function oscillatorOf(unit: UnitCircuit, c: PowerConverter): Oscillator | null {
  if (c.topology !== 'blocking-oscillator') return null;
  const { circuit } = unit;
  const ref = c.switches[0]?.refs[0];
  const transistor = circuit.devices.find((d) => d.name === ref && d.model.kind === 'transistor');
  const windings = windingsOf(circuit);
  const supply = unit.node(c.supply);
  if (!transistor || supply < 0) return null;
  const [collector, base, low] = transistor.nodes as [number, number, number];
  const own = windings.find((w) => w.ends.includes(collector) && w.ends.includes(supply));
  if (!own) return null;
  const others = windings.filter((w) => w.core === own.core && w !== own);
  const drive = others.map((w) => ({ w, ohms: pathOhms(unit, w.ends, base) })).sort((p, q) => p.ohms - q.ohms)[0];
  if (!drive || !(drive.ohms < DRIVE_OHMS)) return null;
  const diodes = circuit.devices.filter((d) => d.model.kind === 'junction');
  const charged = others.flatMap((w) =>
    w === drive.w
      ? []
      : diodes.flatMap((d) => {
          const at = w.ends.indexOf(d.nodes[0]!);
          return at >= 0 && !unit.isSteady(d.nodes[0]!) && unit.isSteady(d.nodes[1]!)
            ? [{ w, from: w.ends[1 - at]!, to: d.nodes[1]! }]
            : [];
        }),
  )[0];
  if (!charged) return null;
  const { parameters } = circuit;
  return {
    transistor,
    supply,
    low,
    base,
    henries: own.henries,
    feedback: sqrtRatio(drive.w, own),
    output: sqrtRatio(charged.w, own),
    feedbackOhms: drive.ohms,
    startOhms: pathOhms(unit, [supply], base),
    gain: parameters[transistor.at + 2]!,
    from: charged.from,
    to: charged.to,
  };
}

/** Least ohm of a chain of resistors (capacitors pass) from some nodes to another, not by way of rails. */
function pathOhms(unit: UnitCircuit, from: readonly number[], to: number): number {
  const { circuit } = unit;
  const best = new Map<number, number>(from.filter((n) => n === from[0] || !unit.isSteady(n)).map((n) => [n, 0]));
  for (let round = 0; round < 6; round++) {
    for (const d of circuit.devices) {
      const passes = d.model.kind === 'resistor' || isCapacitor(d);
      if (!passes) continue;
      const ohms = d.model.kind === 'resistor' ? circuit.parameters[d.at]! : 0;
      const [a, b] = [d.nodes[0]!, d.nodes[1]!];
      for (const [p, q] of [
        [a, b],
        [b, a],
      ] as const) {
        const sum = (best.get(p) ?? Infinity) + ohms;
        if (unit.isSteady(q) || (unit.isSteady(p) && !from.includes(p))) continue;
        if (sum < (best.get(q) ?? Infinity)) best.set(q, sum);
      }
    }
  }
  return best.get(to) ?? Infinity;
}

/** Peak collector current at some supply volts, ampere: where the base runs out of current. */
export function oscillatorPeak(o: Oscillator, volts: number): number {
  const fed = Math.max(o.feedback * volts - BASE_VOLTS, 0) / o.feedbackOhms;
  const start = Math.max(volts - BASE_VOLTS, 0) / o.startOhms;
  return o.gain * (fed + start);
}

/** Whether it oscillates at mean volts x: its base must be able to start it, and the feedback to carry it. */
export function oscillates(o: Oscillator, x: Float64Array): boolean {
  const volts = x[o.supply]! - x[o.low]!;
  if (volts < 1.5 || !Number.isFinite(o.startOhms)) return false;
  return x[o.base]! - x[o.low]! > 0.4 && oscillatorPeak(o, volts) > LEAST_PEAK && o.feedback * volts > 0.5;
}

/**
 * The stage as a device of the mean network: each cycle stores L I² / 2 while the collector's winding has the supply and
 * gives it on while the output's winding has the output. Nodes: supply, low, from, to.
 */
export function oscillatorDevice(o: Oscillator): WorkDevice {
  const currents = (volts: number, out: number): readonly [number, number] => {
    const v = Math.max(volts - SATURATED_VOLTS, 0.1);
    const peak = oscillatorPeak(o, volts);
    if (!(peak > 0)) return [0, 0];
    const on = (o.henries * peak) / v;
    const back = Math.max((out + DIODE_VOLTS) / o.output, 0.02 * v);
    const off = (o.henries * peak) / back;
    const period = on + off;
    return [(0.5 * peak * on) / period, (PASSED_ON * 0.5 * (peak / o.output) * off) / period];
  };
  return transfer('oscillator', [o.supply, o.low, o.from, o.to], currents);
}
