import { DisjointSets } from '../graph';
import { factorDense, solveDense } from '../linear';
import { flowsOf } from './workDevice';
import type { WorkDevice } from './workDevice';

/**
 * The means of all volts of a unit at work: Kirchhoff's current law for the mean currents, with what switches as devices
 * that depend on the mean volts around them. One node of each conductive piece is its reference.
 */
export class MeanNetwork {
  private readonly numbers: Int32Array;
  private readonly size: number;
  /** Unknowns before this one are touched by linear devices alone. */
  private readonly plain: number;
  private readonly pieces: DisjointSets;
  private readonly known: ReadonlyMap<number, number>;
  private readonly curved: readonly Curved[];
  private base: System | null = null;
  private reduced: Reduced | null | undefined = undefined;

  /** fixed: nodes that stand at given volts (grounds of sources among them); prefer: nodes that serve as references first. */
  constructor(
    readonly nodeCount: number,
    readonly devices: readonly WorkDevice[],
    readonly fixed: ReadonlyMap<number, number>,
    prefer: readonly number[],
  ) {
    this.pieces = new DisjointSets(nodeCount);
    for (const { joins } of devices)
      for (const group of joins) for (const node of group) this.pieces.union(group[0]!, node);
    const known = new Map(fixed);
    const grounded = new Set([...fixed.keys()].map((n) => this.pieces.find(n)));
    for (const node of [...prefer, ...Array.from({ length: nodeCount }, (_, i) => i)]) {
      const piece = this.pieces.find(node);
      if (grounded.has(piece)) continue;
      grounded.add(piece);
      known.set(node, 0);
    }
    this.known = known;
    const bent = new Set(devices.flatMap((d) => (d.linear ? [] : [...d.nodes])));
    this.numbers = new Int32Array(nodeCount).fill(-1);
    let n = 0;
    for (let i = 0; i < nodeCount; i++) if (!known.has(i) && !bent.has(i)) this.numbers[i] = n++;
    this.plain = n;
    for (let i = 0; i < nodeCount; i++) if (!known.has(i) && bent.has(i)) this.numbers[i] = n++;
    this.size = n;
    this.curved = devices.flatMap((device) => (device.linear ? [] : [this.curvedOf(device)]));
  }

  private curvedOf(device: WorkDevice): Curved {
    const n = device.nodes.length;
    return {
      device,
      rows: Int32Array.from(device.nodes, (node) => this.numbers[node]!),
      local: new Float64Array(n),
      last: new Float64Array(n),
      flow: new Float64Array(n),
      slope: new Float64Array(n * n),
    };
  }

  /** Whether two nodes are joined by anything that conducts. */
  joined(a: number, b: number): boolean {
    return this.pieces.find(a) === this.pieces.find(b);
  }

  /** Volts of every node; null where no solution was found. start: volts to start from. */
  solve(start?: Float64Array): Float64Array | null {
    const rest = this.rest();
    const tried = this.newton(start ?? rest, 0, rest);
    if (tried) return tried;
    // From rest in steps of time: every node is held back by less and less.
    let from = rest;
    let hold = 1;
    for (let step = 0; step < STEPS; step++) {
      const next = this.newton(from, hold, from);
      if (!next) {
        hold *= 20;
        if (hold > 1e6) return null;
        continue;
      }
      let moved = 0;
      for (let i = 0; i < next.length; i++)
        moved = Math.max(moved, Math.abs(next[i]! - from[i]!) / (1 + Math.abs(next[i]!)));
      from = next;
      if (hold < 1e-7 || moved < 1e-6) {
        const last = this.newton(from, 0, from);
        if (last) return last;
        if (hold < 1e-9) return null;
      }
      hold /= moved < 0.1 ? 30 : moved < 1 ? 6 : 2;
    }
    return null;
  }

  private rest(): Float64Array {
    const x = new Float64Array(this.nodeCount);
    for (const [node, volts] of this.known) x[node] = volts;
    return x;
  }

