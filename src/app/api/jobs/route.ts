import { pool } from '@/data/pool';
import { createJob } from '@/usecases/createJob';
import { listJobs } from '@/usecases/openJob';
import { NewJob } from '@/wire/jobForm';
import { answer, handleChange } from '../handle';

/** The jobs by what is printed on them, for finding one. */
export function GET() {
  return answer(async () => ({ jobs: await listJobs(pool()) }));
}

export async function POST(request: Request) {
  return handleChange(request, NewJob, 6_000_000, async (job) => ({
    tag: (await createJob(pool(), job, new Date())).tag,
  }));
}
