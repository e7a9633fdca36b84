export { ownValue } from './ownValue';
export { ProblemError, assertNever, invariant, ok, refuse } from './problem';
export { atOnce } from './steps';
export type { Problem, Result } from './problem';
export { kept } from './kept';