  /** hold: siemens that pull every node towards `anchor`; without it what is linear is solved once and for all. */
  private newton(start: Float64Array, hold: number, anchor: Float64Array): Float64Array | null {
    const base = (this.base ??= this.linearPart());
    const reduced = hold > 0 ? null : (this.reduced ??= reduce(base, this.plain));
    const { numbers } = this;
    const x = Float64Array.from(start);
    for (const [node, volts] of this.known) x[node] = volts;
    for (const c of this.curved) c.device.nodes.forEach((n, i) => (c.last[i] = x[n]!));
    const first = reduced ? this.plain : 0;
    const size = this.size - first;
    const steady = reduced ? reduced.system : held(base, hold, anchor, numbers);
    const matrix = new Float64Array(size * size);
    const rhs = new Float64Array(size);
    const pivots = new Int32Array(size);
    for (let round = 0; round < ROUNDS; round++) {
      matrix.set(steady.matrix);
      rhs.set(steady.rhs);
      let limited = false;
      for (const c of this.curved) if (this.stamp(c, x, first, size, matrix, rhs)) limited = true;
      if (!factorDense(matrix, pivots, size).ok) return null;
      solveDense(matrix, pivots, size, rhs);
      let moved = 0;
      for (let i = 0; i < this.nodeCount; i++) {
        const number = numbers[i]! - first;
        if (number < 0) continue;
        const next = round < DAMPED ? rhs[number]! : x[i]! + 0.4 * (rhs[number]! - x[i]!);
        if (!Number.isFinite(next)) return null;
        // However many volts stand there: what flows hangs on those across a part.
        moved = Math.max(moved, Math.abs(next - x[i]!) / (1 + Math.min(Math.abs(next), MOST_VOLTS)));
        x[i] = next;
      }
      // Nodes that float between blocking junctions keep a little noise.
      const near = round < 10 ? NEAR : round < 25 ? 2e-5 : 1e-3;
      if (moved >= near || round === 0 || (limited && round < PULLED)) continue;
      const found = reduced ? this.filled(x, reduced) : x;
      // What has hardly moved need not be in balance: across a junction millivolts are many amperes. Nor is what a limit
      // pulls back each time out of it.
      if ((near === NEAR && !limited) || (hold > 0 && !limited) || (found && this.inBalance(found))) return found;
    }
    return null;
  }

  /** Whether Kirchhoff's law for currents holds at every unknown node, to a share of what flows there. */
  private inBalance(x: Float64Array): boolean {
    const [sum, most] = [new Float64Array(x.length), new Float64Array(x.length)];
    for (const device of this.devices) {
      const flow = flowsOf(device, x);
      device.nodes.forEach((n, i) => {
        sum[n] = sum[n]! + flow[i]!;
        most[n] = Math.max(most[n]!, Math.abs(flow[i]!));
      });
    }
    return sum.every((amps, n) => this.numbers[n]! < 0 || Math.abs(amps) < BALANCED * most[n]! + LEAST_AMPS);
  }

  /** The volts of the nodes that only linear devices touch, from those of the others. */
  private filled(x: Float64Array, { inner, outer }: Reduced): Float64Array | null {
    const { numbers, plain, size } = this;
    const rest = size - plain;
    const hard = new Float64Array(rest);
    for (let i = 0; i < this.nodeCount; i++) if (numbers[i]! >= plain) hard[numbers[i]! - plain] = x[i]!;
    for (let i = 0; i < this.nodeCount; i++) {
      const row = numbers[i]!;
      if (row < 0 || row >= plain) continue;
      let sum = inner[row]!;
      for (let j = 0; j < rest; j++) sum -= outer[row * rest + j]! * hard[j]!;
      if (!Number.isFinite(sum)) return null;
      x[i] = sum;
    }
    return x;
  }

  /** What is linear: matrix and right side, GMIN on every node. */
  private linearPart(): System {
    const { size } = this;
    const [matrix, rhs] = [new Float64Array(size * size), new Float64Array(size)];
    for (let i = 0; i < size; i++) matrix[i * size + i] = GMIN;
    const nothing = this.rest();
    for (const device of this.devices)
      if (device.linear) this.stamp(this.curvedOf(device), nothing, 0, size, matrix, rhs);
    return { matrix, rhs };
  }

