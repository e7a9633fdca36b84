import { JUNCTION_GMIN, SATURATION, SLOPE, criticalVolts, junctionAt, limitJunction, roomFor } from '../device';
import type { Device } from '../device';
import { THERMAL_VOLTS } from '../part';

/**
 * A device of the mean network: what it does to the mean currents of its nodes at given mean volts.
 *
 * joins     nodes that it joins conductively, in groups; nothing flows between groups.
 * evaluate  writes amperes into the device at each node and their derivatives (row by row) for the volts x of its nodes.
 * limit     pulls x back towards `last`, the volts of the step before, where an exponential would run away; true if it did.
 */
export interface WorkDevice {
  readonly name: string;
  readonly nodes: readonly number[];
  readonly joins: readonly (readonly number[])[];
  /** Its currents follow its volts in straight lines, always the same ones. */
  readonly linear?: true;
  evaluate(x: Float64Array, flow: Float64Array, slope: Float64Array): void;
  limit?(x: Float64Array, last: Float64Array): boolean;
}

/** Amperes into a device at each of its nodes, at the mean volts of all nodes. */
export function flowsOf({ nodes, evaluate }: WorkDevice, volts: Float64Array): Float64Array {
  const n = nodes.length;
  const flow = new Float64Array(n);
  evaluate(
    Float64Array.from(nodes, (k) => volts[k]!),
    flow,
    new Float64Array(n * n),
  );
  return flow;
}

/** Watts that a device takes at mean volts. */
export const wattsInto = (device: WorkDevice, volts: Float64Array): number =>
  flowsOf(device, volts).reduce((sum, amps, i) => sum + amps * volts[device.nodes[i]!]!, 0);

/** What conducts of a device of the circuit in the mean: resistors, junctions, transistors, channels. */
export function meanDevice(device: Device, parameters: Float64Array): WorkDevice {
  const { model, at, nodes, name } = device;
  const room = roomFor(model);
  const n = model.terminals;
  const evaluate = (x: Float64Array, flow: Float64Array, slope: Float64Array): void => {
    model.evaluate(parameters, at, x, room);
    for (let i = 0; i < n; i++) flow[i] = room.flow[i]!;
    for (let i = 0; i < n * n; i++) slope[i] = room.slope[i]!;
  };
  const joins = model.kind === 'channel' ? [[nodes[0]!, nodes[2]!]] : [nodes];
  const base = { name, nodes, joins, evaluate };
  if (model.kind === 'junction') {
    const slope = parameters[at + SLOPE]!;
    const critical = criticalVolts(parameters[at + SATURATION]!, slope);
    return { ...base, limit: (x, last) => limitPair(x, last, 0, 1, slope, critical) };
  }
  if (model.kind === 'transistor') {
    const sign = parameters[at]!;
    const limits = [4, 5].map((k) => {
      const slope = parameters[at + k]!;
      return { slope, critical: criticalVolts(parameters[at + 1]!, slope) };
    });
    return {
      ...base,
      limit: (x, last) => {
        const emitter = limitEnd(x, last, 1, 2, sign, limits[0]!.slope, limits[0]!.critical);
        const collector = limitEnd(x, last, 1, 0, sign, limits[1]!.slope, limits[1]!.critical);
        return emitter || collector;
      },
    };
  }
  return base;
}

/** Limits the volts from terminal a to terminal k, moving a. */
function limitPair(
  x: Float64Array,
  last: Float64Array,
  a: number,
  k: number,
  slope: number,
  critical: number,
): boolean {
  const next = x[a]! - x[k]!;
  const limited = limitJunction(next, last[a]! - last[k]!, slope, critical);
  if (limited === next) return false;
  x[a] = x[k]! + limited;
  return true;
}

/** Limits a junction from a base to an end of a transistor, moving the end. */
function limitEnd(
  x: Float64Array,
  last: Float64Array,
  base: number,
  end: number,
  sign: number,
  slope: number,
  critical: number,
): boolean {
  const next = sign * (x[base]! - x[end]!);
  const limited = limitJunction(next, sign * (last[base]! - last[end]!), slope, critical);
  if (limited === next) return false;
  x[end] = x[base]! - sign * limited;
  return true;
}

/** Something between two nodes whose current depends on the volts across it: law gives amperes and siemens. */
export function twoPole(
  name: string,
  a: number,
  b: number,
  law: (volts: number) => readonly [number, number],
): WorkDevice {
  return {
    name,
    nodes: [a, b],
    joins: [[a, b]],
    evaluate(x, flow, slope) {
      const [amps, siemens] = law(x[0]! - x[1]!);
      flow[0] = amps;
      flow[1] = -amps;
      slope[0] = slope[3] = siemens;
      slope[1] = slope[2] = -siemens;
    },
  };
}

