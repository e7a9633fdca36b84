import { pool } from '@/data/pool';
import { jobJson, readingsCsv } from '@/usecases/exportJob';
import { rawJob } from '@/data/job/jobTable';
import { openJob } from '@/usecases/openJob';
import { answerWith } from '../../../handle';

const file = (body: string, name: string, type: string): Response =>
  new Response(body, {
    headers: { 'content-type': type, 'content-disposition': `attachment; filename="${name}"` },
  });

/** `?as=csv` the readings, `?as=json` the whole job, `?as=raw` every row as it is kept, read or not. Each of one moment. */
export async function GET(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  const { tag } = await params;
  const as = new URL(request.url).searchParams.get('as');
  return answerWith(async () => {
    // What is damaged is not lost.
    if (as === 'raw') return file(await rawJob(pool(), tag), 'job.json', 'application/json');
    const open = await openJob(pool(), tag);
    return as === 'csv'
      ? file(readingsCsv(open), `${open.job.tag}.csv`, 'text/csv; charset=utf-8')
      : file(JSON.stringify(jobJson(open), null, 1), `${open.job.tag}.json`, 'application/json');
  });
}
