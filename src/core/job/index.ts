export { boardEntries, boardFacts, entriesOf } from './boardFacts';
export type { BoardKind } from './boardFacts';
export { diagnosticReadings, lastRecharge, linesOf, proofReadings, standingLines } from './ledger';
export type { LedgerLine, ReadingBody } from './ledger';
export { STEPS, STEP_NAMES, TOOLS, jobHazard, jobProgress, liveSource } from './progress';
export type { JobBoard, JobProgress, JobSource, Lamp, Step } from './progress';
