import { z } from 'zod';
import { pool } from '@/data/pool';
import { jobPulse } from '@/usecases/pulse';
import { answer, refusedWith } from '../../../handle';

const After = z.coerce.number().int().min(0).max(2_000_000_000);

export async function GET(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  const { tag } = await params;
  const after = After.safeParse(new URL(request.url).searchParams.get('after') ?? '0');
  if (!after.success)
    return refusedWith({ code: 'bad-request', sentence: 'There is no such line number.', remedy: 'Reload the page.' });
  return answer(() => jobPulse(pool(), tag, after.data, new Date()));
}
