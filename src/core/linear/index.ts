export { invertComplex, solveComplex } from './complexLu';
export { factorDense, solveDense } from './denseLu';
export type { SingularMatrix } from './denseLu';
export { eigenvalues } from './eigenvalues';
export type { Complex } from './eigenvalues';
export { floats, floatsOf, ints, intsOf } from './pieces';
export { analysePattern, factorSparse, solveSparse, solveSparseTransposed } from './sparseLu';
export type { SparsePattern } from './sparseLu';
