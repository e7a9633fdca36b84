import { allJobs } from '@/data/job/jobTable';
import { pool } from '@/data/pool';
import { createJob } from '@/usecases/createJob';
import { NewJob } from '@/wire/jobForm';
import { answer, handleChange } from '../handle';

/** The jobs by what is printed on them, for finding one. */
export function GET() {
  return answer(async () => ({
    jobs: (await allJobs(pool())).sound.map(({ tag, unit, serial }) => ({ tag, unit, serial })),
  }));
}

export async function POST(request: Request) {
  return handleChange(request, NewJob, 6_000_000, async (job) => ({
    tag: (await createJob(pool(), job, new Date())).tag,
  }));
}
