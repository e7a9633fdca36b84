/**
 * Factors and solves a dense complex system in one go: (re + j im) x = b.
 *
 * re, im  n x n, row-major; overwritten. bRe, bIm: the right-hand side, overwritten with the solution.
 * A column without a usable pivot belongs to something that hangs on nothing: its unknown is set to nothing.
 * Source: G. H. Golub and C. F. Van Loan, Matrix Computations, 4th ed., algorithm 3.4.1, in complex numbers.
 */
export function solveComplex(
  re: Float64Array,
  im: Float64Array,
  n: number,
  bRe: Float64Array,
  bIm: Float64Array,
): void {
  const largest = new Float64Array(n);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) largest[j] = Math.max(largest[j]!, size(re[i * n + j]!, im[i * n + j]!));
  for (let k = 0; k < n; k++) {
    let best = k;
    for (let i = k + 1; i < n; i++)
      if (size(re[i * n + k]!, im[i * n + k]!) > size(re[best * n + k]!, im[best * n + k]!)) best = i;
    if (!(size(re[best * n + k]!, im[best * n + k]!) > Number.EPSILON * largest[k]!)) {
      for (let i = k; i < n; i++) re[i * n + k] = im[i * n + k] = 0;
      re[k * n + k] = Infinity;
      continue;
    }
    if (best !== k) swapRows(re, im, n, bRe, bIm, k, best);
    const pr = re[k * n + k]!;
    const pi = im[k * n + k]!;
    const norm = pr * pr + pi * pi;
    for (let i = k + 1; i < n; i++) {
      const ar = re[i * n + k]!;
      const ai = im[i * n + k]!;
      if (ar === 0 && ai === 0) continue;
      const fr = (ar * pr + ai * pi) / norm;
      const fi = (ai * pr - ar * pi) / norm;
      for (let j = k + 1; j < n; j++) {
        const xr = re[k * n + j]!;
        const xi = im[k * n + j]!;
        if (xr === 0 && xi === 0) continue;
        re[i * n + j] = re[i * n + j]! - (fr * xr - fi * xi);
        im[i * n + j] = im[i * n + j]! - (fr * xi + fi * xr);
      }
      bRe[i] = bRe[i]! - (fr * bRe[k]! - fi * bIm[k]!);
      bIm[i] = bIm[i]! - (fr * bIm[k]! + fi * bRe[k]!);
    }
  }
  for (let i = n - 1; i >= 0; i--) {
    const pr = re[i * n + i]!;
    if (pr === Infinity) {
      bRe[i] = bIm[i] = 0;
      continue;
    }
    let sr = bRe[i]!;
    let si = bIm[i]!;
    for (let j = i + 1; j < n; j++) {
      sr -= re[i * n + j]! * bRe[j]! - im[i * n + j]! * bIm[j]!;
      si -= re[i * n + j]! * bIm[j]! + im[i * n + j]! * bRe[j]!;
    }
    const pi = im[i * n + i]!;
    const norm = pr * pr + pi * pi;
    bRe[i] = (sr * pr + si * pi) / norm;
    bIm[i] = (si * pr - sr * pi) / norm;
  }
}

/**
 * Turns a complex matrix into its inverse, in place; false where it has none.
 *
 * re, im  n x n, row-major. Source: Golub and Van Loan, section 3.4 (Gauss-Jordan with partial pivoting).
 */
export function invertComplex(re: Float64Array, im: Float64Array, n: number): boolean {
  const rows = new Int32Array(n);
  for (let k = 0; k < n; k++) {
    let best = k;
    for (let i = k + 1; i < n; i++)
      if (size(re[i * n + k]!, im[i * n + k]!) > size(re[best * n + k]!, im[best * n + k]!)) best = i;
    const norm = re[best * n + k]! ** 2 + im[best * n + k]! ** 2;
    if (!(norm > 0) || !Number.isFinite(norm)) return false;
    rows[k] = best;
    if (best !== k) {
      swapLines(re, n, k * n, best * n, 1);
      swapLines(im, n, k * n, best * n, 1);
    }
    const ir = re[k * n + k]! / norm;
    const ii = -im[k * n + k]! / norm;
    re[k * n + k] = 1;
    im[k * n + k] = 0;
    for (let j = 0; j < n; j++) {
      const xr = re[k * n + j]!;
      const xi = im[k * n + j]!;
      re[k * n + j] = xr * ir - xi * ii;
      im[k * n + j] = xr * ii + xi * ir;
    }
    for (let i = 0; i < n; i++) {
      const fr = re[i * n + k]!;
      const fi = im[i * n + k]!;
      if (i === k || (fr === 0 && fi === 0)) continue;
      re[i * n + k] = im[i * n + k] = 0;
      for (let j = 0; j < n; j++) {
        const xr = re[k * n + j]!;
        const xi = im[k * n + j]!;
        re[i * n + j] = re[i * n + j]! - (fr * xr - fi * xi);
        im[i * n + j] = im[i * n + j]! - (fr * xi + fi * xr);
      }
    }
  }
  for (let k = n - 1; k >= 0; k--) {
    if (rows[k] === k) continue;
    swapLines(re, n, k, rows[k]!, n);
    swapLines(im, n, k, rows[k]!, n);
  }
  return true;
}

/** Exchanges two rows (`step` 1) or two columns (`step` n) of n entries, by where they begin. */
function swapLines(m: Float64Array, n: number, a: number, b: number, step: number): void {
  for (let j = 0; j < n; j++) {
    const held = m[a + j * step]!;
    m[a + j * step] = m[b + j * step]!;
    m[b + j * step] = held;
  }
}

function size(re: number, im: number): number {
  return Math.abs(re) + Math.abs(im);
}

function swapRows(
  re: Float64Array,
  im: Float64Array,
  n: number,
  bRe: Float64Array,
  bIm: Float64Array,
  a: number,
  b: number,
): void {
  for (const m of [re, im]) swapLines(m, n, a * n, b * n, 1);
  for (const v of [bRe, bIm]) {
    const held = v[a]!;
    v[a] = v[b]!;
    v[b] = held;
  }
}
