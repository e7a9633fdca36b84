export { judgeSubstitution, safetyKind } from './substitute';
export type { FittedPart, SubstitutionVerdict } from './substitute';
