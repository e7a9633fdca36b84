import { z } from 'zod';
import { pool } from '@/data/pool';
import { bringIn } from '@/usecases/bringIn';
import { JOB_TAG } from '@/wire/ids';
import { handleUpload } from '../../handle';

const Where = z.strictObject({
  tag: z.string().trim().toUpperCase().regex(JOB_TAG).optional(),
  bench: z.string().trim().min(1).max(60).optional(),
});
const MOST_BYTES = 64_000_000;

/** A whole job's zip file as the body; `?tag=`, `&bench=` others than those in it. */
export async function POST(request: Request) {
  const { searchParams } = new URL(request.url);
  return handleUpload(request, Where, Object.fromEntries(searchParams), MOST_BYTES, (where, bytes) =>
    bringIn(pool(), bytes, where),
  );
}
