import type { Pool } from 'pg';
import { ProblemError } from '@/core/problem';
import { boardsOf, startsOf } from '@/data/board/boardTable';
import type { StoredBoard } from '@/data/board/boardTable';
import { harnessesOf } from '@/data/harness/harnessTable';
import type { StoredHarness } from '@/data/harness/harnessTable';
import { ledgerOf } from '@/data/ledger/ledgerTable';
import { allJobs, jobByTag } from '@/data/job/jobTable';
import type { StoredJob } from '@/data/job/jobTable';
import { withSnapshot } from '@/data/pool';
import type { Db } from '@/data/pool';
import type { BoardJson } from '@/wire/boardJson';
import type { StoredLine } from '@/wire/ledger';

/** Everything a job's screens need. */
export interface OpenJob {
  readonly job: StoredJob;
  readonly boards: readonly StoredBoard[];
  /** What each board was before any tracing fact, by board id. */
  readonly starts: Readonly<Record<string, BoardJson>>;
  readonly harnesses: readonly StoredHarness[];
  readonly lines: readonly StoredLine[];
}

/** The job with this tag. Throws ProblemError `no-such-job`. */
export async function requireJob(db: Db, tag: string): Promise<StoredJob> {
  const job = await jobByTag(db, tag);
  if (job) return job;
  throw new ProblemError({
    code: 'no-such-job',
    sentence: `There is no job ${tag}.`,
    remedy: 'Nothing was written. Go back to the bench.',
  });
}

/** Opens a job by its tag, all of it as of one moment. Throws ProblemError `no-such-job`. */
export async function openJob(pool: Pool, tag: string): Promise<OpenJob> {
  return withSnapshot(pool, async (db) => openOne(db, await requireJob(db, tag)));
}

/** Every job on the bench with its boards and ledger, as of one moment; and the tags of those that cannot be read. */
export async function openBench(
  pool: Pool,
): Promise<{ readonly jobs: readonly OpenJob[]; readonly damaged: readonly string[] }> {
  return withSnapshot(pool, async (db) => {
    const { sound, damaged } = await allJobs(db);
    const jobs: OpenJob[] = [];
    for (const job of sound) jobs.push(await openOne(db, job));
    return { jobs, damaged };
  });
}

async function openOne(db: Db, job: StoredJob): Promise<OpenJob> {
  return {
    job,
    boards: await boardsOf(db, job.id),
    starts: Object.fromEntries(await startsOf(db, job.id)),
    harnesses: await harnessesOf(db, job.id),
    lines: await ledgerOf(db, job.id),
  };
}
