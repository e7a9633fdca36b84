/** A complex number. */
export interface Complex {
  readonly re: number;
  readonly im: number;
}

/**
 * Eigenvalues of a real matrix, in no order; conjugate pairs stand together.
 *
 * matrix  n x n, row-major; overwritten. Balanced, brought to Hessenberg form, then shifted QR with double steps.
 * Gives null where the iteration does not settle (it does for all but contrived matrices).
 * Source: J. H. Wilkinson and C. Reinsch, Handbook for Automatic Computation II (1971), contributions II/11, II/13, II/14.
 */
export function eigenvalues(matrix: Float64Array, n: number): readonly Complex[] | null {
  balance(matrix, n);
  reduce(matrix, n);
  return doubleSteps(matrix, n);
}

/** Scales rows and columns by powers of two until they are of a size: eigenvalues stay, rounding shrinks. */
function balance(a: Float64Array, n: number): void {
  let again = true;
  for (let sweep = 0; again && sweep < 60; sweep++) {
    again = false;
    for (let i = 0; i < n; i++) {
      let column = 0;
      let row = 0;
      for (let j = 0; j < n; j++) {
        if (j === i) continue;
        column += Math.abs(a[j * n + i]!);
        row += Math.abs(a[i * n + j]!);
      }
      if (column === 0 || row === 0) continue;
      const factor = 2 ** Math.round(Math.log2(row / column) / 2);
      if (column * factor + row / factor >= 0.95 * (column + row)) continue;
      again = true;
      for (let j = 0; j < n; j++) a[i * n + j] = a[i * n + j]! / factor;
      for (let j = 0; j < n; j++) a[j * n + i] = a[j * n + i]! * factor;
    }
  }
}

/** Brings a matrix to Hessenberg form by elimination with row interchanges. */
function reduce(a: Float64Array, n: number): void {
  for (let m = 1; m < n - 1; m++) {
    let best = m;
    for (let j = m + 1; j < n; j++) if (Math.abs(a[j * n + m - 1]!) > Math.abs(a[best * n + m - 1]!)) best = j;
    const pivot = a[best * n + m - 1]!;
    if (pivot === 0) continue;
    if (best !== m) {
      for (let j = m - 1; j < n; j++) swap(a, best * n + j, m * n + j);
      for (let j = 0; j < n; j++) swap(a, j * n + best, j * n + m);
    }
    for (let i = m + 1; i < n; i++) {
      const factor = a[i * n + m - 1]! / pivot;
      if (factor === 0) continue;
      a[i * n + m - 1] = 0;
      for (let j = m; j < n; j++) a[i * n + j] = a[i * n + j]! - factor * a[m * n + j]!;
      for (let j = 0; j < n; j++) a[j * n + m] = a[j * n + m]! + factor * a[j * n + i]!;
    }
  }
}

function swap(a: Float64Array, i: number, j: number): void {
  const held = a[i]!;
  a[i] = a[j]!;
  a[j] = held;
}

const STEPS = 60;

function doubleSteps(a: Float64Array, n: number): readonly Complex[] | null {
  const found: Complex[] = [];
  let norm = 0;
  for (let i = 0; i < n; i++) for (let j = Math.max(0, i - 1); j < n; j++) norm += Math.abs(a[i * n + j]!);
  let end = n - 1;
  let shift = 0;
  let steps = 0;
  while (end >= 0) {
    const low = deflated(a, n, end, norm);
    const x = a[end * n + end]!;
    if (low === end) {
      found.push({ re: x + shift, im: 0 });
      end--;
      steps = 0;
      continue;
    }
    const y = a[(end - 1) * n + end - 1]!;
    const w = a[end * n + end - 1]! * a[(end - 1) * n + end]!;
    if (low === end - 1) {
      found.push(...pair(x, y, w, shift));
      end -= 2;
      steps = 0;
      continue;
    }
    if (steps === STEPS) return null;
    let [sx, sy, sw] = [x, y, w];
    if (steps > 0 && steps % 10 === 0) {
      // A step of its own where the usual shift goes in circles.
      shift += x;
      for (let i = 0; i <= end; i++) a[i * n + i] = a[i * n + i]! - x;
      const size = Math.abs(a[end * n + end - 1]!) + Math.abs(a[(end - 1) * n + end - 2]!);
      sx = sy = 0.75 * size;
      sw = -0.4375 * size * size;
    }
    steps++;
    sweep(a, n, low, end, sx, sy, sw);
  }
  return found;
}

