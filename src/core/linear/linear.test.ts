import { minimumDegreeOrder } from '../graph';
import { seededRandom } from '../quantity';
import {
  analysePattern,
  factorDense,
  factorSparse,
  solveDense,
  solveSparse,
  solveSparseTransposed,
  floats,
  floatsOf,
  ints,
} from '.';

/** A random resistor network of n nodes with conductances over 14 decades, one node grounded. */
function network(n: number, seed: number) {
  const random = seededRandom(seed);
  const edges: number[] = [];
  const siemens: number[] = [];
  for (let i = 1; i < n; i++) {
    edges.push(i, Math.floor(random() * i));
    siemens.push(10 ** (random() * 14 - 12));
  }
  for (let k = 0; k < n; k++) {
    const [a, b] = [Math.floor(random() * n), Math.floor(random() * n)];
    if (a === b) continue;
    edges.push(a, b);
    siemens.push(10 ** (random() * 14 - 12));
  }
  return { edges: Int32Array.from(edges), siemens };
}

function sparse(n: number, edges: Int32Array, siemens: readonly number[], gain = 0) {
  const pattern = analysePattern(n, edges, minimumDegreeOrder(n, edges));
  const values = new Float64Array(pattern.slots);
  const excess = new Float64Array(n);
  siemens.forEach((g, k) => {
    const [a, b] = [edges[2 * k]!, edges[2 * k + 1]!];
    values[pattern.slotOf(a, b)]! -= g * (1 + gain);
    values[pattern.slotOf(b, a)]! -= g;
    excess[a]! -= g * gain;
  });
  excess[0]! += 1;
  return { pattern, values, excess };
}

function dense(n: number, edges: Int32Array, siemens: readonly number[], gain = 0) {
  const m = new Float64Array(n * n);
  siemens.forEach((g, k) => {
    const [a, b] = [edges[2 * k]!, edges[2 * k + 1]!];
    m[a * n + b]! -= g * (1 + gain);
    m[b * n + a]! -= g;
    m[a * n + a]! += g;
    m[b * n + b]! += g;
  });
  m[0]! += 1;
  return m;
}

test('the sparse kernel agrees with the dense one on a well-scaled network, plain and transposed', () => {
  for (let seed = 1; seed <= 20; seed++) {
    const n = 30;
    const { edges, siemens: wild } = network(n, seed);
    const siemens = wild.map((g) => Math.abs(Math.log10(g)) + 0.1);
    const { pattern, values, excess } = sparse(n, edges, siemens, 0.3);
    expect(factorSparse(pattern, values, excess)).toBe(-1);
    const matrix = dense(n, edges, siemens, 0.3);
    const transposed = Float64Array.from({ length: n * n }, (_, i) => matrix[(i % n) * n + Math.floor(i / n)]!);
    for (const [solve, m] of [
      [solveSparse, matrix],
      [solveSparseTransposed, transposed],
    ] as const) {
      const x = Float64Array.from({ length: n }, (_, i) => Math.sin(i + seed));
      const y = Float64Array.from(x);
      solve(pattern, values, x);
      const pivots = new Int32Array(n);
      expect(factorDense(m, pivots, n).ok).toBe(true);
      solveDense(m, pivots, n, y);
      x.forEach((v, i) => expect(Math.abs(v - y[i]!)).toBeLessThan(1e-9 * (1 + Math.abs(v))));
    }
  }
});

test('a cluster that hangs on 1e-15 S keeps its voltage', () => {
  // 0 -1e-15- 1 -200- 2 -1e-15- 3, node 3 driven by 1 A over 1 S to ground: closed form by voltage division.
  const edges = Int32Array.from([0, 1, 1, 2, 2, 3]);
  const { pattern, values, excess } = sparse(4, edges, [1e-15, 200, 1e-15]);
  excess[3]! += 1;
  expect(factorSparse(pattern, values, excess)).toBe(-1);
  const x = Float64Array.from([0, 0, 0, 1]);
  solveSparse(pattern, values, x);
  expect(x[1]! / x[3]!).toBeCloseTo(0.5, 9);
  expect(x[2]! / x[3]!).toBeCloseTo(0.5, 9);
});

test('a singular matrix is refused, not solved', () => {
  const matrix = Float64Array.from([1, -1, -1, 1]);
  const done = factorDense(matrix, new Int32Array(2), 2);
  expect(done.ok || done.problem.code).toBe('singular-matrix');
  const edges = Int32Array.from([0, 1]);
  const pattern = analysePattern(2, edges, minimumDegreeOrder(2, edges));
  const values = new Float64Array(pattern.slots);
  values[pattern.slotOf(0, 1)] = -1;
  values[pattern.slotOf(1, 0)] = -1;
  expect(factorSparse(pattern, values, new Float64Array(2))).toBeGreaterThanOrEqual(0);
});

test('pieces of larger buffers are zeros of the length asked for, and none shares a number with another', () => {
  const sizes = [3, 1, 5000, 48, 2048, 2049, 8192, 7, 0, 2000, 2000, 2000, 2000, 2000];
  const reals = sizes.map((n) => floats(n));
  const whole = sizes.map((n) => ints(n));
  for (const list of [reals, whole]) {
    expect(list.map((piece) => piece.length)).toEqual(sizes);
    list.forEach((piece) => expect(piece.every((x) => x === 0)).toBe(true));
    list.forEach((piece, i) => piece.fill(i + 1));
    list.forEach((piece, i) => expect(piece.every((x) => x === i + 1)).toBe(true));
  }
  const source = [1.5, -2];
  const copy = floatsOf(source);
  source[0] = 9;
  expect([...copy]).toEqual([1.5, -2]);
});