const straight = (device: WorkDevice): WorkDevice => ({ ...device, linear: true });

export const resistance = (name: string, a: number, b: number, ohms: number): WorkDevice =>
  straight(twoPole(name, a, b, (v) => [v / ohms, 1 / ohms]));

/** Held at some volts through a resistance. */
export const held = (name: string, a: number, b: number, volts: number, ohms: number): WorkDevice =>
  straight(twoPole(name, a, b, (v) => [(v - volts) / ohms, 1 / ohms]));

/** Held from below: gives current while the volts are less, takes none. */
export const heldUp = (name: string, a: number, b: number, volts: number, ohms: number): WorkDevice =>
  twoPole(name, a, b, (v) => (v < volts ? [(v - volts) / ohms, 1 / ohms] : [0, 1e-12]));

/** A steady current from a to b, whatever the volts. */
export const steady = (name: string, a: number, b: number, amps: number): WorkDevice => ({
  ...twoPole(name, a, b, () => [amps, 0]),
  linear: true,
  joins: [],
});

/** Volts across a sink below which it draws less. */
const KNEE = 0.4;

/** What an integrated circuit draws from its supply: steady above a knee, nothing at nothing. */
export const sink = (name: string, a: number, b: number, amps: number): WorkDevice =>
  twoPole(name, a, b, (v) => {
    if (v <= 0) return [(amps / KNEE) * v, amps / KNEE];
    const e = Math.exp(-v / KNEE);
    return [amps * (1 - e), (amps / KNEE) * e];
  });

const LED = Float64Array.from([1e-12, 2 * THERMAL_VOLTS, 0, Infinity, 1e-3, 0, 0, 0]);
const LED_CRITICAL = criticalVolts(LED[SATURATION]!, LED[SLOPE]!);

/**
 * The transistor of an opto: collector amperes = ctr x those of its LED, as long as its volts allow it.
 * nodes: a k c e of the LED as the contract has it (IS 1e-12, N 2).
 */
export function optoTransistor(name: string, nodes: readonly number[], ctr: number): WorkDevice {
  const at = new Float64Array(3);
  return {
    name,
    nodes,
    joins: [[nodes[2]!, nodes[3]!]],
    limit: (x, last) => {
      const led = limitPair(x, last, 0, 1, LED[SLOPE]!, LED_CRITICAL);
      return holdAbove(x, 2, 3) || led;
    },
    evaluate(x, flow, slope) {
      junctionAt(LED, 0, Math.min(x[0]! - x[1]!, 2), at);
      const amps = ctr * Math.max(at[0]!, 0);
      const vce = x[2]! - x[3]!;
      const e = Math.exp(-Math.max(vce, 0) / SATURATED);
      const share = vce > 0 ? 1 - e : vce / SATURATED;
      const gce = (amps * e) / SATURATED + JUNCTION_GMIN;
      const gled = ctr * at[1]! * share;
      flow.fill(0);
      slope.fill(0);
      flow[2] = amps * share;
      flow[3] = -flow[2];
      slope[8] = gled;
      slope[9] = -gled;
      slope[10] = gce;
      slope[11] = -gce;
      for (let j = 0; j < 4; j++) slope[12 + j] = -slope[8 + j]!;
    },
  };
}

/** Keeps the volts of a saturating output from running below nothing between two steps. */
function holdAbove(x: Float64Array, high: number, low: number): boolean {
  if (x[high]! - x[low]! >= -SATURATED) return false;
  x[high] = x[low]! - SATURATED;
  return true;
}

/** Volts over which a saturated transistor of an opto comes to its full current. */
const SATURATED = 0.08;

/** Siemens of a shunt reference above its threshold, and the volts over which it turns on. */
const REFERENCE_SIEMENS = 2;
const REFERENCE_EDGE = 0.4e-3;

