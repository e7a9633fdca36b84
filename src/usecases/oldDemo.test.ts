import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { randomUUID } from 'node:crypto';
import { jobProgress, jobState, modificationsOf } from '@/core/job';
import { linesOf } from '@/core/ledger';
import { testDatabase } from '@/data/testDatabase';
import { addLine } from '@/usecases/addLine';
import { exportReadings, jobJson, readingsCsv } from '@/usecases/exportJob';
import { openBench, openJob } from '@/usecases/openJob';
import { momentOf } from '@/usecases/pulse';
import { boardFromJson } from '@/wire/boardCopy';

/** The demo jobs as the application kept them three schemas ago: what a bench's database may hold when it is brought up to date. */
const TABLES = [
  'unit',
  'job',
  'board',
  'board_version',
  'ledger_line',
  'fault_call',
  'replacement',
  'photo',
  'photo_marks',
] as const;
const NUMBERED = ['unit', 'job', 'board', 'board_version', 'ledger_line'] as const;

type Rows = Readonly<Record<string, readonly Readonly<Record<string, unknown>>[]>>;
const kept = JSON.parse(
  gunzipSync(readFileSync(join(process.cwd(), 'fixtures', 'old-demo.json.gz'))).toString(),
) as Rows;

let db: Awaited<ReturnType<typeof testDatabase>>;

beforeAll(async () => {
  db = await testDatabase(5);
  for (const table of TABLES)
    await db.pool.query(
      `insert into ${table} overriding system value select * from jsonb_populate_recordset(null::${table}, $1)`,
      [JSON.stringify(kept[table])],
    );
  for (const table of NUMBERED)
    await db.pool.query(`select setval(pg_get_serial_sequence($1, 'id'), (select max(id) from ${table}))`, [table]);
  await db.advance();
});

afterAll(() => db.close());

test('every job of the old demo opens, nothing damaged, nothing lost', async () => {
  const { jobs, damaged } = await openBench(db.pool);
  expect(damaged).toEqual([]);
  expect(jobs.map((j) => j.job.tag).sort()).toEqual(kept['job']!.map((j) => j['tag']).sort());
  for (const { job, boards, lines } of jobs) {
    const id = kept['job']!.find((j) => j['tag'] === job.tag)!['id'];
    const before = kept['ledger_line']!.filter((l) => l['job_id'] === id);
    const said = lines.filter((l) => l.entry.kind === 'job-state').length;
    expect(lines.length).toBe(before.length + said);
    expect(lines.filter((l) => l.entry.kind === 'damaged')).toEqual([]);
    expect(boards.map((b) => b.damaged)).toEqual(boards.map(() => null));
    for (const board of boards) {
      const versions = kept['board_version']!.filter((v) => String(v['board_id']) === board.id);
      const last = versions.reduce((a, b) => (Number(b['version']) > Number(a['version']) ? b : a));
      const parts = (last['content'] as { parts: readonly { ref: string }[] }).parts;
      expect(board.content.parts.map((p) => p.ref)).toEqual(parts.map((p) => p.ref));
    }
  }
});

test('every job’s screens have what they show: steps, hazard, readings with verdicts, repair, changes, sweeps, exports', async () => {
  const now = momentOf(new Date());
  for (const row of kept['job']!) {
    const open = await openJob(db.pool, String(row['tag']));
    const boards = open.boards.map((b) => ({
      id: b.id,
      board: boardFromJson(b.content),
      start: boardFromJson(b.start),
    }));
    const progress = jobProgress(open.job.sources, boards, open.lines, now);
    expect(progress.hazard.state).not.toBe('DISCHARGED');
    expect(jobState(open.lines).outcome).toBe(row['outcome']);
    const readings = linesOf(open.lines, 'reading');
    expect(exportReadings(open).length).toBe(readings.length);
    expect(readingsCsv(open).split('\n').length).toBe(readings.length + 2);
    expect(exportReadings(open).every((r) => r.verdict !== null || r.expected === null)).toBe(true);
    const changes = boards.flatMap((b) => modificationsOf(open.lines, b, []));
    expect(changes.length).toBe(linesOf(open.lines, 'modification').length);
    expect(JSON.stringify(jobJson(open)).length).toBeGreaterThan(1000);
  }
});

test('work goes on in an old job: a line is taken and numbered after the last', async () => {
  const tag = String(kept['job']![0]!['tag']);
  const before = await openJob(db.pool, tag);
  const entry = { kind: 'finding', body: { place: 'F1', words: 'Taken up again.', severity: 'doubt' } } as const;
  const line = { clientKey: randomUUID(), actor: 'Bench A', boardId: null, entry, reverses: null };
  await addLine(db.pool, tag, line, new Date());
  const after = await openJob(db.pool, tag);
  expect(after.lines.length).toBe(before.lines.length + 1);
  expect(after.lines[0]!.seq).toBe(before.lines[0]!.seq + 1);
});
