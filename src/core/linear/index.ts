export { factorDense, solveDense } from './denseLu';
export type { SingularMatrix } from './denseLu';
export { analysePattern, factorSparse, solveSparse, solveSparseTransposed } from './sparseLu';
export type { SparsePattern } from './sparseLu';
