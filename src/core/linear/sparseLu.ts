import { invariant } from '../problem';
import { ints, intsOf } from './pieces';

/**
 * The pattern of a sparse LU factorisation: analysed once per circuit, factored at every Newton step.
 *
 * size      n unknowns
 * slots     length of the values array (matrix entries and fill)
 * slotOf    position of entry (row, column) in the values array; -1 where the pattern has none
 * diagonal  n slots of the diagonal; once factored they hold the inverse of U's
 */
export interface SparsePattern {
  readonly size: number;
  readonly slots: number;
  readonly diagonal: Int32Array;
  slotOf(row: number, column: number): number;
  /** Elimination programme, private to this file. */
  readonly programme: Programme;
}

interface Programme {
  readonly order: Int32Array;
  /** n+1 offsets into the neighbour lists. */
  readonly start: Int32Array;
  /** Remaining neighbours of each eliminated node, with the slots of L(i,k) and U(k,i). */
  readonly neighbour: Int32Array;
  readonly lower: Int32Array;
  readonly upper: Int32Array;
  /** n+1 offsets into `target`; m*m slots for a node with m remaining neighbours, row by row. */
  readonly targetStart: Int32Array;
  readonly target: Int32Array;
}

/**
 * Analyses a structurally symmetric pattern for elimination in the given order, without pivoting.
 *
 * n      unknowns
 * edges  off-diagonal entries as pairs a, b flattened; (a,b) and (b,a) both get a slot
 * order  n node numbers, first eliminated first
 * Source: T. A. Davis, Direct Methods for Sparse Linear Systems (SIAM 2006), chapter 6, static pattern.
 */
export function analysePattern(n: number, edges: Int32Array, order: Int32Array): SparsePattern {
  invariant(order.length === n, 'analysePattern: order and n differ');
  const table = new Int32Array(n * n).fill(-1);
  let slots = 0;
  const claim = (row: number, column: number): void => {
    if (table[row * n + column] === -1) table[row * n + column] = slots++;
  };
  for (let i = 0; i < n; i++) claim(i, i);
  for (let e = 0; e + 1 < edges.length; e += 2) {
    claim(edges[e]!, edges[e + 1]!);
    claim(edges[e + 1]!, edges[e]!);
  }
  const place = new Int32Array(n);
  order.forEach((node, k) => (place[node] = k));
  const start = ints(n + 1);
  const targetStart = ints(n + 1);
  const neighbour: number[] = [];
  const lower: number[] = [];
  const upper: number[] = [];
  const target: number[] = [];
  for (let k = 0; k < n; k++) {
    const node = order[k]!;
    const around: number[] = [];
    for (let j = 0; j < n; j++) if (place[j]! > k && table[node * n + j] !== -1) around.push(j);
    for (const i of around) {
      neighbour.push(i);
      lower.push(table[i * n + node]!);
      upper.push(table[node * n + i]!);
      for (const j of around) {
        claim(i, j);
        target.push(table[i * n + j]!);
      }
    }
    start[k + 1] = neighbour.length;
    targetStart[k + 1] = target.length;
  }
  return {
    size: n,
    slots,
    diagonal: intsOf(Array.from({ length: n }, (_, i) => table[i * n + i]!)),
    slotOf: (row, column) => table[row * n + column]!,
    programme: {
      order,
      start,
      neighbour: intsOf(neighbour),
      lower: intsOf(lower),
      upper: intsOf(upper),
      targetStart,
      target: intsOf(target),
    },
  };
}

/**
 * Factors in place a matrix given by its off-diagonal entries and its row sums.
 *
 * values  off-diagonal entries at their slots on entry (diagonal slots are not read); L (unit diagonal) and U, its diagonal inverted, on return.
 * excess  n row sums (diagonal plus off-diagonals) on entry; overwritten.
 * Gives the node whose pivot vanished, or -1.
 *
 * Each pivot is built from the row sum and the remaining entries and never by subtraction, so that two nodes joined
 * by 200 S that hang on 1e-15 S keep a pivot of full relative accuracy; a plain elimination would lose it to rounding.
 * Source: W. K. Grassmann, M. I. Taksar and D. P. Heyman, "Regenerative analysis and steady state distributions for
 * Markov chains", Operations Research 33 (1985); C. A. O'Cinneide, Numer. Math. 65 (1993), for its accuracy.
 */
export function factorSparse(pattern: SparsePattern, values: Float64Array, excess: Float64Array): number {
  const { order, start, neighbour, lower, upper, targetStart, target } = pattern.programme;
  const { diagonal, size } = pattern;
  const limit = size * Number.EPSILON;
  for (let k = 0; k < size; k++) {
    const node = order[k]!;
    const from = start[k]!;
    const to = start[k + 1]!;
    let pivot = excess[node]!;
    let magnitude = Math.abs(pivot);
    for (let a = from; a < to; a++) {
      pivot -= values[upper[a]!]!;
      magnitude += Math.abs(values[upper[a]!]!);
    }
    if (!(Math.abs(pivot) > limit * magnitude)) return node;
    const inverse = 1 / pivot;
    values[diagonal[node]!] = inverse;
    const own = excess[node]!;
    let t = targetStart[k]!;
    for (let a = from; a < to; a++) {
      const factor = values[lower[a]!]! * inverse;
      values[lower[a]!] = factor;
      excess[neighbour[a]!] = excess[neighbour[a]!]! - factor * own;
      for (let b = from; b < a; b++, t++) values[target[t]!] = values[target[t]!]! - factor * values[upper[b]!]!;
      // A pivot comes from its row's sum.
      t++;
      for (let b = a + 1; b < to; b++, t++) values[target[t]!] = values[target[t]!]! - factor * values[upper[b]!]!;
    }
  }
  return -1;
}

/** Solves A x = b with a factorisation from `factorSparse`; `x` holds b on entry and the solution on return. */
export function solveSparse(pattern: SparsePattern, values: Float64Array, x: Float64Array): void {
  const { order, start, neighbour, lower, upper } = pattern.programme;
  const { diagonal, size } = pattern;
  for (let k = 0; k < size; k++) {
    const known = x[order[k]!]!;
    if (known === 0) continue;
    for (let a = start[k]!; a < start[k + 1]!; a++) x[neighbour[a]!] = x[neighbour[a]!]! - values[lower[a]!]! * known;
  }
  for (let k = size - 1; k >= 0; k--) {
    const node = order[k]!;
    let sum = x[node]!;
    for (let a = start[k]!; a < start[k + 1]!; a++) sum -= values[upper[a]!]! * x[neighbour[a]!]!;
    x[node] = sum * values[diagonal[node]!]!;
  }
}

/** Solves the transposed system with the same factorisation: the adjoint, for sensitivities. */
export function solveSparseTransposed(pattern: SparsePattern, values: Float64Array, x: Float64Array): void {
  const { order, start, neighbour, lower, upper } = pattern.programme;
  const { diagonal, size } = pattern;
  for (let k = 0; k < size; k++) {
    const node = order[k]!;
    const known = x[node]! * values[diagonal[node]!]!;
    x[node] = known;
    if (known === 0) continue;
    for (let a = start[k]!; a < start[k + 1]!; a++) x[neighbour[a]!] = x[neighbour[a]!]! - values[upper[a]!]! * known;
  }
  for (let k = size - 1; k >= 0; k--) {
    const node = order[k]!;
    let sum = x[node]!;
    for (let a = start[k]!; a < start[k + 1]!; a++) sum -= values[lower[a]!]! * x[neighbour[a]!]!;
    x[node] = sum;
  }
}
