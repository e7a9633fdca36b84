import { STEP_NAMES, jobProgress } from '@/core/job';
import { pool } from '@/data/pool';
import { BenchScreen } from '@/features/bench/BenchScreen';
import { openBench } from '@/usecases/openJob';
import { boardFromJson } from '@/wire/boardJson';

export const dynamic = 'force-dynamic';

export default async function BenchPage() {
  const now = new Date().getTime();
  const jobs = await openBench(pool());
  const rows = jobs.map(({ job, boards, lines }) => {
    const progress = jobProgress(
      job.sources,
      boards.map((b) => ({ id: b.id, board: boardFromJson(b.content) })),
      lines,
      job.outcome,
      now,
    );
    const last = lines[0]?.at ?? job.createdAt;
    return {
      tag: job.tag,
      bench: job.bench,
      unit: job.unit,
      step: STEP_NAMES[progress.attention],
      stepPath: progress.attention,
      hazard: progress.hazard.state,
      waitingFor: job.waitingFor,
      next: progress.next,
      last: new Date(last).toISOString().slice(0, 16).replace('T', ' '),
      done: job.outcome !== 'open',
    };
  });
  return <BenchScreen rows={[...rows].sort((a, b) => Number(a.done) - Number(b.done))} />;
}
