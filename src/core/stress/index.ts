export { DERATING, capacitorKind, judgeStress } from './derating';
export type { Derating, StressKind, Verdict } from './derating';
export { railStress } from './railStress';
export type { RailAsked, StressRow } from './railStress';
