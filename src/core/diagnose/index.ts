export { alsoCheck } from './alsoCheck';
export type { AlsoCheck } from './alsoCheck';
export { bestNext, huntFault } from './simulatedHunt';
export type { Hunt, HuntWays, PointChooser } from './simulatedHunt';
export { Diagnoser, MOST_READINGS, NAMED_FROM } from './diagnose';
export type { Diagnosis, Standing, Suspect, Surety, UnseenKind } from './standing';
export { buildDictionary, buildWholeDictionary, defaultPoints, joinParts, partOf } from './dictionary';
export type { DictionaryPart, DictionaryShare, DictionaryStep, FaultDictionary } from './dictionary';
export { readingSeconds, scaleOf } from './coldPredictor';
export { READING_SECONDS, setReadingSeconds } from './readingCost';
export type { ReadingSeconds } from './readingCost';
export type { Predicted, Predictor } from './experiment';
export type { OutcomeScale } from './scale';
export { buildFirstLook } from './firstLook';
export { ComplaintReader } from './complaint';
export type { ComplaintSigns, KnownSigns } from './complaint';
export { limiterSteps, limiterWatts } from './limiter';
export type { LimiterStep } from './limiter';
export { doubtfulReadings } from './evidence';
export type { Evidence, Witness } from './evidence';
export type { ColdPoint, ProbePoint } from './probePoint';
export { KIND_WORDS, failureKind } from './failureKind';
export { listHypotheses } from './hypotheses';
export type { Hypothesis } from './hypotheses';
export { LINKED_FAULTS, TAKEN_ROLE_WORDS } from './linkedFaults';
export type { Creep, PlannedReading } from './nextReading';
export {
  LEADS_OHMS,
  coordinate,
  distinguishable,
  mainMode,
  mistakeChance,
  outcomeSpread,
  overloadChance,
} from './outcome';
export type { OutcomeMode, OutcomeSpread } from './outcome';
export { OUTLIER_SHARE, logLikelihood } from './likelihood';
export type { Observation } from './likelihood';
export { pointKey, posterior, weighReadings } from './posterior';
export type { TakenReading } from './posterior';
export { weighPowered } from './poweredWeights';
export type { PoweredTaken } from './poweredWeights';
export { settleSeconds } from './settling';
export { predictSignal, signalPoints, withAllInstruments, withInstruments } from './signals';
export type { SignalPoint } from './signals';
export { GATE_LIMIT, SupplyShorts } from './supplyShorts';
export { SYMPTOMS } from './priors';
export type { Symptom } from './priors';
export { probePairs } from './probePairs';
export { LOOK_SIGNS, lookFactors } from './lookSigns';
export type { Finding, LookSign, Severity } from './lookSigns';
export { PLAIN_OBSERVATIONS, readObserved, weighObserved } from './observations';
export type { Observed } from './observations';
