import type { Device } from '../device';
import type { PowerConverter } from '../stages';
import { oscillatorDevice, oscillatorOf } from './blockingOscillator';
import { royerDevices, royerOf } from './royer';
import { controllerOf, senseOhms } from './makeCell';
import type { UnitCircuit } from './unitCircuit';
import { linearHold, steady } from './workDevice';
import type { WorkDevice } from './workDevice';

/** Share of the power that a power-factor stage passes on. */
const PFC_EFFICIENCY = 0.978;
/** Mean square over square of the mean of a rectified sine: pi squared over eight. */
const SINE_SHAPE = Math.PI ** 2 / 8;
/** Ampere for each volt that the feedback pin is short of its reference. */
const PFC_GAIN = 50;

/** Topologies that are worked out by their power balance instead of pulse by pulse. */
export function isSimple(c: PowerConverter): boolean {
  return c.topology === 'boost-pfc' || c.topology === 'blocking-oscillator' || c.topology === 'royer' || isInverter(c);
}

/** Converters whose legs make an alternating voltage. */
export function isInverter(c: PowerConverter): boolean {
  return (
    c.topology === 'three-phase-inverter' ||
    c.topology === 'line-frequency-inverter' ||
    ((c.topology === 'full-bridge' || c.topology === 'half-bridge') && c.coils.length === 0)
  );
}

/** Devices that such a converter works itself: switches with their body diodes, the boost diode. */
export function simpleDevices(unit: UnitCircuit, c: PowerConverter): readonly Device[] {
  if (!isSimple(c)) return [];
  const oscillator = oscillatorOf(unit, c);
  if (oscillator) {
    const { transistor, to } = oscillator;
    const windings = new Set(unit.circuit.devices.flatMap((d) => (d.model.kind === 'windings' ? d.nodes : [])));
    return unit.circuit.devices.filter(
      (d) => d === transistor || (d.model.kind === 'junction' && d.nodes[1] === to && windings.has(d.nodes[0]!)),
    );
  }
  if (c.topology === 'royer') return royerOf(unit, c)?.transistors ?? [];
  const refs = new Set(c.switches.flatMap((s) => s.refs));
  const nodes = new Set(c.nodes.map((n) => unit.node(n)));
  return unit.circuit.devices.filter((d) => {
    if (refs.has(d.name)) return d.model.kind === 'channel' || d.model.kind === 'junction';
    return c.topology === 'boost-pfc' && d.model.kind === 'junction' && nodes.has(d.nodes[0]!);
  });
}

/** A converter by its power balance, as devices of the mean network; none for those with cells. */
export function simpleConverter(unit: UnitCircuit, c: PowerConverter): readonly WorkDevice[] {
  if (c.topology === 'boost-pfc') return powerFactorStage(unit, c);
  const oscillator = oscillatorOf(unit, c);
  if (oscillator) return [oscillatorDevice(oscillator)];
  const royer = royerOf(unit, c);
  if (royer) return royerDevices(royer);
  return isInverter(c) ? inverter(unit, c) : [];
}

/**
 * A boost stage that draws a current in the shape of the mains: gives its rail as much as the feedback pin is short of its
 * reference, takes from the choke what that power is at the rectified mains.
 */
