import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { jobProgress, liveSource } from '@/core/job';
import { readNetlist } from '@/core/netlist';
import { testDatabase } from '@/data/testDatabase';
import { DEMO_JOBS } from '@/demo/demoJobs';
import { seedDemo } from '@/demo/seed';
import { boardFromJson } from '@/wire/boardCopy';
import type { JobArchive } from '@/wire/jobArchive';
import type { LedgerEntry } from '@/wire/ledger';
import { addLine } from './addLine';
import { archiveJob } from './archiveJob';
import { bringIn } from './bringIn';
import { changeBoards } from './changeBoards';
import { jobJson, readingsCsv } from './exportJob';
import { openJob } from './openJob';
import { momentOf } from './pulse';
import { markPhoto, photoOf, photosOfBoard, takePhoto } from './takePhoto';

type Database = Awaited<ReturnType<typeof testDatabase>>;
let here: Database;
let there: Database;
const NOW = new Date('2026-11-28T10:00:00Z');

beforeAll(async () => {
  [here, there] = [await testDatabase(), await testDatabase()];
  await seedDemo(here.url, NOW);
}, 60_000);
afterAll(async () => {
  await here.close();
  await there.close();
});

const codeOf = async (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'done',
    (error: { problem?: { code: string } }) => error.problem?.code ?? String(error),
  );
const jobIn = (zip: Uint8Array): JobArchive => JSON.parse(strFromU8(unzipSync(zip)['job.json']!)) as JobArchive;
/** A zip file like another, its job changed. */
const changed = (zip: Uint8Array, change: (job: JobArchive) => unknown): Uint8Array =>
  zipSync({ ...unzipSync(zip), 'job.json': strToU8(JSON.stringify(change(jobIn(zip)))) });

test('a job with all that a job may hold is the same in another database: its files byte by byte, its report and readings', async () => {
  const tag = 'SP-115';
  const write = (entry: LedgerEntry, boardId: string | null = null, reverses: string | null = null) =>
    addLine(here.pool, tag, { clientKey: randomUUID(), actor: 'Bench B', boardId, entry, reverses }, NOW);
  const [home] = (await openJob(here.pool, tag)).boards;
  const sweep = await write(
    {
      kind: 'sweep',
      body: { title: 'Load', setBy: 'iout', claimed: null, sagLimit: 0.05, efficiency: null, modification: null },
    },
    home!.id,
  );
  await write({ kind: 'sweep-rows', body: { sweep: sweep.id, csv: 'iout,vout\n1,24.1\n2,24\n', count: 2 } }, home!.id);
  const fact = await write({ kind: 'trace', body: { text: 'net OUT+ is VOUT' } }, home!.id);
  await write({ kind: 'reversal', body: { reason: 'misread' } }, home!.id, fact.id);
  await write({ kind: 'correction', body: { serial: 'HL-7' } });
  const picture = await sharp({ create: { width: 600, height: 400, channels: 3, background: '#345' } })
    .png()
    .toBuffer();
  await takePhoto(here.pool, tag, home!.id, 'front', picture, NOW);
  await markPhoto(
    here.pool,
    tag,
    home!.id,
    { kind: 'pin', pinned: { ref: 'C1', pin: null, side: 'front', at: { x: 9, y: 8 } } },
    NOW,
  );
  const panel = {
    kind: 'add',
    actor: 'Bench B',
    label: 'Panel',
    board: { from: 'typical', name: 'buck-module' },
  } as const;
  const added = await changeBoards(here.pool, tag, panel, NOW);
  if (added.kind !== 'add') throw new Error('a board was added');
  const join = {
    kind: 'join',
    actor: 'Bench B',
    fromBoard: home!.id,
    fromPin: 'J1 pin 1',
    toBoard: added.board.id,
    toPin: 'J1 pin 1',
  } as const;
  await changeBoards(here.pool, tag, join, NOW);

  const { zip } = await archiveJob(here.pool, tag, [{ board: 0, svg: '<svg/>' }]);
  await bringIn(there.pool, zip);
  const again = (await archiveJob(there.pool, tag, [{ board: 0, svg: '<svg/>' }])).zip;
  const [one, other] = [unzipSync(zip), unzipSync(again)];
  expect(Object.keys(other)).toEqual(Object.keys(one));
  for (const [name, bytes] of Object.entries(one))
    expect([name, Buffer.from(other[name]!).equals(Buffer.from(bytes))]).toEqual([name, true]);
  expect(Object.keys(one)).toEqual(
    expect.arrayContaining([
      'boards/2-panel.cir',
      'drawings/1-main-board.svg',
      'photos/1-main-board-front-1.webp',
      'sweeps/2-load.csv',
    ]),
  );
  expect(readNetlist(strFromU8(one['boards/1-main-board.cir']!)).ok).toBe(true);
  const [before, after] = [await openJob(here.pool, tag), await openJob(there.pool, tag)];
  expect(jobJson(after)).toEqual(jobJson(before));
  expect(readingsCsv(after)).toBe(readingsCsv(before));
  const { photos, marks } = await photosOfBoard(there.pool, tag, after.boards[0]!.id);
  expect(marks.pinned).toHaveLength(1);
  const kept = await photoOf(there.pool, tag, photos[0]!.id);
  expect(kept.equals(Buffer.from(one['photos/1-main-board-front-1.webp']!))).toBe(true);
}, 60_000);

