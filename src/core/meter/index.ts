export { READING_SHARE, beeps, meterSigma, probe } from './probe';
export type { ComputedReading, OtherRange } from './probe';
export { DEFAULT_METER } from './profile';
export type { MeterProfile } from './profile';
export { coldMode, readBoard, solverFor, unknownNet } from './readBoard';
export type { ModeNotAvailable, ReadProblem, UnknownMode, UnknownNet } from './readBoard';
export { drawParts, simulateReading } from './simulate';
export { COLD_MODES, METER_MODES, MODE_UNITS } from './reading';
export type { ColdMode, MeterMode, MeterReading } from './reading';
