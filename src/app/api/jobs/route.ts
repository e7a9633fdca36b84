import { pool } from '@/data/pool';
import { createJob } from '@/usecases/createJob';
import { NewJob } from '@/wire/jobForm';
import { handleChange } from '../handle';

export async function POST(request: Request) {
  return handleChange(request, NewJob, 6_000_000, async (job) => ({
    tag: (await createJob(pool(), job, new Date())).tag,
  }));
}
