import { minimumDegreeOrder } from '../graph';
import { analysePattern, floats, floatsOf, intsOf } from '../linear';
import type { SparsePattern } from '../linear';
import { JUNCTION_GMIN, SATURATION, SLOPE, criticalVolts, roomFor } from '../device';
import type { DeviceKind, Evaluation } from '../device';
import { nearbyRoom } from './nearbyRoom';
import type { NearbyRoom } from './nearbyRoom';
import type { Network, NetworkDevice } from './network';
import type { Stimulus } from './stimulus';

/** Flat junction table: terminals (local nodes), matrix slots, parameters. */
export interface JunctionTable {
  readonly count: number;
  readonly a: Int32Array;
  readonly k: Int32Array;
  readonly slotAK: Int32Array;
  readonly slotKA: Int32Array;
  /** Where each's parameters begin. */
  readonly offset: Int32Array;
  /** Number of each among the network's junctions. */
  readonly index: Int32Array;
  /** Voltage at which each curve bends the most. */
  readonly critical: Float64Array;
  /** Voltage above which a step is limited, for the stimulus with these two bounds; what was worked out by bound. */
  limit: Float64Array;
  readonly limits: Map<number, Float64Array>;
  limitAmps: number;
  limitVolts: number;
  /** Voltage at which each junction is linearised. */
  readonly at: Float64Array;
  /** The last evaluation of each: volts (NaN for none), amperes, siemens. */
  readonly done: JunctionStates;
}

/** Evaluated junctions: a voltage of each, and the current and conductance there. */
export interface JunctionStates {
  readonly volts: Float64Array;
  readonly amps: Float64Array;
  readonly siemens: Float64Array;
}

/** States of n junctions, none of them evaluated. */
export function noStates(n: number): JunctionStates {
  return { volts: floats(n).fill(NaN), amps: floats(n), siemens: floats(n) };
}

/** Flat tables of three-pin devices. Slots are 3x3, rows and columns in the order of the pins; -1 where a terminal is outside. */
export interface ThreePinTable {
  readonly count: number;
  readonly pins: Int32Array;
  readonly slots: Int32Array;
  /** Where each's parameters begin. */
  readonly offset: Int32Array;
  /** two linearisation voltages per device */
  readonly at: Float64Array;
  /** The last evaluation of each transistor: both junctions' volts (NaN for none), then amperes and siemens of either. */
  readonly done: Float64Array;
  /** Voltages above which a step of either junction is limited, for the stimulus with these two bounds. */
  readonly limit: Float64Array;
  limitAmps: number;
  limitVolts: number;
}

/**
 * One conductive component of a network, ready for Newton steps: local node numbers, the matrix pattern,
 * device tables with their slots, and every workspace. Made once, used for every probe pair on it.
 */
export interface ComponentSystem {
  readonly size: number;
  /** Network node of each local node. */
  readonly nodes: Int32Array;
  readonly pattern: SparsePattern;
  /** Off-diagonal entries of the linear part, at `pattern` slots. */
  readonly linear: Float64Array;
  readonly resistorA: Int32Array;
  readonly resistorB: Int32Array;
  readonly siemens: Float64Array;
  /** The network's. */
  readonly parameters: Float64Array;
  /** Every device of the component, with the local node of each terminal (-1 outside). */
  readonly devices: readonly NetworkDevice[];
  readonly terminals: readonly (readonly number[])[];
  /** Where each is evaluated; devices of one kind share theirs. */
  readonly rooms: readonly Evaluation[];
  readonly junctions: JunctionTable;
  readonly bjts: ThreePinTable;
  readonly mosfets: ThreePinTable;
  readonly work: Workspace;
  readonly nearby: NearbyRoom;
  /** How the leads were driven in the last solve. */
  driven: Stimulus | null;
  /** Whether `work.values` holds the factors of the last assembled matrix, or still the matrix. */
  factored: boolean;
}

/** Buffers of one component; contents have no meaning between calls except `volts`. */
export interface Workspace {
  readonly volts: Float64Array;
  readonly values: Float64Array;
  readonly residual: Float64Array;
  readonly largest: Float64Array;
  readonly noise: Float64Array;
  readonly step: Float64Array;
  readonly excess: Float64Array;
  /** Per draw of the parts what it does to a reading. */
  readonly effects: Float64Array;
  /** One sigma of the log of each. */
  readonly drawSigmas: Float64Array;
  /** Volts at the terminals of one device. */
  readonly ends: Float64Array;
}

const ROOMS = new Map<DeviceKind, Evaluation>();

function roomOf({ model }: NetworkDevice): Evaluation {
  const known = ROOMS.get(model.kind);
  if (known) return known;
  const made = roomFor(model);
  ROOMS.set(model.kind, made);
  return made;
}

