import { ok, refuse } from '../problem';
import type { Problem, Result } from '../problem';

export type SingularMatrix = Problem<'singular-matrix', { readonly column: number }>;

/**
 * Factors a dense matrix in place with partial pivoting: the oracle for the sparse kernel, and its fallback.
 *
 * matrix  n x n, row-major; overwritten with L (unit diagonal, below) and U.
 * pivots  n row numbers, overwritten.
 * Refuses with `singular-matrix` when a column has no pivot above n·epsilon times its own largest entry.
 * Source: G. H. Golub and C. F. Van Loan, Matrix Computations, 4th ed., algorithm 3.4.1.
 */
export function factorDense(matrix: Float64Array, pivots: Int32Array, n: number): Result<true, SingularMatrix> {
  if (largest.length < n) largest = new Float64Array(2 * n);
  largest.fill(0, 0, n);
  for (let i = 0; i < n; i++) {
    const row = i * n;
    for (let j = 0; j < n; j++) {
      const size = Math.abs(matrix[row + j]!);
      if (size > largest[j]!) largest[j] = size;
    }
  }
  for (let k = 0; k < n; k++) {
    let best = k;
    let most = Math.abs(matrix[k * n + k]!);
    for (let i = k + 1; i < n; i++) {
      const size = Math.abs(matrix[i * n + k]!);
      if (size > most) [best, most] = [i, size];
    }
    pivots[k] = best;
    const upper = k * n;
    if (!(most > n * Number.EPSILON * largest[k]!)) {
      return refuse({
        code: 'singular-matrix',
        sentence: `Column ${k} of the matrix has no usable pivot.`,
        remedy: 'Check the circuit for a part of it that hangs on nothing.',
        details: { column: k },
      });
    }
    if (best !== k) {
      const other = best * n;
      for (let j = 0; j < n; j++) {
        const held = matrix[upper + j]!;
        matrix[upper + j] = matrix[other + j]!;
        matrix[other + j] = held;
      }
    }
    const pivot = matrix[upper + k]!;
    for (let i = k + 1; i < n; i++) {
      const row = i * n;
      if (matrix[row + k] === 0) continue;
      const factor = matrix[row + k]! / pivot;
      matrix[row + k] = factor;
      for (let j = k + 1; j < n; j++) matrix[row + j] = matrix[row + j]! - factor * matrix[upper + j]!;
    }
  }
  return ok(true);
}

/** Room for the largest entry of each column. */
let largest = new Float64Array(64);

/** Solves with a factorisation from `factorDense`; `x` holds the right-hand side on entry, the solution on return. */
export function solveDense(matrix: Float64Array, pivots: Int32Array, n: number, x: Float64Array): void {
  for (let k = 0; k < n; k++) {
    const other = pivots[k]!;
    if (other === k) continue;
    const held = x[k]!;
    x[k] = x[other]!;
    x[other] = held;
  }
  for (let i = 1; i < n; i++) {
    let sum = x[i]!;
    for (let j = 0; j < i; j++) sum -= matrix[i * n + j]! * x[j]!;
    x[i] = sum;
  }
  for (let i = n - 1; i >= 0; i--) {
    let sum = x[i]!;
    for (let j = i + 1; j < n; j++) sum -= matrix[i * n + j]! * x[j]!;
    x[i] = sum / matrix[i * n + i]!;
  }
}
