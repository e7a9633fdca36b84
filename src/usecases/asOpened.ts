import { TracedBoards, jobProgress } from '@/core/job';
import type { JobProgress, TracedJobBoard } from '@/core/job';
import type { Moment } from '@/core/safety';
import { boardFromJson } from '@/wire/boardCopy';
import type { OpenJob } from './openJob';

/** An opened job's boards as its log makes them and how it stands at this moment: what a page shows before it works out anything. */
export function asOpened(
  { job, boards, lines }: OpenJob,
  now: Moment,
): { readonly boards: readonly TracedJobBoard[]; readonly progress: JobProgress } {
  const traced = new TracedBoards();
  const derived = boards.map(({ id, label, damaged, start }) =>
    traced.of({ id, label, damaged, start: boardFromJson(start) }, lines),
  );
  const view = { unit: job.nameplate, broughtIn: job.broughtIn };
  return { boards: derived, progress: jobProgress(job.sources, derived, lines, now, view) };
}
