import { standingLines } from '../ledger';
import type { JobSource, LedgerLine } from '../ledger';
import { storeName } from '../safety';
import type { Hazard, Moment } from '../safety';
import { jobHazard } from './hazardLedger';
import type { HazardView, JobBoard } from './hazardLedger';
import { jobState } from './jobState';
import type { Step } from './steps';

export type Lamp = 'unlit' | 'part' | 'lit';

/** Where a job stands: a lamp per step, the step that needs attention, and the next thing to do in words. */
export interface JobProgress {
  readonly lamps: Readonly<Record<Step, Lamp>>;
  readonly attention: Step;
  readonly next: string;
  readonly hazard: Hazard;
}

/** Derives where a job stands from its ledger; nothing of it is stored. sources: as the job came. */
export function jobProgress(
  sources: readonly JobSource[],
  boards: readonly JobBoard[],
  lines: readonly LedgerLine[],
  now: Moment,
  view: HazardView = {},
): JobProgress {
  const hazard = jobHazard(sources, boards, lines, now, view);
  const standing = standingLines(lines);
  const has = (kind: string): boolean => standing.some((l) => l.entry.kind === kind);
  const called = has('fault');
  const closed = has('step-closed');
  const done = jobState(lines).outcome !== 'open';
  const assumed = boards.some((b) => b.board.parts.some((p) => p.basis === 'assumed'));
  const blank = boards.every((b) => b.board.parts.length === 0);
  const lamps: Record<Step, Lamp> = {
    intake: 'lit',
    safe: hazard.meterSafe ? 'lit' : has('discharge-proof') || has('isolation') ? 'part' : 'unlit',
    board: blank ? 'unlit' : assumed ? 'part' : 'lit',
    probe: called ? 'lit' : has('reading') ? 'part' : 'unlit',
    repair: closed ? 'lit' : called ? 'part' : 'unlit',
    report: done ? 'lit' : closed ? 'part' : 'unlit',
  };
  return { lamps, hazard, ...attention(hazard, called, closed, done, blank, has('reading')) };
}

function attention(
  hazard: Hazard,
  called: boolean,
  closed: boolean,
  done: boolean,
  blank: boolean,
  reading: boolean,
): { readonly attention: Step; readonly next: string } {
  if (done) return { attention: 'report', next: 'Done: hand it over with its report' };
  if (closed) return { attention: 'report', next: 'Print the report' };
  if (called) return { attention: 'repair', next: 'Check what died with it and fit the parts' };
  if (hazard.state === 'LIVE') return { attention: 'safe', next: 'Isolate every source' };
  // What is not there can neither be proved nor probed.
  if (blank) return { attention: 'board', next: 'Trace the board, or choose a typical circuit' };
  if (!hazard.meterSafe) {
    const first = hazard.stores.find((s) => s.store.proof && s.state !== 'discharged');
    const untraced = first?.store.place !== null;
    return {
      attention: 'safe',
      next: first && !untraced ? `Prove ${storeName(first.store)} discharged` : 'Prove discharged what is not traced',
    };
  }
  return { attention: 'probe', next: reading ? 'Take the next reading' : 'Take the first reading' };
}
