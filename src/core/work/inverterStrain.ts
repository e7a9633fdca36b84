import { isCapacitor } from '../device';
import type { Device } from '../device';
import type { PowerConverter } from '../stages';
import { oneWay, shareOf, sine } from './modelled';
import type { Modelled } from './modelled';
import type { Operation } from './operate';
import { loadShare } from './workBoard';

/** Above this a leg drives a coil in resonance, below it makes the frequency of its load, hertz. */
const MOST_LINE_HERTZ = 2000;
/** Depth of modulation and power factor that a three-phase drive is taken to work at. */
const MOTOR_FACTOR = 0.95;
/** A bus that the mains takes below this share of its crest is not smoothed. */
const SMOOTHED = 0.5;

/**
 * What an inverter does: its legs go between the rails of their bus; a sine (three of them for a motor, a square with pauses at
 * line frequency, a resonant current in a coil) flows through the switches in turn; what it takes from its bus in pulses comes
 * out of the capacitors there. highs: volts of the nodes at their crest.
 */
export function inverterStrain(operation: Operation, c: PowerConverter, highs: Float64Array): Modelled | null {
  const { unit, alternating } = operation;
  const [output] = unit.plan.outputs.filter((o) => o.kind === 'ac');
  const high = unit.node(c.supply);
  const bottoms = c.switches.filter((s) => s.side !== 'top');
  const low = bottoms.length > 0 ? unit.node(bottoms[0]!.low) : -1;
  if (!alternating || !output || high < 0 || low < 0) return null;
  const crest = highs[high]! - highs[low]!;
  const hertz = output.hertz ?? 50;
  const kind =
    c.nodes.length === 3
      ? 'motor'
      : hertz > MOST_LINE_HERTZ
        ? 'coil'
        : c.topology === 'line-frequency-inverter'
          ? 'square'
          : 'sine';
  const share = loadShare(unit.condition);
  const bus = Math.max(alternating.bus, 1);
  const direct = unit.alternating?.amps ?? 0;
  const smooth = isSmooth(operation, high);
  /** Share of the time that a square stands. */
  const duty = kind === 'square' ? Math.min((alternating.legs / bus) ** 2, 1) : 1;
  const pulses = duty > 0 ? direct / duty : 0;
  const legAmps =
    kind === 'motor' || kind === 'coil'
      ? output.amps * share
      : kind === 'square'
        ? pulses * Math.sqrt(duty)
        : alternating.watts / Math.max(alternating.legs, 1);
  const crestAmps = kind === 'square' ? pulses : Math.SQRT2 * legAmps * (kind === 'coil' && !smooth ? Math.SQRT2 : 1);
  const depth = Math.min((Math.SQRT2 * alternating.legs) / bus, 1);
  const states = new Map<number, readonly [number, number]>();
  const lowVolts = highs[low]!;
  for (const net of c.nodes)
    if (c.switches.some((s) => s.side === 'top')) states.set(unit.node(net), [lowVolts, lowVolts + crest]);
  const resonant = kind === 'coil' ? resonance(operation, c, high, low) : null;
  if (resonant) {
    const swing = crestAmps / (2 * Math.PI * hertz * resonant.farads);
    states.set(resonant.node, [lowVolts + crest / 2 - swing, lowVolts + crest / 2 + swing]);
  }
  const shuntNodes = bottoms.map((s) => unit.node(s.low));
  const busFarads = unit.faradsBetween(high, low) || unit.faradsAt(high);
  const nameOf = (n: number): string => unit.circuit.nodeNames[n]!.toLowerCase();
  const isLegShunt = (d: Device): boolean =>
    new Set(shuntNodes).size > 1 && d.nodes.some((n) => shuntNodes.filter((s) => s === n).length === 1);
  return {
    states,
    across(a, b) {
      if (unit.isSteady(a) || unit.isSteady(b)) return null;
      if (states.has(a) && states.has(b)) return null;
      const rms = alternating.volts(nameOf(a), nameOf(b));
      if (!(rms > 0.5)) return null;
      const peak = kind === 'square' ? rms / Math.sqrt(duty) : Math.SQRT2 * rms;
      return { mean: 0, rms, high: peak, low: -peak };
    },
    through(device, mean) {
      const own = c.switches.find((s) => s.refs.includes(device.name));
      if (own && device.model.kind !== 'junction') {
        const n = own.refs.length * parallels(c, own);
        return oneWay(crestAmps / Math.PI / n, legAmps / Math.SQRT2 / n, crestAmps / n);
      }
      if (own) return null;
      if (device.model.kind === 'resistor') {
        const ohms = Math.max(unit.circuit.parameters[device.at]!, 1e-3);
        if (ohms < MOST_SHUNT && isLegShunt(device)) return sine(legAmps / Math.SQRT2);
        // Between the capacitors of the bus and the legs the pulses are not smoothed yet.
        if (device.nodes.includes(low) && !isRail(operation, low) && Math.abs(mean) > 0.1 * direct) {
          const form =
            kind === 'sine' ? Math.sqrt(16 / (3 * Math.PI) / depth) : kind === 'square' ? 1 / Math.sqrt(duty) : 1;
          const by = Math.abs(mean) / Math.max(direct, 1e-9);
          return oneWay(Math.abs(mean), Math.abs(mean) * form, crestAmps * by);
        }
        if (unit.isSteady(device.nodes[0]!) && unit.isSteady(device.nodes[1]!)) return null;
        const rms = alternating.volts(nameOf(device.nodes[0]!), nameOf(device.nodes[1]!));
        return rms > 1e-6 && ohms < LEAST_LOAD ? sine(rms / ohms) : null;
      }
      return null;
    },
    ripple(device) {
      const [a, b] = [device.nodes[0]!, device.nodes[1]!];
      const own = unit.circuit.parameters[device.at]!;
      if (resonant && (a === resonant.node || b === resonant.node)) return legAmps * shareOf(own, resonant.farads);
      if (![a, b].includes(high)) return 0;
      const share = shareOf(own, busFarads);
      switch (kind) {
        case 'sine':
          return (direct / Math.SQRT2) * share;
        case 'motor':
          return motorRipple(legAmps, (Math.SQRT2 * alternating.legs) / bus) * share;
        case 'coil':
          return Math.sqrt(Math.max((legAmps / 2) ** 2 - (legAmps * COIL_MEAN) ** 2, 0)) * share;
        case 'square':
          return 0;
      }
    },
  };
}

