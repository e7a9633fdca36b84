import { minimumDegreeOrder } from '../graph';
import { analysePattern } from '../linear';
import type { SparsePattern } from '../linear';
import { logSeriesDrive } from './junction';
import { JUNCTION_GMIN } from './network';
import type { Network } from './network';

/** Flat junction table: terminals (local nodes), parameters, matrix slots. */
export interface JunctionTable {
  readonly count: number;
  readonly a: Int32Array;
  readonly k: Int32Array;
  readonly saturation: Float64Array;
  readonly slope: Float64Array;
  readonly series: Float64Array;
  readonly breakdown: Float64Array;
  readonly breakdownAmps: Float64Array;
  readonly spread: Float64Array;
  readonly slotAK: Int32Array;
  readonly slotKA: Int32Array;
  /** `logSeriesDrive` of each. */
  readonly logDrive: Float64Array;
  /** Number of each in the network. */
  readonly index: Int32Array;
  /** Voltage above which a step is limited, for the drive with these two bounds. */
  readonly limit: Float64Array;
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
  return { volts: new Float64Array(n).fill(NaN), amps: new Float64Array(n), siemens: new Float64Array(n) };
}

/** Flat transistor tables. Slots are 3x3, rows and columns in the order c b e (or d g s); -1 where a terminal is outside. */
export interface ThreePinTable {
  readonly count: number;
  readonly pins: Int32Array;
  readonly slots: Int32Array;
  /** parameters, eight per device */
  readonly parameters: Float64Array;
  /** two linearisation voltages per device */
  readonly at: Float64Array;
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
  readonly resistorSpread: Float64Array;
  readonly junctions: JunctionTable;
  readonly bjts: ThreePinTable;
  readonly mosfets: ThreePinTable;
  readonly work: Workspace;
  /** Whether `work.values` holds the factors of the last assembled matrix, or still the matrix. */
  factored: boolean;
}

/** Buffers of one component; contents have no meaning between calls except `volts`. */
export interface Workspace {
  readonly volts: Float64Array;
  readonly values: Float64Array;
  readonly assembled: Float64Array;
  readonly residual: Float64Array;
  readonly largest: Float64Array;
  readonly noise: Float64Array;
  readonly step: Float64Array;
  readonly excess: Float64Array;
  readonly excessKept: Float64Array;
}

