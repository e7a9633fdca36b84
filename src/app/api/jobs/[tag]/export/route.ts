import { z } from 'zod';
import { pool } from '@/data/pool';
import { jobJson, readingsCsv } from '@/usecases/exportJob';
import { rawJob } from '@/data/job/jobTable';
import { openJob } from '@/usecases/openJob';
import { archiveJob } from '@/usecases/archiveJob';
import type { BoardDrawing } from '@/usecases/archiveJob';
import { answerWith, handleRequest } from '../../../handle';

const Drawings = z.strictObject({
  drawings: z
    .array(z.strictObject({ board: z.number().int().min(0).max(99), svg: z.string().max(3_000_000) }))
    .max(100),
});
const MOST_BYTES = 20_000_000;

const file = (body: string | Uint8Array<ArrayBuffer>, name: string, type: string): Response =>
  new Response(body, {
    headers: { 'content-type': type, 'content-disposition': `attachment; filename="${name}"` },
  });

/** `?as=csv` the readings, `?as=json` the whole job, `?as=zip` all of it with boards and photographs, `?as=raw` every row as it is kept, read or not. Each of one moment. */
export async function GET(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  const { tag } = await params;
  const as = new URL(request.url).searchParams.get('as');
  return answerWith(async () => {
    // What is damaged is not lost.
    if (as === 'raw') return file(await rawJob(pool(), tag), 'job.json', 'application/json');
    if (as === 'zip') return zipped(tag);
    const open = await openJob(pool(), tag);
    return as === 'csv'
      ? file(readingsCsv(open), `${open.job.tag}.csv`, 'text/csv; charset=utf-8')
      : file(JSON.stringify(jobJson(open), null, 1), `${open.job.tag}.json`, 'application/json');
  });
}

/** The whole job as a zip file, with the drawings that the page has made of its boards. */
export async function POST(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  const { tag } = await params;
  return handleRequest(request, Drawings, MOST_BYTES, ({ drawings }) => zipped(tag, drawings));
}

async function zipped(tag: string, drawings: readonly BoardDrawing[] = []): Promise<Response> {
  const made = await archiveJob(pool(), tag, drawings);
  return file(made.zip, `${made.tag}.zip`, 'application/zip');
}
