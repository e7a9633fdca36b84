import type { Moment } from '@/core/safety';
import { boardIdsOf } from '@/data/board/boardTable';
import { benchMark } from '@/data/job/jobTable';
import { linesAfter } from '@/data/ledger/ledgerTable';
import type { Db } from '@/data/pool';
import { steadyTime } from '@/data/steadyClock';
import type { StoredLine } from '@/wire/ledger';
import { liveNow } from './oneLive';
import { requireJob } from './openJob';

/** What has happened to a job since a window last asked, and what time it is. */
export interface Pulse {
  readonly moment: Moment;
  readonly lines: readonly StoredLine[];
  readonly boardIds: readonly string[];
  readonly live: readonly { readonly tag: string; readonly unit: string; readonly bench: string }[];
}

/** The time by both clocks. */
export function momentOf(now: Date): Moment {
  return { at: now.getTime(), ...steadyTime() };
}

/** The pulse of a job for a window that knows its lines up to a number. Throws ProblemError `no-such-job`. */
export async function jobPulse(db: Db, tag: string, after: number, now: Date): Promise<Pulse> {
  const job = await requireJob(db, tag);
  const [lines, boardIds, live] = [
    await linesAfter(db, job.id, after),
    await boardIdsOf(db, job.id),
    await liveNow(db),
  ];
  return {
    moment: momentOf(now),
    lines,
    boardIds,
    live: live.map(({ tag: other, unit, bench }) => ({ tag: other, unit, bench })),
  };
}

/** A mark that changes with anything that the bench shows. */
export async function benchPulse(db: Db): Promise<{ readonly mark: string }> {
  return { mark: await benchMark(db) };
}