/** Below this share of the whole nothing is left of a matrix: what is nil but for rounding would keep the steps busy for ever. */
const NIL_SHARE = Number.EPSILON ** 2;

/** Row of the first of the last rows that hang together; what is below rounding above it is set to nothing. */
function deflated(a: Float64Array, n: number, end: number, norm: number): number {
  for (let l = end; l > 0; l--) {
    const size = Math.abs(a[(l - 1) * n + l - 1]!) + Math.abs(a[l * n + l]!) || norm;
    if (Math.abs(a[l * n + l - 1]!) > Math.max(Number.EPSILON * size, NIL_SHARE * norm)) continue;
    a[l * n + l - 1] = 0;
    return l;
  }
  return 0;
}

/** The two eigenvalues of the last two by two block. */
function pair(x: number, y: number, w: number, shift: number): readonly Complex[] {
  const p = 0.5 * (y - x);
  const q = p * p + w;
  const z = Math.sqrt(Math.abs(q));
  if (q < 0) {
    return [
      { re: x + p + shift, im: z },
      { re: x + p + shift, im: -z },
    ];
  }
  const far = p + (p >= 0 ? z : -z);
  return [
    { re: x + shift + far, im: 0 },
    { re: far === 0 ? x + shift : x + shift - w / far, im: 0 },
  ];
}

/** One double step of the shifted QR iteration on rows low..end. */
function sweep(a: Float64Array, n: number, low: number, end: number, x: number, y: number, w: number): void {
  let m = end - 2;
  let [p, q, r] = [0, 0, 0];
  for (; m >= low; m--) {
    const z = a[m * n + m]!;
    const rr = x - z;
    const ss = y - z;
    p = (rr * ss - w) / a[(m + 1) * n + m]! + a[m * n + m + 1]!;
    q = a[(m + 1) * n + m + 1]! - z - rr - ss;
    r = a[(m + 2) * n + m + 1]!;
    const size = Math.abs(p) + Math.abs(q) + Math.abs(r) || 1;
    p /= size;
    q /= size;
    r /= size;
    if (m === low) break;
    const u = Math.abs(a[m * n + m - 1]!) * (Math.abs(q) + Math.abs(r));
    const v = Math.abs(p) * (Math.abs(a[(m - 1) * n + m - 1]!) + Math.abs(z) + Math.abs(a[(m + 1) * n + m + 1]!));
    if (u <= Number.EPSILON * v) break;
  }
  for (let i = m + 2; i <= end; i++) {
    a[i * n + i - 2] = 0;
    if (i > m + 2) a[i * n + i - 3] = 0;
  }
  for (let k = m; k < end; k++) {
    let size = 0;
    if (k !== m) {
      p = a[k * n + k - 1]!;
      q = a[(k + 1) * n + k - 1]!;
      r = k + 1 < end ? a[(k + 2) * n + k - 1]! : 0;
      size = Math.abs(p) + Math.abs(q) + Math.abs(r);
      if (size === 0) continue;
      p /= size;
      q /= size;
      r /= size;
    }
    const s = Math.sqrt(p * p + q * q + r * r) * (p < 0 ? -1 : 1);
    if (s === 0) continue;
    if (k === m) {
      if (low !== m) a[k * n + k - 1] = -a[k * n + k - 1]!;
    } else a[k * n + k - 1] = -s * size;
    p += s;
    const [fx, fy, fz] = [p / s, q / s, r / s];
    q /= p;
    r /= p;
    for (let j = k; j <= end; j++) {
      let t = a[k * n + j]! + q * a[(k + 1) * n + j]!;
      if (k + 1 < end) {
        t += r * a[(k + 2) * n + j]!;
        a[(k + 2) * n + j] = a[(k + 2) * n + j]! - t * fz;
      }
      a[(k + 1) * n + j] = a[(k + 1) * n + j]! - t * fy;
      a[k * n + j] = a[k * n + j]! - t * fx;
    }
    const last = Math.min(end, k + 3);
    for (let i = low; i <= last; i++) {
      let t = fx * a[i * n + k]! + fy * a[i * n + k + 1]!;
      if (k + 1 < end) {
        t += fz * a[i * n + k + 2]!;
        a[i * n + k + 2] = a[i * n + k + 2]! - t * r;
      }
      a[i * n + k + 1] = a[i * n + k + 1]! - t * q;
      a[i * n + k] = a[i * n + k]! - t;
    }
  }
}