  /** Adds a device as its tangent at the volts of the step before; true where these were limited. */
  private stamp(
    { device, rows, local, last, flow, slope }: Curved,
    x: Float64Array,
    first: number,
    size: number,
    matrix: Float64Array,
    rhs: Float64Array,
  ): boolean {
    const { nodes } = device;
    const n = nodes.length;
    for (let i = 0; i < n; i++) local[i] = x[nodes[i]!]!;
    const limited = device.limit?.(local, last) ?? false;
    last.set(local);
    device.evaluate(local, flow, slope);
    for (let i = 0; i < n; i++) {
      const row = rows[i]! - first;
      if (row < 0) continue;
      let constant = -flow[i]!;
      for (let j = 0; j < n; j++) {
        const s = slope[i * n + j]!;
        if (s === 0) continue;
        constant += s * local[j]!;
        const column = rows[j]! - first;
        if (column >= 0) matrix[row * size + column] = matrix[row * size + column]! + s;
        else constant -= s * this.known.get(nodes[j]!)!;
      }
      rhs[row] = rhs[row]! + constant;
    }
    return limited;
  }
}

/** A device that is not linear, with room for its tangent; rows: the unknowns of its nodes. */
interface Curved {
  readonly device: WorkDevice;
  readonly rows: Int32Array;
  readonly local: Float64Array;
  readonly last: Float64Array;
  readonly flow: Float64Array;
  readonly slope: Float64Array;
}

interface System {
  readonly matrix: Float64Array;
  readonly rhs: Float64Array;
}

/**
 * The linear part with its plain unknowns eliminated (Schur complement): their volts are `inner` less `outer` times those of
 * the others.
 */
interface Reduced {
  readonly system: System;
  readonly inner: Float64Array;
  readonly outer: Float64Array;
}

/** Eliminates the first `plain` unknowns; null where they have no solution of their own. */
function reduce({ matrix, rhs }: System, plain: number): Reduced | null {
  const n = rhs.length;
  const rest = n - plain;
  const own = new Float64Array(plain * plain);
  for (let i = 0; i < plain; i++) own.set(matrix.subarray(i * n, i * n + plain), i * plain);
  const pivots = new Int32Array(plain);
  if (!factorDense(own, pivots, plain).ok) return null;
  const inner = rhs.slice(0, plain);
  solveDense(own, pivots, plain, inner);
  const outer = new Float64Array(plain * rest);
  const column = new Float64Array(plain);
  for (let j = 0; j < rest; j++) {
    let any = false;
    for (let i = 0; i < plain; i++) {
      column[i] = matrix[i * n + plain + j]!;
      if (column[i] !== 0) any = true;
    }
    if (!any) continue;
    solveDense(own, pivots, plain, column);
    for (let i = 0; i < plain; i++) outer[i * rest + j] = column[i]!;
  }
  const system = { matrix: new Float64Array(rest * rest), rhs: rhs.slice(plain) };
  for (let i = 0; i < rest; i++) {
    const from = (plain + i) * n;
    system.matrix.set(matrix.subarray(from + plain, from + n), i * rest);
    for (let k = 0; k < plain; k++) {
      const share = matrix[from + k]!;
      if (share === 0) continue;
      system.rhs[i] = system.rhs[i]! - share * inner[k]!;
      for (let j = 0; j < rest; j++)
        system.matrix[i * rest + j] = system.matrix[i * rest + j]! - share * outer[k * rest + j]!;
    }
  }
  return { system, inner, outer };
}

/** The linear part with every node pulled towards an anchor. */
function held({ matrix, rhs }: System, hold: number, anchor: Float64Array, numbers: Int32Array): System {
  if (hold === 0) return { matrix, rhs };
  const n = rhs.length;
  const made = { matrix: Float64Array.from(matrix), rhs: Float64Array.from(rhs) };
  for (let i = 0; i < n; i++) made.matrix[i * n + i] = made.matrix[i * n + i]! + hold;
  for (let i = 0; i < anchor.length; i++)
    if (numbers[i]! >= 0) made.rhs[numbers[i]!] = made.rhs[numbers[i]!]! + hold * anchor[i]!;
  return made;
}

const STEPS = 120;
const ROUNDS = 80;
/** From here on only part of each step is taken. */
const DAMPED = 40;
const GMIN = 1e-11;
/** Until here what was limited is not looked at. */
const PULLED = 10;
const NEAR = 1e-7;
const MOST_VOLTS = 400;
/** A node is in balance to this share of its greatest current, and where less than so many amperes are over. */
const BALANCED = 1e-3;
const LEAST_AMPS = 1e-7;
