import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import type { ReactNode } from 'react';
import { ProblemError } from '@/core/problem';
import { pool } from '@/data/pool';
import { JobProvider } from '@/features/job/JobContext';
import { JobFrame } from '@/features/frame/JobFrame';
import { SuspectsProvider } from '@/features/job/SuspectsContext';
import { liveNow } from '@/usecases/oneLive';
import { asOpened } from '@/usecases/asOpened';
import { openJob } from '@/usecases/openJob';
import type { OpenJob } from '@/usecases/openJob';
import { momentOf } from '@/usecases/pulse';

export const dynamic = 'force-dynamic';

/** Each tab of the browser says which job it shows and at which step. */
export async function generateMetadata({ params }: { params: Promise<{ tag: string }> }): Promise<Metadata> {
  const tag = decoded((await params).tag)
    .toUpperCase()
    .slice(0, 40);
  return { title: { default: tag, template: `%s · ${tag} · Rough Lantern` } };
}

export default async function JobLayout({
  children,
  params,
}: {
  children: ReactNode;
  params: Promise<{ tag: string }>;
}) {
  const { tag } = await params;
  const open = await openOr404(decoded(tag).toUpperCase());
  const moment = momentOf(new Date());
  const live = (await liveNow(pool())).map((job) => ({ tag: job.tag, unit: job.unit, bench: job.bench }));
  return (
    <JobProvider
      key={`${tag} ${open.boards.length}`}
      job={open.job}
      {...asOpened(open, moment)}
      harnesses={open.harnesses}
      lines={open.lines}
      moment={moment}
      live={live}
    >
      <SuspectsProvider>
        <JobFrame>{children}</JobFrame>
      </SuspectsProvider>
    </JobProvider>
  );
}

/** A tag from an address; a broken escape names no job. */
function decoded(tag: string): string {
  try {
    return decodeURIComponent(tag);
  } catch {
    return '';
  }
}

async function openOr404(tag: string): Promise<OpenJob> {
  try {
    return await openJob(pool(), tag);
  } catch (error) {
    if (error instanceof ProblemError && error.problem.code === 'no-such-job') notFound();
    throw error;
  }
}
