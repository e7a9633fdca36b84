import { DisjointSets, minimumDegreeOrder } from '../graph';
import { seededRandom } from '../quantity';
import { analysePattern, factorDense, factorSparse, solveDense, solveSparse, solveSparseTransposed } from '.';

function randomDense(n: number, seed: number): Float64Array {
  const random = seededRandom(seed);
  return Float64Array.from({ length: n * n }, (_, i) => (random() - 0.5) * (i % (n + 1) === 0 ? 4 * n : 1));
}

const product = (m: Float64Array, x: ArrayLike<number>, n: number): number[] =>
  Array.from({ length: n }, (_, i) =>
    Array.from({ length: n }, (_u, j) => m[i * n + j]! * x[j]!).reduce((a, b) => a + b),
  );

test.each([1, 2, 3, 7, 20, 60])('dense: A x = b for %p unknowns, checked by multiplying back', (n) => {
  const matrix = randomDense(n, n);
  const wanted = Float64Array.from({ length: n }, (_, i) => Math.sin(i + 1));
  const b = product(matrix, wanted, n);
  const pivots = new Int32Array(n);
  const factors = Float64Array.from(matrix);
  expect(factorDense(factors, pivots, n).ok).toBe(true);
  const x = Float64Array.from(b);
  solveDense(factors, pivots, n, x);
  x.forEach((v, i) => expect(v).toBeCloseTo(wanted[i]!, 9));
});

test('dense: rows in any order give the same solution', () => {
  const m = Float64Array.from([0, 2, 1, 1, 0, 3, 4, 1, 0]);
  const pivots = new Int32Array(3);
  expect(factorDense(m, pivots, 3).ok).toBe(true);
  const x = Float64Array.from([2 * 5 + 7, 3 + 3 * 7, 4 * 3 + 5]);
  solveDense(m, pivots, 3, x);
  expect([...x]).toEqual([expect.closeTo(3, 12), expect.closeTo(5, 12), expect.closeTo(7, 12)]);
});

test.each([
  ['a zero matrix', [0, 0, 0, 0]],
  ['two equal rows', [1, 2, 1, 2]],
  ['a column of nothing', [1, 0, 3, 0]],
])('dense: %s is refused with its column', (_name, entries) => {
  const done = factorDense(Float64Array.from(entries), new Int32Array(2), 2);
  expect(done).toMatchObject({ ok: false, problem: { code: 'singular-matrix' } });
});

test('dense: conductances fourteen decades apart are no reason to refuse', () => {
  const m = Float64Array.from([1e2 + 1e-12, -1e2, -1e2, 1e2 + 1e-10]);
  expect(factorDense(Float64Array.from([1e2, 0, 0, 1e-12]), new Int32Array(2), 2).ok).toBe(true);
  expect(factorDense(m, new Int32Array(2), 2).ok).toBe(true);
});

/** Off-diagonal entries and row sums of a random connected network, one node tied down. */
function network(n: number, seed: number, unsymmetric: boolean) {
  const random = seededRandom(seed);
  const edges: number[] = [];
  for (let i = 1; i < n; i++) edges.push(i, Math.floor(random() * i));
  for (let k = 0; k < n; k++) {
    const [a, b] = [Math.floor(random() * n), Math.floor(random() * n)];
    if (a !== b) edges.push(a, b);
  }
  const list = Int32Array.from(edges);
  const pattern = analysePattern(n, list, minimumDegreeOrder(n, list));
  const values = new Float64Array(pattern.slots);
  const excess = new Float64Array(n);
  const full = new Float64Array(n * n);
  for (let e = 0; e < list.length; e += 2) {
    const [a, b] = [list[e]!, list[e + 1]!];
    for (const [from, to] of [
      [a, b],
      [b, a],
    ] as const) {
      const g = unsymmetric ? random() + 0.1 : 1 + ((e * 7) % 5);
      values[pattern.slotOf(from, to)] = values[pattern.slotOf(from, to)]! - g;
      full[from * n + to] = full[from * n + to]! - g;
      full[from * n + from] = full[from * n + from]! + g;
    }
  }
  excess[0] = 1;
  full[0] = full[0]! + 1;
  return { pattern, values, excess, full };
}

