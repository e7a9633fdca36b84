export { boardEntries, boardFacts, entriesOf } from './boardFacts';
export type { BoardKind } from './boardFacts';
export { goesOnWithoutProof, isolatedBy, jobHazard, liveSource, presentReadings, sourceIds } from './hazardLedger';
export type { HazardView, JobBoard, JobSource, WaitingLine } from './hazardLedger';
export { diagnosticReadings, linesOf, standingLines } from './ledger';
export type { LedgerLine, ReadingBody } from './ledger';
export { STEPS, STEP_NAMES, TOOLS, jobProgress } from './progress';
export type { JobProgress, Lamp, Step } from './progress';
