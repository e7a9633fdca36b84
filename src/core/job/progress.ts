import type { Board } from '../circuit';
import { energyStores, judgeHazard } from '../safety';
import type { Hazard } from '../safety';
import { lastRecharge, linesOf, proofReadings, standingLines } from './ledger';
import type { LedgerLine } from './ledger';

/** The steps of a job in this order; the digit after `g` is the place in this list, from 1. */
export const STEPS = ['intake', 'safe', 'board', 'probe', 'repair', 'report'] as const;
export type Step = (typeof STEPS)[number];

/** What is at hand beside the steps, in any of them: the letter after `g`, and what it is called. */
export const TOOLS = {
  sums: { key: 's', name: 'Sums' },
  modify: { key: 'm', name: 'Modify' },
  sweep: { key: 'w', name: 'Sweep' },
} as const;
export type Tool = keyof typeof TOOLS;

export const STEP_NAMES: Readonly<Record<Step, string>> = {
  intake: 'Intake',
  safe: 'Make safe',
  board: 'Trace',
  probe: 'Probe',
  repair: 'Repair',
  report: 'Report',
};

export type Lamp = 'unlit' | 'part' | 'lit';

/** A job's source of energy. */
export interface JobSource {
  readonly name: string;
  readonly kind: string;
}

/** One of a job's boards, by the id that ledger lines name it with. */
export interface JobBoard {
  readonly id: string;
  readonly board: Board;
}

/** Where a job stands: a lamp per step, the step that needs attention, and the next thing to do in words. */
export interface JobProgress {
  readonly lamps: Readonly<Record<Step, Lamp>>;
  readonly attention: Step;
  readonly next: string;
  readonly hazard: Hazard;
}

/** Who isolated each source. */
function isolations(lines: readonly LedgerLine[]): ReadonlyMap<string, string> {
  return new Map(
    linesOf<{ source: string }>(lines, 'isolation').map(({ line, body }) => [body.source, line.actor] as const),
  );
}

/** The first source that nobody has isolated, or null: while there is one the job is LIVE. */
export function liveSource(sources: readonly JobSource[], lines: readonly LedgerLine[]): string | null {
  const isolated = isolations(lines);
  return sources.find((s) => !isolated.has(s.name))?.name ?? null;
}

/** Hazard of a job now, over all its boards. */
export function jobHazard(
  sources: readonly JobSource[],
  boards: readonly JobBoard[],
  lines: readonly LedgerLine[],
  now: number,
): Hazard {
  const isolated = isolations(lines);
  const stores = boards.flatMap(({ id, board }) => energyStores(board, id));
  const fitted = linesOf<{ ref: string }>(lines, 'replacement');
  // What is fitted at a store ends its proof.
  const proofs = proofReadings(lines).filter((proof) => {
    const refs = stores.find((s) => s.boardId === proof.boardId && s.key === proof.storeKey)?.refs ?? [];
    return !fitted.some(
      ({ line, body }) => line.at >= proof.at && line.boardId === proof.boardId && refs.includes(body.ref),
    );
  });
  return judgeHazard(
    sources.map((s) => ({ name: s.name, isolatedBy: isolated.get(s.name) ?? null })),
    stores,
    proofs,
    lastRecharge(lines),
    now,
  );
}

/** Derives where a job stands from its ledger; nothing of it is stored. */
export function jobProgress(
  sources: readonly JobSource[],
  boards: readonly JobBoard[],
  lines: readonly LedgerLine[],
  outcome: string,
  now: number,
): JobProgress {
  const hazard = jobHazard(sources, boards, lines, now);
  const standing = standingLines(lines);
  const has = (kind: string): boolean => standing.some((l) => l.entry.kind === kind);
  const called = has('fault');
  const closed = has('step-closed');
  const done = outcome !== 'open';
  const assumed = boards.some((b) => b.board.parts.some((p) => p.basis === 'assumed'));
  const lamps: Record<Step, Lamp> = {
    intake: 'lit',
    safe: hazard.meterSafe ? 'lit' : has('discharge-proof') || has('isolation') ? 'part' : 'unlit',
    board: assumed ? 'part' : 'lit',
    probe: called ? 'lit' : has('reading') ? 'part' : 'unlit',
    repair: closed ? 'lit' : called ? 'part' : 'unlit',
    report: done ? 'lit' : closed ? 'part' : 'unlit',
  };
  return { lamps, hazard, ...attention(hazard, called, closed, done, has('reading')) };
}

function attention(
  hazard: Hazard,
  called: boolean,
  closed: boolean,
  done: boolean,
  reading: boolean,
): { readonly attention: Step; readonly next: string } {
  if (done) return { attention: 'report', next: 'Done: hand it over with its report' };
  if (closed) return { attention: 'report', next: 'Print the report' };
  if (called) return { attention: 'repair', next: 'Check what died with it and fit the parts' };
  if (!hazard.meterSafe) {
    const live = hazard.state === 'LIVE';
    const first = hazard.stores.find((s) => s.store.proof && s.state !== 'discharged');
    return {
      attention: 'safe',
      next: live ? 'Isolate every source' : `Prove ${first?.store.refs[0] ?? 'the stores'} discharged`,
    };
  }
  return { attention: 'probe', next: reading ? 'Take the next reading' : 'Take the first reading' };
}
