import { z } from 'zod';
import { pool, withTransaction } from '@/data/pool';
import { updateJobState } from '@/data/job/jobTable';
import { openJob } from '@/usecases/openJob';
import { handleChange } from '../../../handle';

const State = z.strictObject({
  waitingFor: z.string().trim().max(200),
  outcome: z.enum(['open', 'repaired', 'not-worth-repair', 'no-fault-found', 'returned']),
});

export async function POST(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  const { tag } = await params;
  return handleChange(request, State, 5_000, async (state) => {
    const { job } = await openJob(pool(), tag);
    await withTransaction(pool(), (tx) => updateJobState(tx, job.id, state.waitingFor, state.outcome));
    return state;
  });
}
