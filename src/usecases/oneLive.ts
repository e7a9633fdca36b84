import { correctedJob, liveSource } from '@/core/job';
import { ProblemError } from '@/core/problem';
import { allJobs, benchMark } from '@/data/job/jobTable';
import type { StoredJob } from '@/data/job/jobTable';
import { kindsOf } from '@/data/ledger/ledgerTable';
import { lockFor } from '@/data/pool';
import type { Db, Tx } from '@/data/pool';

/** The jobs with a source of energy that nobody has isolated yet, whatever their outcome says. */
export async function liveJobs(db: Db): Promise<readonly StoredJob[]> {
  const { sound: jobs } = await allJobs(db);
  const ids = jobs.map((job) => job.id);
  const lines = await kindsOf(db, ids, ['isolation', 'powered-reading', 'correction']);
  return jobs.flatMap((job) => {
    const own = lines.get(job.id) ?? [];
    return liveSource(job.sources, own, job.broughtIn) === null ? [] : [correctedJob(job, own)];
  });
}

const known = new WeakMap<Db, { readonly mark: string; readonly live: readonly StoredJob[] }>();

/** The live jobs as every window asks for them again and again: worked out anew once anything has been written. */
export async function liveNow(db: Db): Promise<readonly StoredJob[]> {
  const mark = await benchMark(db);
  const before = known.get(db);
  if (before?.mark === mark) return before.live;
  const live = await liveJobs(db);
  known.set(db, { mark, live });
  return live;
}

/**
 * Only one unit of a bench may be live: refuses a second, whether it comes in connected or its isolation is undone.
 *
 * own: the job that is about to be live; it does not stand in its own way. Two at once on one bench take turns.
 * Throws ProblemError `bench-live`.
 */
export async function refuseSecondLive(tx: Tx, bench: string, own: string | null, remedy: string): Promise<void> {
  const key = bench.trim().toLowerCase();
  await lockFor(tx, `bench ${key}`);
  const live = (await liveJobs(tx)).find((job) => job.id !== own && job.bench.trim().toLowerCase() === key);
  if (live)
    throw new ProblemError({
      code: 'bench-live',
      sentence: `${live.tag}, ${live.unit}, is still LIVE on ${live.bench}.`,
      remedy,
    });
}