/** Mean of half a rectified sine of one ampere rms whose height follows the mains: 2 sqrt 2 / pi, twice, of a half. */
const COIL_MEAN = (0.5 * 8) / Math.PI ** 2;
/** A shunt has no more than this, ohm. */
const MOST_SHUNT = 0.5;
/** What an alternating current flows through up to this many ohms is no load. */
const LEAST_LOAD = 2;

/** Switches of the same leg and side that share its current. */
const parallels = (c: PowerConverter, own: PowerConverter['switches'][number]): number =>
  c.switches.filter((s) => s.leg === own.leg && s.side === own.side).length;

/**
 * Rms of what the bus capacitor of a three-phase bridge carries, by the rms of a phase and the depth of modulation. Source:
 * Kolar, I sqrt(2 M (sqrt 3 / (4 pi) + cos² (sqrt 3 / pi - 9 M / 16))).
 */
function motorRipple(amps: number, peakOverBus: number): number {
  // Depth counts the peak of a phase over half the bus.
  const depth = Math.min((2 * peakOverBus) / Math.sqrt(3), 1.15);
  const inside = Math.sqrt(3) / (4 * Math.PI) + MOTOR_FACTOR ** 2 * (Math.sqrt(3) / Math.PI - (9 * depth) / 16);
  return amps * Math.sqrt(Math.max(2 * depth * inside, 0));
}

/** Whether a capacitor keeps a bus up between two crests of the mains. */
function isSmooth({ unit }: Operation, high: number): boolean {
  const result = unit.line?.result;
  const top = result?.high.get(high);
  return top === undefined || result!.low.get(high)! > SMOOTHED * top;
}

/** Whether a node has a capacitor of its own. */
const isRail = ({ unit }: Operation, n: number): boolean =>
  unit.circuit.devices.some((d) => isCapacitor(d) && d.nodes.includes(n) && unit.circuit.parameters[d.at]! > 1e-6);

/** The far end of a coil in resonance: the node of the output that is no leg, with the farads from it to the rails of the bus. */
function resonance(
  { unit }: Operation,
  c: PowerConverter,
  high: number,
  low: number,
): { readonly node: number; readonly farads: number } | null {
  for (const d of unit.circuit.devices) {
    if (!isCapacitor(d)) continue;
    const rails = d.nodes.slice(0, 2).filter((n) => n === high || n === low);
    const node = d.nodes.slice(0, 2).find((n) => n !== high && n !== low);
    if (rails.length !== 1 || node === undefined) continue;
    const outputs = unit.plan.outputs.flatMap((o) => (o.kind === 'ac' ? [unit.node(o.rail), unit.node(o.return)] : []));
    if (!outputs.includes(node) || c.nodes.some((n) => unit.node(n) === node)) continue;
    return { node, farads: unit.faradsBetween(node, high) + unit.faradsBetween(node, low) };
  }
  return null;
}
