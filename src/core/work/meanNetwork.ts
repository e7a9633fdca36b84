import { DisjointSets } from '../graph';
import { factorDense, solveDense } from '../linear';
import type { WorkDevice } from './workDevice';

/**
 * The means of all volts of a unit at work: Kirchhoff's current law for the mean currents, with what switches as devices
 * that depend on the mean volts around them. One node of each conductive piece is its reference.
 */
export class MeanNetwork {
  private readonly numbers: Int32Array;
  private readonly size: number;
  private readonly pieces: DisjointSets;

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
    this.numbers = new Int32Array(nodeCount).fill(-1);
    let n = 0;
    for (let i = 0; i < nodeCount; i++) if (!known.has(i)) this.numbers[i] = n++;
    this.size = n;
  }

  private readonly known: ReadonlyMap<number, number>;

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

  /** hold: siemens that pull every node towards `anchor`. */
  private newton(start: Float64Array, hold: number, anchor: Float64Array): Float64Array | null {
    const { size, numbers } = this;
    const x = Float64Array.from(start);
    for (const [node, volts] of this.known) x[node] = volts;
    const lasts = this.devices.map((d) => Float64Array.from(d.nodes, (n) => x[n]!));
    const matrix = new Float64Array(size * size);
    const rhs = new Float64Array(size);
    const pivots = new Int32Array(size);
    for (let round = 0; round < ROUNDS; round++) {
      matrix.fill(0);
      rhs.fill(0);
      for (let i = 0; i < size; i++) matrix[i * size + i] = GMIN + hold;
      if (hold > 0) for (let i = 0; i < this.nodeCount; i++) if (numbers[i]! >= 0) rhs[numbers[i]!] = hold * anchor[i]!;
      let limited = false;
      this.devices.forEach((device, k) => {
        if (this.stamp(device, x, lasts[k]!, matrix, rhs)) limited = true;
      });
      if (!factorDense(matrix, pivots, size).ok) return null;
      solveDense(matrix, pivots, size, rhs);
      let moved = 0;
      for (let i = 0; i < this.nodeCount; i++) {
        const number = numbers[i]!;
        if (number < 0) continue;
        const next = round < DAMPED ? rhs[number]! : x[i]! + 0.4 * (rhs[number]! - x[i]!);
        if (!Number.isFinite(next)) return null;
        moved = Math.max(moved, Math.abs(next - x[i]!) / (1 + Math.abs(next)));
        x[i] = next;
      }
      // Nodes that float between blocking junctions keep a little noise.
      const near = round < 10 ? NEAR : round < 25 ? 2e-5 : 1e-3;
      if (moved < near && !limited && round > 0) return x;
    }
    return null;
  }

  /** Adds a device as its tangent at the volts of the step before; true where these were limited. */
  private stamp(
    device: WorkDevice,
    x: Float64Array,
    last: Float64Array,
    matrix: Float64Array,
    rhs: Float64Array,
  ): boolean {
    const { nodes } = device;
    const n = nodes.length;
    const { size, numbers } = this;
    const local = Float64Array.from(nodes, (node) => x[node]!);
    const limited = device.limit?.(local, last) ?? false;
    last.set(local);
    const flow = new Float64Array(n);
    const slope = new Float64Array(n * n);
    device.evaluate(local, flow, slope);
    for (let i = 0; i < n; i++) {
      const row = numbers[nodes[i]!]!;
      if (row < 0) continue;
      let constant = -flow[i]!;
      for (let j = 0; j < n; j++) {
        const s = slope[i * n + j]!;
        if (s === 0) continue;
        constant += s * local[j]!;
        const column = numbers[nodes[j]!]!;
        if (column >= 0) matrix[row * size + column] = matrix[row * size + column]! + s;
        else constant -= s * this.known.get(nodes[j]!)!;
      }
      rhs[row] = rhs[row]! + constant;
    }
    return limited;
  }
}

const STEPS = 120;
const ROUNDS = 80;
/** From here on only part of each step is taken. */
const DAMPED = 40;
const GMIN = 1e-11;
const NEAR = 1e-7;
