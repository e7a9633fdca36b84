export { DERATING, capacitorKind, judgeStress, setWorkshopDerating, workshopDerating } from './derating';
export type { Derating, StressKind, Verdict } from './derating';
export { clampVolts } from './netParts';
export { railStress } from './railStress';
export type { RailAsked } from './railStress';
export type { StressRow } from './stressRow';
