import { STEP_NAMES, correctedJob, jobProgress, jobState } from '@/core/job';
import { pool } from '@/data/pool';
import { BenchScreen } from '@/features/bench/BenchScreen';
import type { BenchRow } from '@/features/bench/benchRow';
import { openBench } from '@/usecases/openJob';
import { timeWords } from '@/ui/when';
import { momentOf } from '@/usecases/pulse';
import { boardFromJson } from '@/wire/boardCopy';
import type { Hazard } from '@/core/safety';
import { settingsNow } from '../settingsNow';

export const dynamic = 'force-dynamic';

export default async function BenchPage() {
  const now = momentOf(new Date());
  const { zone } = await settingsNow();
  const { jobs, damaged } = await openBench(pool());
  const unreadable = damaged.map((tag) => damagedRow(tag, ''));
  const rows = jobs.map(({ job: takenIn, boards, lines }): BenchRow => {
    const job = correctedJob(takenIn, lines);
    if (boards.some((b) => b.damaged !== null)) return damagedRow(job.tag, job.unit, job.bench);
    const progress = jobProgress(
      takenIn.sources,
      boards.map((b) => ({ id: b.id, board: boardFromJson(b.content), start: boardFromJson(b.start) })),
      lines,
      now,
      { unit: takenIn.nameplate, broughtIn: takenIn.broughtIn },
    );
    const state = jobState(lines);
    const last = lines[0]?.at ?? job.createdAt;
    return {
      tag: job.tag,
      bench: job.bench,
      unit: job.unit,
      step: STEP_NAMES[progress.attention],
      stepPath: progress.attention,
      hazard: progress.hazard.state,
      minutesLeft: minutesLeft(progress.hazard),
      waitingFor: state.waitingFor,
      next: progress.next,
      last: timeWords(last, zone),
      done: state.outcome !== 'open',
      archived: state.archived && progress.hazard.state !== 'LIVE',
    };
  });
  return <BenchScreen rows={[...rows, ...unreadable].sort((a, b) => Number(a.done) - Number(b.done))} />;
}

/** A job of which something cannot be read: it stands on its own row and hurts no other. */
function damagedRow(tag: string, unit: string, bench = ''): BenchRow {
  return {
    tag,
    bench,
    unit: unit || 'This job cannot be read',
    step: 'Damaged',
    stepPath: 'safe',
    hazard: 'NOT PROVED',
    minutesLeft: null,
    waitingFor: '',
    next: 'Kept as it is: export it',
    last: '',
    done: false,
    archived: false,
    damaged: true,
  };
}

/** Until the first proof runs out: then this page is out of date. */
function minutesLeft({ stores }: Hazard): number | null {
  const left = stores.flatMap((s) => s.minutesLeft ?? []).filter((m) => m > 0);
  return left.length > 0 ? Math.min(...left) : null;
}
