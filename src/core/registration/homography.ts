/** A point in pixels of a picture. */
export interface Point {
  readonly x: number;
  readonly y: number;
}

/** The same place on the back and on the front photograph. */
export interface PointPair {
  readonly from: Point;
  readonly to: Point;
}

/** A projective map of the plane, nine numbers row by row, the last one 1 up to scale. */
export type Homography = readonly number[];

/** Maps a point; null on the line that the map sends to infinity. */
export function mapPoint(h: Homography, { x, y }: Point): Point | null {
  const w = h[6]! * x + h[7]! * y + h[8]!;
  if (Math.abs(w) < 1e-12) return null;
  return { x: (h[0]! * x + h[1]! * y + h[2]!) / w, y: (h[3]! * x + h[4]! * y + h[5]!) / w };
}

/**
 * The homography that maps the first points of the pairs to their second ones, least squares over all pairs.
 *
 * Direct linear transform with normalised coordinates (Hartley 1997), the smallest eigenvector of the 9 x 9 normal
 * matrix by Jacobi rotations. At least four pairs, no three of four points on a line; null where the points do not
 * settle a map.
 */
export function fitHomography(pairs: readonly PointPair[]): Homography | null {
  if (pairs.length < 4) return null;
  const from = normaliser(pairs.map((p) => p.from));
  const to = normaliser(pairs.map((p) => p.to));
  if (!from || !to) return null;
  const normal = Array.from({ length: 9 }, () => new Float64Array(9));
  for (const pair of pairs) {
    const { x, y } = shifted(pair.from, from);
    const { x: u, y: v } = shifted(pair.to, to);
    for (const row of [
      [-x, -y, -1, 0, 0, 0, u * x, u * y, u],
      [0, 0, 0, -x, -y, -1, v * x, v * y, v],
    ]) {
      for (let i = 0; i < 9; i++) for (let j = 0; j < 9; j++) normal[i]![j]! += row[i]! * row[j]!;
    }
  }
  const { vector, gap } = smallestEigenvector(normal);
  if (gap < 1e-9) return null;
  // Undo the normalisation: T_to^-1 H T_from.
  const inner = multiply(vector, [from.scale, 0, -from.scale * from.x, 0, from.scale, -from.scale * from.y, 0, 0, 1]);
  const h = multiply([1 / to.scale, 0, to.x, 0, 1 / to.scale, to.y, 0, 0, 1], inner);
  return Math.abs(h[8]!) < 1e-12 ? h : h.map((n) => n / h[8]!);
}

interface Normaliser {
  readonly x: number;
  readonly y: number;
  readonly scale: number;
}

/** Moves the points' centre to the origin and their mean distance from it to the root of two. */
function normaliser(points: readonly Point[]): Normaliser | null {
  const x = points.reduce((s, p) => s + p.x, 0) / points.length;
  const y = points.reduce((s, p) => s + p.y, 0) / points.length;
  const mean = points.reduce((s, p) => s + Math.hypot(p.x - x, p.y - y), 0) / points.length;
  return mean < 1e-9 ? null : { x, y, scale: Math.SQRT2 / mean };
}

function shifted(p: Point, n: Normaliser): Point {
  return { x: n.scale * (p.x - n.x), y: n.scale * (p.y - n.y) };
}

function multiply(a: readonly number[], b: readonly number[]): number[] {
  return Array.from({ length: 9 }, (_, i) => {
    const [row, column] = [3 * Math.floor(i / 3), i % 3];
    return a[row]! * b[column]! + a[row + 1]! * b[column + 3]! + a[row + 2]! * b[column + 6]!;
  });
}

/**
 * Eigenvector of the smallest eigenvalue of a symmetric matrix, by cyclic Jacobi rotations (Golub and Van Loan 8.5);
 * `gap` is how far the second smallest stands off, relative to the largest: near zero the vector is not settled.
 */
function smallestEigenvector(input: readonly Float64Array[]): { readonly vector: number[]; readonly gap: number } {
  const n = input.length;
  const a = input.map((row) => Float64Array.from(row));
  const v = Array.from({ length: n }, (_, i) => Float64Array.from({ length: n }, (_x, j) => (i === j ? 1 : 0)));
  for (let sweep = 0; sweep < 60; sweep++) {
    let off = 0;
    for (let p = 0; p < n; p++) for (let q = p + 1; q < n; q++) off += a[p]![q]! ** 2;
    if (off < 1e-30) break;
    for (let p = 0; p < n; p++) for (let q = p + 1; q < n; q++) rotate(a, v, p, q);
  }
  const order = Array.from({ length: n }, (_, i) => i).sort((i, j) => a[i]![i]! - a[j]![j]!);
  const value = (k: number): number => a[order[k]!]![order[k]!]!;
  return { vector: v.map((row) => row[order[0]!]!), gap: (value(1) - value(0)) / Math.max(value(n - 1), 1e-300) };
}

function rotate(a: readonly Float64Array[], v: readonly Float64Array[], p: number, q: number): void {
  if (Math.abs(a[p]![q]!) < 1e-300) return;
  const theta = (a[q]![q]! - a[p]![p]!) / (2 * a[p]![q]!);
  const t = Math.sign(theta || 1) / (Math.abs(theta) + Math.sqrt(theta * theta + 1));
  const c = 1 / Math.sqrt(t * t + 1);
  const s = t * c;
  for (let k = 0; k < a.length; k++) {
    const [x, y] = [a[k]![p]!, a[k]![q]!];
    a[k]![p] = c * x - s * y;
    a[k]![q] = s * x + c * y;
  }
  for (let k = 0; k < a.length; k++) {
    const [x, y] = [a[p]![k]!, a[q]![k]!];
    a[p]![k] = c * x - s * y;
    a[q]![k] = s * x + c * y;
    const [m, w] = [v[k]![p]!, v[k]![q]!];
    v[k]![p] = c * m - s * w;
    v[k]![q] = s * m + c * w;
  }
}
