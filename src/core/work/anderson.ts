import { factorDense, solveDense } from '../linear';

const DEPTH = 4;

/**
 * Finds where x = F(x), from F(x) - x at each try: steps that combine the last few tries so that their differences cancel.
 * Source: D. G. Anderson, Iterative procedures for nonlinear integral equations, J. ACM 12 (1965).
 */
export class Anderson {
  private readonly xs: Float64Array[] = [];
  private readonly fs: Float64Array[] = [];

  constructor(private readonly size: number) {}

  /** The next x to try, after x gave the difference f. */
  next(x: Float64Array, f: Float64Array): Float64Array<ArrayBuffer> {
    const { xs, fs, size } = this;
    xs.push(Float64Array.from(x));
    fs.push(Float64Array.from(f));
    if (xs.length > DEPTH + 1) {
      xs.shift();
      fs.shift();
    }
    const m = Math.min(xs.length - 1, size);
    const next = Float64Array.from(x, (v, i) => v + f[i]!);
    if (m === 0) return next;
    const last = xs.length - 1;
    const df = Array.from({ length: m }, (_, j) => fs[last - j]!.map((v, i) => v - fs[last - j - 1]![i]!));
    const dx = Array.from({ length: m }, (_, j) => xs[last - j]!.map((v, i) => v - xs[last - j - 1]![i]!));
    const normal = new Float64Array(m * m);
    const gamma = new Float64Array(m);
    const dot = (a: Float64Array, b: Float64Array): number => a.reduce((sum, v, i) => sum + v * b[i]!, 0);
    for (let i = 0; i < m; i++) {
      gamma[i] = dot(df[i]!, f);
      for (let j = 0; j < m; j++) normal[i * m + j] = dot(df[i]!, df[j]!);
      normal[i * m + i] = normal[i * m + i]! * (1 + 1e-10) + 1e-30;
    }
    const pivots = new Int32Array(m);
    if (!factorDense(normal, pivots, m).ok) return next;
    solveDense(normal, pivots, m, gamma);
    for (let j = 0; j < m; j++)
      for (let i = 0; i < size; i++) next[i] = next[i]! - gamma[j]! * (dx[j]![i]! + df[j]![i]!);
    return next;
  }
}