test.each([
  [5, 1],
  [12, 2],
  [40, 3],
  [90, 4],
])('sparse: %p nodes, seed %p, solved plain and transposed as the dense oracle does', (n, seed) => {
  for (const unsymmetric of [false, true]) {
    const { pattern, values, excess, full } = network(n, seed, unsymmetric);
    expect(factorSparse(pattern, values, excess)).toBe(-1);
    const random = seededRandom(seed + 50);
    const b = Float64Array.from({ length: n }, () => random() - 0.5);
    const x = Float64Array.from(b);
    solveSparse(pattern, values, x);
    product(full, x, n).forEach((v, i) => expect(v).toBeCloseTo(b[i]!, 8));
    const y = Float64Array.from(b);
    solveSparseTransposed(pattern, values, y);
    const turned = Float64Array.from({ length: n * n }, (_, k) => full[(k % n) * n + Math.floor(k / n)]!);
    product(turned, y, n).forEach((v, i) => expect(v).toBeCloseTo(b[i]!, 8));
  }
});

test('sparse: a node that hangs on nothing is named', () => {
  const edges = Int32Array.from([0, 1]);
  const pattern = analysePattern(3, edges, minimumDegreeOrder(3, edges));
  const values = new Float64Array(pattern.slots);
  values[pattern.slotOf(0, 1)] = -1;
  values[pattern.slotOf(1, 0)] = -1;
  const excess = Float64Array.from([1, 0, 0]);
  expect(factorSparse(pattern, values, excess)).toBe(2);
});

test('sparse: the pattern holds every entry that was asked for and no slot twice', () => {
  const { pattern } = network(30, 9, false);
  const seen = new Set<number>();
  for (let i = 0; i < 30; i++)
    for (let j = 0; j < 30; j++) {
      const slot = pattern.slotOf(i, j);
      if (slot < 0) continue;
      expect(seen.has(slot)).toBe(false);
      seen.add(slot);
      expect(pattern.slotOf(j, i)).toBeGreaterThanOrEqual(0);
    }
  expect(seen.size).toBe(pattern.slots);
});

test.each([1, 2, 3])('an elimination order is a permutation, the same each time (seed %p)', (seed) => {
  const random = seededRandom(seed);
  const edges = Int32Array.from({ length: 120 }, () => Math.floor(random() * 40));
  const order = minimumDegreeOrder(40, edges);
  expect([...order].sort((a, b) => a - b)).toEqual(Array.from({ length: 40 }, (_, i) => i));
  expect([...minimumDegreeOrder(40, edges)]).toEqual([...order]);
});

test('a chain is eliminated without any fill', () => {
  const n = 50;
  const edges = Int32Array.from(Array.from({ length: n - 1 }, (_, i) => [i, i + 1]).flat());
  const pattern = analysePattern(n, edges, minimumDegreeOrder(n, edges));
  expect(pattern.slots).toBe(n + 2 * (n - 1));
});

test('disjoint sets agree with a walk over the same edges', () => {
  const n = 200;
  const random = seededRandom(4);
  const sets = new DisjointSets(n);
  const near = Array.from({ length: n }, () => new Set<number>());
  for (let k = 0; k < 120; k++) {
    const [a, b] = [Math.floor(random() * n), Math.floor(random() * n)];
    sets.union(a, b);
    near[a]!.add(b);
    near[b]!.add(a);
  }
  const reach = new Set([0]);
  const queue = [0];
  for (let at = queue.pop(); at !== undefined; at = queue.pop())
    for (const next of near[at]!)
      if (!reach.has(next)) {
        reach.add(next);
        queue.push(next);
      }
  for (let i = 0; i < n; i++) expect(sets.joined(0, i)).toBe(reach.has(i));
  expect(sets.find(sets.find(5))).toBe(sets.find(5));
});
