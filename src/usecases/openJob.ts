import type { Pool } from 'pg';
import { correctedJob, jobState } from '@/core/job';
import { ProblemError } from '@/core/problem';
import { boardsOf, boardsOfJobs } from '@/data/board/boardTable';
import type { StoredBoard } from '@/data/board/boardTable';
import { harnessesOf } from '@/data/harness/harnessTable';
import type { StoredHarness } from '@/data/harness/harnessTable';
import { kindsOf, ledgerOf, ledgersOf } from '@/data/ledger/ledgerTable';
import { allJobs, jobByTag } from '@/data/job/jobTable';
import type { StoredJob } from '@/data/job/jobTable';
import { withSnapshot } from '@/data/pool';
import type { Db } from '@/data/pool';
import type { StoredLine } from '@/wire/ledger';

/** A job with its boards and its log. */
export interface BenchJob {
  readonly job: StoredJob;
  readonly boards: readonly StoredBoard[];
  /** Newest first. */
  readonly lines: readonly StoredLine[];
}

/** Everything a job's screens need. */
export interface OpenJob extends BenchJob {
  readonly harnesses: readonly StoredHarness[];
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
  return withSnapshot(pool, (db) => openInside(db, tag));
}

/** The same within a snapshot that is open already. */
export async function openInside(db: Db, tag: string): Promise<OpenJob> {
  return openOne(db, await requireJob(db, tag));
}

/** Every job on the bench with its boards and log, as of one moment; and the tags of those that cannot be read. */
export async function openBench(
  pool: Pool,
): Promise<{ readonly jobs: readonly BenchJob[]; readonly damaged: readonly string[] }> {
  return withSnapshot(pool, async (db) => {
    const { sound, damaged } = await allJobs(db);
    const ids = sound.map((job) => job.id);
    const [boards, ledgers] = [await boardsOfJobs(db, ids), await ledgersOf(db, ids)];
    const jobs = sound.map((job) => ({
      job,
      boards: boards.get(job.id) ?? [],
      lines: ledgers.get(job.id) ?? [],
    }));
    return { jobs, damaged };
  });
}

/** Every job by what it is called now, newest first, for finding one; archived: it was put away. */
export async function listJobs(
  pool: Pool,
): Promise<
  readonly { readonly tag: string; readonly unit: string; readonly serial: string; readonly archived: boolean }[]
> {
  return withSnapshot(pool, async (db) => {
    const { sound } = await allJobs(db);
    const ids = sound.map((job) => job.id);
    const lines = await kindsOf(db, ids, ['correction', 'job-state']);
    return sound.map((job) => {
      const own = lines.get(job.id) ?? [];
      const { tag, unit, serial } = correctedJob(job, own);
      return { tag, unit, serial, archived: jobState(own).archived };
    });
  });
}

async function openOne(db: Db, job: StoredJob): Promise<OpenJob> {
  return {
    job,
    boards: await boardsOf(db, job.id),
    harnesses: await harnessesOf(db, job.id),
    lines: await ledgerOf(db, job.id),
  };
}
