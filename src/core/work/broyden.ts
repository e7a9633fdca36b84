/**
 * Finds where x = F(x) from F(x) - x at each try, by a running estimate of how that difference answers to x. The estimate
 * is kept from one problem to the next that is like it.
 * Source: C. G. Broyden, A class of methods for solving nonlinear simultaneous equations, Math. Comp. 19 (1965).
 */
export class Broyden {
  /** Minus the inverse of d(F(x) - x)/dx, row by row. */
  private readonly inverse: Float64Array;
  private readonly dx: Float64Array;
  private readonly df: Float64Array;
  private last: { readonly x: Float64Array; readonly f: Float64Array } | null = null;

  constructor(private readonly size: number) {
    this.inverse = new Float64Array(size * size);
    this.dx = new Float64Array(size);
    this.df = new Float64Array(size);
    this.forget();
  }

  /** Back to plain steps from x to F(x). */
  forget(): void {
    this.inverse.fill(0);
    for (let i = 0; i < this.size; i++) this.inverse[i * this.size + i] = 1;
    this.last = null;
  }

  /** A new problem: what was learnt stays, the last try does not. */
  restart(): void {
    this.last = null;
  }

  /** The next x to try, after x gave the difference f. */
  next(x: Float64Array, f: Float64Array): Float64Array<ArrayBuffer> {
    const { size, inverse, last } = this;
    if (last) {
      for (let i = 0; i < size; i++) {
        this.dx[i] = x[i]! - last.x[i]!;
        this.df[i] = f[i]! - last.f[i]!;
      }
      this.learn();
    }
    this.last = { x: Float64Array.from(x), f: Float64Array.from(f) };
    return Float64Array.from(x, (v, i) => {
      let step = 0;
      for (let j = 0; j < size; j++) step += inverse[i * size + j]! * f[j]!;
      return v + step;
    });
  }

  /** B += (dx + B df) dx' B / -(dx' B df), for B df = -dx. */
  private learn(): void {
    const { size, inverse, dx, df } = this;
    const u = new Float64Array(size);
    const row = new Float64Array(size);
    for (let i = 0; i < size; i++)
      for (let j = 0; j < size; j++) {
        u[i] = u[i]! + inverse[i * size + j]! * df[j]!;
        row[j] = row[j]! + dx[i]! * inverse[i * size + j]!;
      }
    let below = 0;
    let size2 = 0;
    for (let i = 0; i < size; i++) {
      below += dx[i]! * u[i]!;
      size2 += dx[i]! * dx[i]!;
    }
    if (!(Math.abs(below) > 1e-4 * size2) || size2 === 0) return;
    for (let i = 0; i < size; i++)
      for (let j = 0; j < size; j++)
        inverse[i * size + j] = inverse[i * size + j]! - ((dx[i]! + u[i]!) * row[j]!) / below;
  }
}