function powerFactorStage(unit: UnitCircuit, c: PowerConverter): readonly WorkDevice[] {
  const ic = controllerOf(unit, c);
  const [sw, out, low] = [c.nodes[0], c.outputs[0], c.switches[0]?.low].map((n) =>
    n === undefined ? -1 : unit.node(n),
  );
  if (!ic || sw! < 0 || out! < 0 || low! < 0) return [];
  const [fb, ground] = [unit.pin(ic, 'FB'), unit.ground(ic)];
  const reference = (ic.facts['fbRef'] ?? 2.5) * (unit.aims.get(ic.ref) ?? 1);
  const diode = unit.circuit.devices.find(
    (d) => d.model.kind === 'junction' && d.nodes[0] === sw && d.nodes[1] === out,
  );
  if (!diode) return [];
  const most = mostTaken(unit, c);
  const back = unit.rectified.find((r) => r.nodes.some((n) => unit.node(c.supply) === n))?.low ?? low!;
  const [SW, OUT, LOW, FB, GND, BACK] = [0, 1, 2, 3, 4, 5];
  return [
    {
      name: 'power-factor stage',
      nodes: [sw!, out!, low!, fb, ground, back],
      joins: [[sw!, low!]],
      evaluate(x, flow, slope) {
        flow.fill(0);
        slope.fill(0);
        const n = 6;
        const short = reference - (x[FB]! - x[GND]!);
        const high = Math.max(x[OUT]! - x[LOW]!, 1);
        const mains = Math.max(x[SW]! - x[BACK]!, 5);
        const ratio = high / (PFC_EFFICIENCY * SINE_SHAPE * mains);
        const limited = Math.max(short, 0) * PFC_GAIN * ratio > most;
        const g = short > 0 && !limited ? PFC_GAIN : 0;
        const gives = limited ? most / ratio : Math.max(short, 0) * PFC_GAIN;
        const takes = gives * ratio;
        flow[SW] = takes;
        flow[OUT] = -gives;
        flow[LOW] = gives - takes;
        const put = (row: number, column: number, s: number): void => {
          slope[row * n + column] = slope[row * n + column]! + s;
        };
        if (limited) {
          // It takes all it may, and gives what that is at the volts of the rail.
          for (const [row, sign] of [
            [OUT, -1],
            [LOW, 1],
          ] as const) {
            put(row!, OUT!, (-sign * gives) / high);
            put(row!, LOW!, (sign * gives) / high);
            put(row!, SW!, (sign * gives) / mains);
            put(row!, BACK!, (-sign * gives) / mains);
          }
          return;
        }
        // d gives / d FB = -g; d takes follows, the ratio by the volts of the rail and of the mains.
        for (const [row, byGives, byTakes] of [
          [SW, 0, 1],
          [OUT, -1, 0],
          [LOW, 1, -1],
        ] as const) {
          const byShort = byGives + byTakes * ratio;
          put(row!, FB!, -g * byShort);
          put(row!, GND!, g * byShort);
          put(row!, OUT!, (byTakes * takes) / high);
          put(row!, LOW!, (-byTakes * takes) / high);
          put(row!, SW!, (-byTakes * takes) / mains);
          put(row!, BACK!, (byTakes * takes) / mains);
        }
      },
    },
  ];
}

/** The mean current that a power-factor stage takes at most: what its shunt allows at the crest, or what its full load wants. */
function mostTaken(unit: UnitCircuit, c: PowerConverter): number {
  const csMax = controllerOf(unit, c)?.facts['csMax'];
  const ohms = senseOhms(unit, c);
  const shown =
    csMax !== undefined && ohms > 0 && ohms < Infinity ? (Math.abs(csMax) / ohms) * MEAN_OF_CREST : Infinity;
  const { outputs, inputs } = unit.plan;
  const watts = outputs.reduce((sum, o) => sum + o.volts * o.amps, 0);
  const least = inputs.lowest;
  return Math.min(shown, least > 0 && watts > 0 ? (SPARE_POWER * watts) / least : Infinity);
}

/** Mean of a rectified sine over its crest; how many times its full load's current such a stage takes at most. */
const MEAN_OF_CREST = 2 / Math.PI;
const SPARE_POWER = 2.5;

/** Legs at half their bus in the mean; what the load takes as a current from the bus. */
function inverter(unit: UnitCircuit, c: PowerConverter): readonly WorkDevice[] {
  const high = unit.node(c.supply);
  const lowNet = c.switches.find((s) => s.side !== 'top')?.low;
  const low = lowNet === undefined ? -1 : unit.node(lowNet);
  if (high < 0 || low < 0) return [];
  const legs = c.switches.some((s) => s.side === 'top') ? c.nodes : [];
  const list: WorkDevice[] = legs.flatMap((net, i) => {
    const leg = unit.node(net);
    if (leg < 0) return [];
    // The first leg holds the mean; the others follow it through the load.
    return [halfOf(`leg ${i}`, leg, high, low)];
  });
  const amps = unit.alternating?.amps ?? 0;
  if (amps > 0) list.push(steady('inverter', high, low, amps));
  return list;
}

/** A node held half way between two others. */
export function halfOf(name: string, node: number, high: number, low: number): WorkDevice {
  return linearHold(name, [node, low, high], [1, -0.5, -0.5], 0, 0.2);
}