/** A shunt reference: takes current from cathode to anode as soon as ref stands above its volts; nodes ref, anode, cathode. */
export function shuntReference(name: string, nodes: readonly number[], volts: number): WorkDevice {
  return {
    name,
    nodes,
    joins: [nodes],
    limit: (x) => holdAbove(x, 2, 1),
    evaluate(x, flow, slope) {
      const over = (x[0]! - x[1]! - volts) / REFERENCE_EDGE;
      const soft = over > 40 ? over : Math.log1p(Math.exp(over));
      const share = over > 40 ? 1 : 1 / (1 + Math.exp(-over));
      const vka = x[2]! - x[1]!;
      const e = Math.exp(-Math.max(vka, 0) / SATURATED);
      const on = vka > 0 ? 1 - e : vka / SATURATED;
      const amps = REFERENCE_SIEMENS * REFERENCE_EDGE * soft;
      const gm = REFERENCE_SIEMENS * share * on;
      const gka = (amps * e) / SATURATED + 1e-9;
      flow[0] = 0;
      flow[2] = amps * on;
      flow[1] = -flow[2];
      slope.fill(0);
      slope[6] = gm;
      slope[7] = -gm - gka;
      slope[8] = gka;
      for (let j = 0; j < 3; j++) slope[3 + j] = -slope[6 + j]!;
    },
  };
}

/**
 * A three-terminal regulator, nodes in, gnd, out: lets pass what holds its output at its volts, as far as its input reaches
 * over its own drop; draws `amps` for itself.
 */
export function passRegulator(
  name: string,
  nodes: readonly number[],
  volts: number,
  drop: number,
  amps: number,
): WorkDevice {
  const siemens = 20;
  return {
    name,
    nodes,
    joins: [nodes],
    evaluate(x, flow, slope) {
      const [vin, gnd, out] = [x[0]! - x[1]!, x[1]!, x[2]!];
      const reached = vin - drop;
      const limited = reached < volts;
      const over = Math.max(Math.min(volts, reached), 0) - (out - gnd);
      const gives = over > 0;
      const own = vin > 0 ? amps * (1 - Math.exp(-vin / KNEE)) : (amps / KNEE) * vin;
      const gOwn = vin > 0 ? (amps / KNEE) * Math.exp(-vin / KNEE) : amps / KNEE;
      const g = gives ? siemens : 1e-9;
      const byIn = gives && limited && reached > 0 ? siemens : 0;
      const passed = gives ? siemens * over : 1e-9 * over;
      flow[0] = passed + own;
      flow[2] = -passed;
      flow[1] = -own;
      slope.fill(0);
      // d passed / d(in, gnd, out).
      const d = [byIn, g - byIn, -g];
      for (let j = 0; j < 3; j++) {
        slope[j] = d[j]!;
        slope[6 + j] = -d[j]!;
      }
      slope[0] = slope[0]! + gOwn;
      slope[1] = slope[1]! - gOwn;
      slope[3] = -gOwn;
      slope[4] = gOwn;
    },
  };
}

/**
 * Holds its first node where the weighted sum of its nodes' volts, with `more` added, is nothing; what it takes there leaves
 * at the second node.
 */
export function linearHold(
  name: string,
  nodes: readonly [number, number, ...number[]],
  weights: readonly number[],
  more: number,
  siemens: number,
): WorkDevice {
  const n = nodes.length;
  return {
    name,
    nodes,
    joins: [[nodes[0], nodes[1]]],
    linear: true,
    evaluate(x, flow, slope) {
      flow.fill(0);
      slope.fill(0);
      flow[0] = siemens * weights.reduce((sum, w, i) => sum + w * x[i]!, more);
      flow[1] = -flow[0];
      weights.forEach((w, i) => {
        slope[i] = siemens * w;
        slope[n + i] = -siemens * w;
      });
    },
  };
}

/**
 * Takes a current between its first two nodes and gives one from its third to its fourth, both by the volts there: law gives
 * amperes taken and given for the volts of each side. Its slopes are differences.
 */
export function transfer(
  name: string,
  nodes: readonly [number, number, number, number],
  law: (volts: number, out: number) => readonly [number, number],
): WorkDevice {
  return {
    name,
    nodes,
    joins: [nodes.slice(0, 2), nodes.slice(2)],
    evaluate(x, flow, slope) {
      const [volts, out] = [x[0]! - x[1]!, x[3]! - x[2]!];
      const now = law(volts, out);
      const further = DIFFERENCE * (1 + Math.abs(out));
      const higher = law(volts, out + further);
      const fuller = law(volts + DIFFERENCE, out);
      for (const [row, sign, k] of [
        [0, 1, 0],
        [1, -1, 0],
        [2, 1, 1],
        [3, -1, 1],
      ] as const) {
        flow[row] = sign * now[k];
        const byVolts = (sign * (fuller[k] - now[k])) / DIFFERENCE;
        const byOut = (sign * (higher[k] - now[k])) / further;
        slope.set([byVolts, -byVolts, -byOut, byOut], 4 * row);
      }
    },
  };
}

/** Step of a difference that stands for a slope, volts (or a share of one volt more than there are). */
const DIFFERENCE = 1e-4;
