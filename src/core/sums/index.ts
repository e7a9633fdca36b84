export { SUMS, runSum } from './runSum';
export type { SumDone } from './runSum';
export type { BadInput, SumDefinition, SumInput, SumResults, SumValues, UnknownSum } from './sumDefinition';
