export { COLD_CONDITIONS, OUTCOMES } from './bodies';
export type {
  Conditions,
  DamagedEntry,
  JobFacts,
  JobOutcome,
  JobSource,
  LedgerBodies,
  LedgerEntry,
  LedgerKind,
  ReadingBody,
  PoweredReadingBody,
  SeenAtMeter,
  StoredEntry,
} from './bodies';
export { linesOf, standingLines } from './line';
export type { LedgerLine } from './line';
export { UPCASTERS, newestVersion, upcast } from './upcast';
