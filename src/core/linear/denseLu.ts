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
  const largest = new Float64Array(n);
  for (let j = 0; j < n; j++)
    for (let i = 0; i < n; i++) largest[j] = Math.max(largest[j]!, Math.abs(matrix[i * n + j]!));
  for (let k = 0; k < n; k++) {
    let best = k;
    for (let i = k + 1; i < n; i++) if (Math.abs(matrix[i * n + k]!) > Math.abs(matrix[best * n + k]!)) best = i;
    pivots[k] = best;
    const pivot = matrix[best * n + k]!;
    if (!(Math.abs(pivot) > n * Number.EPSILON * largest[k]!)) {
      return refuse({
        code: 'singular-matrix',
        sentence: `Column ${k} of the matrix has no usable pivot.`,
        remedy: 'Check the circuit for a part of it that hangs on nothing.',
        details: { column: k },
      });
    }
    if (best !== k) {
      for (let j = 0; j < n; j++) {
        const held = matrix[k * n + j]!;
        matrix[k * n + j] = matrix[best * n + j]!;
        matrix[best * n + j] = held;
      }
    }
    for (let i = k + 1; i < n; i++) {
      const factor = matrix[i * n + k]! / pivot;
      if (factor === 0) continue;
      matrix[i * n + k] = factor;
      for (let j = k + 1; j < n; j++) matrix[i * n + j] = matrix[i * n + j]! - factor * matrix[k * n + j]!;
    }
  }
  return ok(true);
}

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