/** Gathers the component that holds `member`; `local` maps network nodes to local ones and is filled for it. */
export function buildComponentSystem(network: Network, member: number, local: Int32Array): ComponentSystem {
  const { parameters } = network;
  const group = network.component[member]!;
  const nodes = Array.from({ length: network.nodeCount }, (_, i) => i).filter((i) => network.component[i] === group);
  nodes.forEach((node, i) => (local[node] = i));
  const inside = (node: number): boolean => network.component[node] === group;
  // A device belongs where its first terminal is: only a gate may lie elsewhere.
  const devices = network.devices.filter((d) => inside(d.nodes[0]!));
  const of = (kind: DeviceKind): readonly NetworkDevice[] => devices.filter((d) => d.model.kind === kind);
  const resistors = of('resistor');
  const junctionIndex = network.junctions.flatMap((d, i) => (inside(d.nodes[0]!) ? [i] : []));
  const junctions = of('junction');
  const edges: number[] = [];
  const link = (a: number, b: number): void => void (a >= 0 && b >= 0 && a !== b && edges.push(a, b));
  const at = (node: number): number => (inside(node) ? local[node]! : -1);
  const terminalsOf = (d: NetworkDevice): readonly number[] => d.nodes.map(at);
  const terminals = devices.map(terminalsOf);
  for (const [x = -1, y = -1, z = -1] of terminals) {
    link(x, y);
    link(y, z);
    link(x, z);
  }
  const n = nodes.length;
  const edgeList = intsOf(edges);
  const pattern = analysePattern(n, edgeList, minimumDegreeOrder(n, edgeList));
  const linear = floats(pattern.slots);
  const addLinear = (a: number, b: number, g: number): void => {
    linear[pattern.slotOf(a, b)]! -= g;
    linear[pattern.slotOf(b, a)]! -= g;
  };
  const first = (list: readonly NetworkDevice[]): Int32Array => intsOf(list.map((d) => at(d.nodes[0]!)));
  const second = (list: readonly NetworkDevice[]): Int32Array => intsOf(list.map((d) => at(d.nodes[1]!)));
  for (const r of resistors) addLinear(at(r.nodes[0]!), at(r.nodes[1]!), 1 / parameters[r.at]!);
  // Where a channel is all that joins two nodes, a tiny conductance keeps the matrix sound while it is off.
  for (const m of of('channel'))
    if (m.nodes[0] !== m.nodes[2]) addLinear(at(m.nodes[0]!), at(m.nodes[2]!), JUNCTION_GMIN);
  const draws = 1 + devices.reduce((most, d) => Math.max(most, ...d.draws), 0);
  const drawSigmas = floats(draws);
  for (const d of devices) d.draws.forEach((draw, m) => (drawSigmas[draw] = d.sigmas[m]!));
  return {
    size: n,
    nodes: intsOf(nodes),
    pattern,
    linear,
    resistorA: first(resistors),
    resistorB: second(resistors),
    siemens: floatsOf(resistors.map((r) => 1 / parameters[r.at]!)),
    parameters,
    devices,
    terminals,
    rooms: devices.map((d) => roomOf(d)),
    junctions: {
      count: junctions.length,
      a: first(junctions),
      k: second(junctions),
      slotAK: intsOf(junctions.map((d) => pattern.slotOf(at(d.nodes[0]!), at(d.nodes[1]!)))),
      slotKA: intsOf(junctions.map((d) => pattern.slotOf(at(d.nodes[1]!), at(d.nodes[0]!)))),
      offset: intsOf(junctions.map((d) => d.at)),
      index: intsOf(junctionIndex),
      critical: floatsOf(
        junctions.map(({ at }) => criticalVolts(parameters[at + SATURATION]!, parameters[at + SLOPE]!)),
      ),
      limit: floats(junctions.length),
      limits: new Map(),
      limitAmps: NaN,
      limitVolts: NaN,
      at: floats(junctions.length),
      done: noStates(junctions.length),
    },
    bjts: threePins(pattern, of('transistor'), terminalsOf),
    mosfets: threePins(pattern, of('channel'), terminalsOf),
    driven: null,
    factored: false,
    nearby: nearbyRoom(n),
    work: {
      volts: floats(n),
      values: floats(pattern.slots),
      residual: floats(n),
      largest: floats(n),
      noise: floats(n),
      step: floats(n),
      excess: floats(n),
      effects: floats(draws),
      drawSigmas,
      ends: floats(3),
    },
  };
}

function threePins(
  pattern: SparsePattern,
  devices: readonly NetworkDevice[],
  terminalsOf: (device: NetworkDevice) => readonly number[],
): ThreePinTable {
  const slot = (row: number, column: number): number => (row < 0 || column < 0 ? -1 : pattern.slotOf(row, column));
  const pins = devices.map(terminalsOf);
  return {
    count: devices.length,
    pins: intsOf(pins.flat()),
    slots: intsOf(pins.flatMap((p) => p.flatMap((row) => p.map((column) => slot(row, column))))),
    offset: intsOf(devices.map((d) => d.at)),
    at: floats(2 * devices.length),
    done: floats(6 * devices.length).fill(NaN),
    limit: floats(2 * devices.length),
    limitAmps: NaN,
    limitVolts: NaN,
  };
}
