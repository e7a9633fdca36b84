import { pool } from '@/data/pool';
import { jobJson, readingsCsv } from '@/usecases/exportJob';
import { rawJob } from '@/data/job/jobTable';
import { openJob } from '@/usecases/openJob';
import { ProblemError } from '@/core/problem';
import { refusedWith } from '../../../handle';

/** Every row of a job as the database holds it, read or not: what is damaged is not lost. */
async function raw(tag: string): Promise<Response> {
  return new Response(await rawJob(pool(), tag), {
    headers: { 'content-type': 'application/json', 'content-disposition': 'attachment; filename="job.json"' },
  });
}

/** `?as=csv` the readings, `?as=json` the whole job. */
export async function GET(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  const { tag } = await params;
  const asked = new URL(request.url).searchParams.get('as');
  if (asked === 'raw') return raw(tag);
  const as = asked === 'csv' ? 'csv' : 'json';
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
