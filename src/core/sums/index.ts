export { bulkWave, dischargeCurve } from './curves';
export type { CurvePoint } from './curves';
export { derivation, resultText, sumText } from './derivation';
export type { DerivedLine } from './derivation';
export { dividerOutput } from './dividerOutput';
export { runOne } from './runOne';
export type { SumDone } from './runOne';
export { SUMS, runSum } from './runSum';
export { realPart } from './realPart';
export { searchSums } from './searchSums';
export { sumsDocument } from './sumsDocument';
export { SUM_TITLES } from './titles';
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
