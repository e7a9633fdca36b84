import { linesOf } from '../ledger';
import type { JobOutcome, LedgerLine } from '../ledger';

/** How a job stands by its log: the outcome, what it waits for, and the line that says so. */
export interface JobState {
  readonly outcome: JobOutcome;
  readonly waitingFor: string;
  /** Put away: off the list of the bench, found again by search. */
  readonly archived: boolean;
  /** Null while nobody has said anything: it is open and waits for nothing. */
  readonly said: LedgerLine | null;
}

/** The state of a job: what the last standing line says about it. */
export function jobState(lines: readonly LedgerLine[]): JobState {
  const last = linesOf(lines, 'job-state').at(-1);
  return last ? { ...last.body, said: last.line } : { outcome: 'open', waitingFor: '', archived: false, said: null };
}
