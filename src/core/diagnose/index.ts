export { alsoCheck } from './alsoCheck';
export type { AlsoCheck } from './alsoCheck';
export { bestNext, huntFault } from './simulatedHunt';
export type { Hunt, PointChooser } from './simulatedHunt';
export { Diagnoser, MOST_READINGS, NAMED_FROM } from './diagnose';
export type { Diagnosis, Suspect, UnseenKind } from './diagnose';
export { buildDictionary, buildWholeDictionary, defaultPoints } from './dictionary';
export type { FaultDictionary, PredictedPoint } from './dictionary';
export type { ProbePoint } from './probePoint';
export { KIND_WORDS, failureKind } from './failureKind';
export { listHypotheses } from './hypotheses';
export type { Hypothesis } from './hypotheses';
export { LINKED_FAULTS, TAKEN_ROLE_WORDS } from './linkedFaults';
export { readingSeconds } from './nextReading';
export type { PlannedReading } from './nextReading';
export {
  coordinate,
  distinguishable,
  logLikelihood,
  mainMode,
  mistakeChance,
  outcomeSpread,
  overloadChance,
} from './outcome';
export type { Observation, OutcomeMode, OutcomeSpread } from './outcome';
export { Predictions, pointKey, posterior, weighReadings } from './posterior';
export type { TakenReading } from './posterior';
export { settleSeconds } from './settling';
export { GATE_LIMIT, SupplyShorts } from './supplyShorts';
export { SYMPTOMS } from './priors';
export type { Symptom } from './priors';
export { probePairs } from './probePairs';
export { LOOK_SIGNS, lookFactors } from './lookSigns';
export type { Finding, LookSign, Severity } from './lookSigns';
