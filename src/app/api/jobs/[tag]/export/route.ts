import { pool } from '@/data/pool';
import { jobJson, readingsCsv } from '@/usecases/exportJob';
import { openJob } from '@/usecases/openJob';
import { ProblemError } from '@/core/problem';
import { refusedWith } from '../../../handle';

/** `?as=csv` the readings, `?as=json` the whole job. */
export async function GET(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  const { tag } = await params;
  const as = new URL(request.url).searchParams.get('as') === 'csv' ? 'csv' : 'json';
  try {
    const open = await openJob(pool(), tag);
    const body = as === 'csv' ? readingsCsv(open) : JSON.stringify(jobJson(open), null, 1);
    return new Response(body, {
      headers: {
        'content-type': as === 'csv' ? 'text/csv; charset=utf-8' : 'application/json',
        'content-disposition': `attachment; filename="${open.job.tag}.${as}"`,
      },
    });
  } catch (error) {
    if (error instanceof ProblemError) return refusedWith(error.problem);
    throw error;
  }
}