test.each(DEMO_JOBS.map((d) => d.intake.tag).filter((tag) => tag !== 'SP-115'))(
  'demo job %s: the same elsewhere; what was isolated and proved here is neither there',
  async (tag) => {
    const { zip } = await archiveJob(here.pool, tag);
    const bench = `Bench ${tag}`;
    await bringIn(
      there.pool,
      changed(zip, (a) => ({ ...a, job: { ...a.job, bench } })),
    );
    expect(jobIn((await archiveJob(there.pool, tag)).zip)).toEqual({
      ...jobIn(zip),
      job: { ...jobIn(zip).job, bench },
    });
    const { job, boards, lines } = await openJob(there.pool, tag);
    expect(liveSource(job.sources, lines, job.broughtIn)).not.toBeNull();
    const known = boards.map((b) => ({ id: b.id, board: boardFromJson(b.content), start: boardFromJson(b.start) }));
    const view = { unit: job.nameplate, broughtIn: job.broughtIn };
    expect(jobProgress(job.sources, known, lines, momentOf(NOW), view).hazard.state).toBe('LIVE');
    // Isolated here, it is as good as any; each store is proved anew.
    for (const [i, s] of job.sources.entries()) {
      const entry = { kind: 'isolation', body: { source: s.name, id: s.id ?? `s${i + 1}` } } as const;
      await addLine(
        there.pool,
        tag,
        { clientKey: randomUUID(), actor: bench, boardId: null, entry, reverses: null },
        NOW,
      );
    }
    const isolated = (await openJob(there.pool, tag)).lines;
    expect(liveSource(job.sources, isolated, job.broughtIn)).toBeNull();
    expect(jobProgress(job.sources, known, isolated, momentOf(NOW), view).hazard.meterSafe).toBe(false);
  },
);

test('a file that is none of ours, or was changed by hand, is refused with the reason and leaves nothing', async () => {
  const { zip } = await archiveJob(here.pool, 'SP-118');
  const bad: readonly (readonly [string, Uint8Array])[] = [
    ['bad-archive', strToU8('not a zip')],
    ['bad-archive', zip.subarray(0, zip.length - 400)],
    ['bad-archive', zipSync({ 'other.txt': strToU8('x') })],
    ['bad-archive', changed(zip, () => ({}))],
    ['bad-archive', changed(zip, (a) => ({ ...a, version: 2 }))],
    ['bad-archive', changed(zip, (a) => ({ ...a, lines: a.lines.slice(1) }))],
    ['bad-archive', changed(zip, (a) => ({ ...a, job: { ...a.job, unit: 'a\u0000b' } }))],
    ['bad-archive', changed(zip, (a) => ({ ...a, lines: [{ ...a.lines[0], kind: 'rumour' }] }))],
    ['bad-archive', changed(zip, (a) => ({ ...a, lines: [{ ...a.lines[0], board: 7 }] }))],
    [
      'bad-archive',
      changed(zip, (a) => ({ ...a, photos: [{ file: 'gone.webp', board: 0, side: 'front', at: NOW.toISOString() }] })),
    ],
    [
      'not-a-picture',
      changed(zip, (a) => ({ ...a, photos: [{ file: 'job.json', board: 0, side: 'front', at: NOW.toISOString() }] })),
    ],
  ];
  for (const [i, [code, bytes]] of bad.entries())
    expect([i, await codeOf(bringIn(there.pool, bytes, { tag: 'X-1' }))]).toEqual([i, code]);
  expect(await codeOf(openJob(there.pool, 'X-1'))).toBe('no-such-job');
  // Its tag is on a job already: under another it comes in, beside the first.
  expect(await codeOf(bringIn(here.pool, zip))).toBe('tag-taken');
  expect(
    await codeOf(
      bringIn(
        here.pool,
        changed(zip, (a) => ({ ...a, job: { ...a.job, bench: 'Bench Z' } })),
        { tag: 'X-2' },
      ),
    ),
  ).toBe('done');
});

test('a job of which a board is damaged is not made into a file that looks whole', async () => {
  await here.pool.query(
    `update board set content = content || '{"format": "torn"}' where job_id = (select id from job where tag = 'SP-120')`,
  );
  expect(await codeOf(archiveJob(here.pool, 'SP-120'))).toBe('bad-board');
});
