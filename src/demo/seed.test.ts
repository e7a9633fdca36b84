import { diagnosticReadings, jobProgress, jobState } from '@/core/job';
import { testDatabase } from '@/data/testDatabase';
import { openBench } from '@/usecases/openJob';
import { momentOf } from '@/usecases/pulse';
import { boardFromJson } from '@/wire/boardCopy';
import { DEMO_JOBS } from './demoJobs';
import { seedDemo } from './seed';

test('the demo is seeded once, its jobs at different steps, with readings of the engine and one cascade', async () => {
  const db = await testDatabase();
  const now = new Date();
  expect(await seedDemo(db.url, now)).toBe(DEMO_JOBS.length);
  expect(await seedDemo(db.url, now)).toBe(0);
  const { jobs } = await openBench(db.pool);
  const where = Object.fromEntries(
    jobs.map(({ job, boards, lines }) => [
      job.tag,
      jobProgress(
        job.sources,
        boards.map((b) => ({ id: b.id, board: boardFromJson(b.content) })),
        lines,
        momentOf(now),
      ).attention,
    ]),
  );
  expect(where).toEqual({
    'SP-115': 'report',
    'SP-118': 'probe',
    'SP-119': 'safe',
    'SP-120': 'safe',
    'SP-121': 'safe',
    'SP-122': 'probe',
  });
  const lamp = jobs.find((j) => j.job.tag === 'SP-118')!;
  expect(diagnosticReadings(lamp.lines, lamp.boards[0]!.id).length).toBeGreaterThan(1);
  expect(DEMO_JOBS.some((d) => d.hidden?.includes('+F1:open'))).toBe(true);
  expect(jobState(jobs.find((j) => j.job.tag === 'SP-115')!.lines)).toMatchObject({
    outcome: 'repaired',
    said: { actor: 'Bench B' },
  });
  await db.close();
}, 120_000);
