export { bulkWave, dischargeCurve } from './curves';
export type { CurvePoint } from './curves';
export { derivation, resultText, sumText } from './derivation';
export type { DerivedLine } from './derivation';
export { SUMS, runSum } from './runSum';
export type { SumDone } from './runSum';
export { realPart } from './realPart';
export { searchSums } from './searchSums';
export { sumsDocument } from './sumsDocument';
export { SUM_TASKS } from './sumDefinition';
export type {
  BadInput,
  SumDefinition,
  SumGiven,
  SumInput,
  SumResults,
  SumStep,
  SumTask,
  SumValues,
  UnknownSum,
} from './sumDefinition';