/** Gathers the component that holds `member`; `local` maps network nodes to local ones and is filled for it. */
export function buildComponentSystem(network: Network, member: number, local: Int32Array): ComponentSystem {
  const group = network.component[member]!;
  const nodes = Array.from({ length: network.nodeCount }, (_, i) => i).filter((i) => network.component[i] === group);
  nodes.forEach((node, i) => (local[node] = i));
  const inside = (node: number): boolean => network.component[node] === group;
  const resistors = network.resistors.filter((r) => inside(r.a));
  const diodeIndex = network.diodes.flatMap((d, i) => (inside(d.a) ? [i] : []));
  const diodes = diodeIndex.map((i) => network.diodes[i]!);
  const bjts = network.bjts.filter((q) => inside(q.c));
  const mosfets = network.mosfets.filter((m) => inside(m.d));
  const edges: number[] = [];
  const link = (a: number, b: number): void => void (a >= 0 && b >= 0 && a !== b && edges.push(a, b));
  const at = (node: number): number => (inside(node) ? local[node]! : -1);
  const triples = [...bjts.map((q) => [at(q.c), at(q.b), at(q.e)]), ...mosfets.map((m) => [at(m.d), at(m.g), at(m.s)])];
  for (const r of resistors) link(at(r.a), at(r.b));
  for (const d of diodes) link(at(d.a), at(d.k));
  for (const [x = -1, y = -1, z = -1] of triples) {
    link(x, y);
    link(y, z);
    link(x, z);
  }
  const n = nodes.length;
  const edgeList = Int32Array.from(edges);
  const pattern = analysePattern(n, edgeList, minimumDegreeOrder(n, edgeList));
  const linear = new Float64Array(pattern.slots);
  const addLinear = (a: number, b: number, g: number): void => {
    linear[pattern.slotOf(a, b)]! -= g;
    linear[pattern.slotOf(b, a)]! -= g;
  };
  for (const r of resistors) addLinear(at(r.a), at(r.b), 1 / r.ohms);
  // Where a channel is all that joins two nodes, a tiny conductance keeps the matrix sound while it is off.
  for (const m of mosfets) if (m.d !== m.s) addLinear(at(m.d), at(m.s), JUNCTION_GMIN);
  return {
    size: n,
    nodes: Int32Array.from(nodes),
    pattern,
    linear,
    resistorA: Int32Array.from(resistors, (r) => at(r.a)),
    resistorB: Int32Array.from(resistors, (r) => at(r.b)),
    siemens: Float64Array.from(resistors, (r) => 1 / r.ohms),
    resistorSpread: Float64Array.from(resistors, (r) => r.spread),
    junctions: {
      count: diodes.length,
      a: Int32Array.from(diodes, (d) => at(d.a)),
      k: Int32Array.from(diodes, (d) => at(d.k)),
      saturation: Float64Array.from(diodes, (d) => d.saturationAmps),
      slope: Float64Array.from(diodes, (d) => d.slopeVolts),
      series: Float64Array.from(diodes, (d) => d.seriesOhms),
      breakdown: Float64Array.from(diodes, (d) => d.breakdownVolts),
      breakdownAmps: Float64Array.from(diodes, (d) => d.breakdownAmps),
      spread: Float64Array.from(diodes, (d) => d.spread),
      slotAK: Int32Array.from(diodes, (d) => pattern.slotOf(at(d.a), at(d.k))),
      slotKA: Int32Array.from(diodes, (d) => pattern.slotOf(at(d.k), at(d.a))),
      logDrive: Float64Array.from(diodes, (d) => logSeriesDrive(d.saturationAmps, d.slopeVolts, d.seriesOhms)),
      index: Int32Array.from(diodeIndex),
      limit: new Float64Array(diodes.length),
      limitAmps: NaN,
      limitVolts: NaN,
      at: new Float64Array(diodes.length),
      done: noStates(diodes.length),
    },
    bjts: threePins(
      pattern,
      bjts.map((q) => [at(q.c), at(q.b), at(q.e)]),
      bjts.map((q) => [
        q.polarity,
        q.saturationAmps,
        q.forwardGain,
        q.reverseGain,
        q.forwardSlope,
        q.reverseSlope,
        q.spread,
        q.gainSpread,
      ]),
    ),
    mosfets: threePins(
      pattern,
      mosfets.map((m) => [at(m.d), at(m.g), at(m.s)]),
      mosfets.map((m) => [m.polarity, m.thresholdVolts, m.transconductance, m.onOhms, m.spread, 0, 0, 0]),
    ),
    factored: false,
    work: {
      volts: new Float64Array(n),
      values: new Float64Array(pattern.slots),
      assembled: new Float64Array(pattern.slots),
      residual: new Float64Array(n),
      largest: new Float64Array(n),
      noise: new Float64Array(n),
      step: new Float64Array(n),
      excess: new Float64Array(n),
      excessKept: new Float64Array(n),
    },
  };
}

function threePins(
  pattern: SparsePattern,
  pins: readonly (readonly number[])[],
  parameters: readonly (readonly number[])[],
): ThreePinTable {
  const slot = (row: number, column: number): number => (row < 0 || column < 0 ? -1 : pattern.slotOf(row, column));
  return {
    count: pins.length,
    pins: Int32Array.from(pins.flat()),
    slots: Int32Array.from(pins.flatMap((p) => p.flatMap((row) => p.map((column) => slot(row, column))))),
    parameters: Float64Array.from(parameters.flat()),
    at: new Float64Array(2 * pins.length),
  };
}
