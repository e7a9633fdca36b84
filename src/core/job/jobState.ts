import { linesOf } from './ledger';
import type { LedgerLine } from './ledger';

/** How a job may end; `open` until it does. */
export const OUTCOMES = ['open', 'repaired', 'not-worth-repair', 'no-fault-found', 'returned'] as const;
export type JobOutcome = (typeof OUTCOMES)[number];

/** How a job stands by its log: the outcome, what it waits for, and the line that says so. */
export interface JobState {
  readonly outcome: JobOutcome;
  readonly waitingFor: string;
  /** Null while nobody has said anything: it is open and waits for nothing. */
  readonly said: LedgerLine | null;
}

/** The state of a job: what the last standing line says about it. */
export function jobState(lines: readonly LedgerLine[]): JobState {
  const last = linesOf<{ outcome: JobOutcome; waitingFor: string }>(lines, 'job-state').at(-1);
  return last
    ? { outcome: last.body.outcome, waitingFor: last.body.waitingFor, said: last.line }
    : { outcome: 'open', waitingFor: '', said: null };
}
