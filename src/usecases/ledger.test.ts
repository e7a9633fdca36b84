import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { ProblemError } from '@/core/problem';
import { findBoards } from '@/data/board/findBoards';
import { rawJob } from '@/data/job/jobTable';
import { insertLine, ledgerOf } from '@/data/ledger/ledgerTable';
import { withSnapshot, withTransaction } from '@/data/pool';
import { testDatabase } from '@/data/testDatabase';
import { NewLine } from '@/wire/ledger';
import type { LedgerEntry } from '@/wire/ledger';
import { BoardsChange, NewJob } from '@/wire/jobForm';
import { addLine } from './addLine';
import { changeBoards } from './changeBoards';
import { createJob } from './createJob';
import { jobJson, readingsCsv } from './exportJob';
import { liveJobs } from './oneLive';
import { listJobs, openBench, openJob, requireJob } from './openJob';
import { benchPulse, jobPulse } from './pulse';

type Database = Awaited<ReturnType<typeof testDatabase>>;
let db: Database;
let board: string;
let job: string;
const NOW = new Date('2026-11-24T10:00:00Z');

const intake = (tag: string, more: object = {}) =>
  NewJob.parse({
    tag,
    bench: `Bench ${tag}`,
    unit: 'Tidewell PC-5',
    nameplate: { source: 'mains', inputMin: 90, inputMax: 264, outputs: [{ volts: 24, amps: 2, kind: 'dc' }] },
    complaint: 'dead',
    symptoms: ['dead'],
    sources: [{ name: 'Mains lead', kind: 'mains' }],
    board: { from: 'typical', name: 'flyback-opto' },
    ...more,
  });
const line = (entry: LedgerEntry, more: Partial<NewLine> = {}): NewLine => ({
  clientKey: randomUUID(),
  actor: 'Bench A',
  boardId: board,
  entry,
  reverses: null,
  ...more,
});
const note = (words: string): LedgerEntry => ({ kind: 'action', body: { words } });
const codeOf = async (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'done',
    (error: unknown) =>
      error instanceof ProblemError
        ? error.problem.code
        : error instanceof pg.DatabaseError
          ? (error.constraint ?? error.message)
          : String(error),
  );

beforeAll(async () => {
  db = await testDatabase();
  const made = await createJob(db.pool, intake('T-1'), NOW);
  [job, board] = [made.id, made.boardId];
}, 60_000);
afterAll(() => db.close());

test('a job is stored with its unit, board and merged nameplate; a tag is taken once', async () => {
  const open = await openJob(db.pool, 'T-1');
  expect(open.job).toMatchObject({ tag: 'T-1', unit: 'Tidewell PC-5' });
  expect(open.job.nameplate).toMatchObject({ inputRail: 'L', outputs: [{ rail: 'OUT+', volts: 24, amps: 2 }] });
  expect(open.boards).toHaveLength(1);
  expect(await codeOf(createJob(db.pool, intake('T-1', { disconnected: true }), NOW))).toBe('tag-taken');
  expect(await codeOf(openJob(db.pool, 'T-99'))).toBe('no-such-job');
});

test('a bad netlist leaves nothing behind: no job, no unit', async () => {
  const before = await db.pool.query('select count(*) from unit');
  const refused = createJob(db.pool, intake('T-2', { board: { from: 'netlist', text: 'x\nR1 a b' } }), NOW);
  expect(await codeOf(refused)).toBe('bad-netlist');
  expect(await codeOf(createJob(db.pool, intake('T-2', { board: { from: 'json', text: '{}' } }), NOW))).toBe(
    'bad-board',
  );
  expect(await codeOf(openJob(db.pool, 'T-2'))).toBe('no-such-job');
  expect((await db.pool.query('select count(*) from unit')).rows).toEqual(before.rows);
});

test('a job starts from the board of another', async () => {
  await createJob(db.pool, intake('T-3', { board: { from: 'job', tag: 'T-1' } }), NOW);
  const [copy] = (await openJob(db.pool, 'T-3')).boards;
  expect(copy).toMatchObject({ origin: 'copy', upto: 0 });
});

test('a job has several boards, joined by harnesses; each change is a line of its ledger', async () => {
  const { id } = await createJob(db.pool, intake('T-20'), NOW);
  const add = (label: string, choice: object = { from: 'typical', name: 'buck-module' }) =>
    changeBoards(db.pool, 'T-20', BoardsChange.parse({ kind: 'add', actor: 'Bench A', label, board: choice }), NOW);
  const added = await add('Control board');
  expect(added).toMatchObject({ kind: 'add', board: { label: 'Control board', upto: 0 } });
  expect(await codeOf(add('Control board'))).toBe('label-taken');
  expect(await codeOf(add('Third', { from: 'netlist', text: 'x\nR1 a' }))).toBe('bad-netlist');
  const { boards } = await openJob(db.pool, 'T-20');
  expect(boards.map((b) => b.label)).toEqual(['Main board', 'Control board']);
  const [main, control] = boards.map((b) => b.id) as [string, string];
  const join = (fromBoard: string, toBoard: string) =>
    changeBoards(
      db.pool,
      'T-20',
      { kind: 'join', actor: 'Bench A', fromBoard, fromPin: 'J2 pin 1', toBoard, toPin: 'J1 pin 1' },
      NOW,
    );
  await join(main, control);
  expect(await codeOf(join(main, main))).toBe('one-board');
  expect(await codeOf(join(main, board))).toBe('board-gone');
  const open = await openJob(db.pool, 'T-20');
  expect(open.harnesses).toEqual([{ fromBoard: main, fromPin: 'J2 pin 1', toBoard: control, toPin: 'J1 pin 1' }]);
  expect(open.lines.map((l) => (l.entry.kind === 'action' ? l.entry.body.words : ''))).toEqual([
    'harness: Main board J2 pin 1 to Control board J1 pin 1',
    'board added: Control board',
  ]);
  expect(jobJson(open)).toMatchObject({ harnesses: [{ from: { board: 'Main board' }, to: { pin: 'J1 pin 1' } }] });
  expect((await db.pool.query('select count(*)::int as n from board where job_id = $1', [id])).rows).toEqual([
    { n: 2 },
  ]);
});

test('a bench has one live unit at a time; what comes in with nothing connected is isolated by it', async () => {
  const on = (tag: string, more: object = {}) => createJob(db.pool, intake(tag, { bench: 'Bench L', ...more }), NOW);
  await on('T-30');
  expect(await codeOf(on('T-31'))).toBe('bench-live');
  expect(await codeOf(openJob(db.pool, 'T-31'))).toBe('no-such-job');
  await on('T-32', { disconnected: true });
  const { lines } = await openJob(db.pool, 'T-32');
  expect(lines).toMatchObject([{ actor: 'Bench L', entry: { kind: 'isolation', body: { source: 'Mains lead' } } }]);
  expect((await liveJobs(db.pool)).filter((j) => j.bench === 'Bench L').map((j) => j.tag)).toEqual(['T-30']);
  await addLine(db.pool, 'T-30', line({ kind: 'isolation', body: { source: 'Mains lead' } }, { boardId: null }), NOW);
  await on('T-31');
  const undone = (await openJob(db.pool, 'T-30')).lines[0]!;
  const undo = line({ kind: 'reversal', body: { reason: 'the wrong lead' } }, { boardId: null, reverses: undone.id });
  // Two live units on one bench cannot come about by an undo either.
  expect(await codeOf(addLine(db.pool, 'T-30', undo, NOW))).toBe('bench-live');
  expect((await openJob(db.pool, 'T-30')).lines).toHaveLength(1);
  const live = async () => (await liveJobs(db.pool)).filter((j) => j.bench === 'Bench L').map((j) => j.tag);
  expect(await live()).toEqual(['T-31']);
  // An outcome, or closing the job, isolates nothing.
  for (const outcome of ['returned', 'repaired', 'open'] as const) {
    await addLine(
      db.pool,
      'T-31',
      line({ kind: 'job-state', body: { outcome, waitingFor: '', archived: false } }, { boardId: null }),
      NOW,
    );
    expect(await live()).toEqual(['T-31']);
    expect(await codeOf(createJob(db.pool, intake('T-35', { bench: ' bench l ' }), NOW))).toBe('bench-live');
  }
  await addLine(db.pool, 'T-31', line({ kind: 'isolation', body: { source: 'x', id: 's1' } }, { boardId: null }), NOW);
  await addLine(db.pool, 'T-30', undo, NOW);
  expect(await live()).toEqual(['T-30']);
  const both = await Promise.all(
    ['T-33', 'T-34'].map((tag) => codeOf(createJob(db.pool, intake(tag, { bench: 'Bench M' }), NOW))),
  );
  expect([...both].sort()).toEqual(['bench-live', 'done']);
});

test('two sources of one name are two: each is isolated by its own mark', async () => {
  const sources = [
    { name: 'Battery', kind: 'battery' as const },
    { name: 'Battery', kind: 'battery' as const },
  ];
  await createJob(db.pool, intake('T-36', { sources }), NOW);
  const isolate = (id?: string) =>
    addLine(
      db.pool,
      'T-36',
      line({ kind: 'isolation', body: { source: 'Battery', ...(id ? { id } : {}) } }, { boardId: null }),
      NOW,
    );
  const live = async () => (await liveJobs(db.pool)).some((j) => j.tag === 'T-36');
  expect((await openJob(db.pool, 'T-36')).job.sources.map((s) => s.id)).toEqual(['s1', 's2']);
  await isolate();
  await isolate('s2');
  expect(await live()).toBe(true);
  await isolate('s1');
  expect(await live()).toBe(false);
});

test('a line carries the steady clock of this machine, whatever its wall clock says', async () => {
  const made = await createJob(db.pool, intake('T-37'), NOW);
  const write = (now: Date) => addLine(db.pool, 'T-37', line(note('x'), { boardId: made.boardId }), now);
  const [first, second] = [
    await write(new Date('2031-01-01T00:00:00Z')),
    await write(new Date('2026-01-01T00:00:00Z')),
  ];
  expect(second!.at).toBeLessThan(first!.at);
  expect(second!.boot).toBe(first!.boot);
  expect(second!.uptime!).toBeGreaterThanOrEqual(first!.uptime!);
  expect(second!.seq).toBe(first!.seq + 1);
});

test('a window that asks for news gets what it does not know yet; the bench’s mark moves with anything written', async () => {
  const made = await createJob(db.pool, intake('T-38'), NOW);
  const before = await benchPulse(db.pool);
  expect(await benchPulse(db.pool)).toEqual(before);
  const write = (words: string) => addLine(db.pool, 'T-38', line(note(words), { boardId: made.boardId }), NOW);
  for (const words of ['a', 'b', 'c']) await write(words);
  expect((await benchPulse(db.pool)).mark).not.toBe(before.mark);
  const news = await jobPulse(db.pool, 'T-38', 1, NOW);
  expect(news.lines.map((l) => l.seq)).toEqual([2, 3]);
  expect(news.boardIds).toEqual([made.boardId]);
  expect(news.live.map((j) => j.tag)).toContain('T-38');
  expect(news.moment.uptime).toBeGreaterThan(0);
  expect(await codeOf(jobPulse(db.pool, 'T-99', 0, NOW))).toBe('no-such-job');
  const marked = await benchPulse(db.pool);
  // What every window asks for again and again is never older than what was written last.
  const live = async () => (await jobPulse(db.pool, 'T-38', 0, NOW)).live.some((j) => j.tag === 'T-38');
  expect(await live()).toBe(true);
  const isolation: LedgerEntry = { kind: 'isolation', body: { source: 'Mains lead', id: 's1' } };
  const isolated = await addLine(db.pool, 'T-38', line(isolation, { boardId: null }), NOW);
  expect(await live()).toBe(false);
  const undo = line({ kind: 'reversal', body: { reason: '' } }, { boardId: null, reverses: isolated.id });
  await addLine(db.pool, 'T-38', undo, NOW);
  expect(await live()).toBe(true);
  const waits: LedgerEntry = { kind: 'job-state', body: { outcome: 'open', waitingFor: 'a part', archived: false } };
  await addLine(db.pool, 'T-38', line(waits, { boardId: null }), NOW);
  expect((await benchPulse(db.pool)).mark).not.toBe(marked.mark);
});

test('lines are numbered in order and read back newest first, conditions and all', async () => {
  const reading: LedgerEntry = {
    kind: 'reading',
    body: {
      mode: 'diode',
      red: 'SRC',
      black: 'DRAIN',
      seen: { kind: 'figure', value: 0.512 },
      purpose: 'probe',
      placeConfirmed: true,
      conditions: {
        powered: false,
        suppliedBy: '',
        load: '',
        minutesOn: null,
        celsius: 21,
        stimulus: 'tapped',
        settled: 'settled',
      },
    },
  };
  const stored = await addLine(db.pool, 'T-1', line(reading), NOW);
  // Nothing of a typical circuit was seen yet: that the leads were there is not for the sender to say.
  expect(stored.entry).toEqual({ ...reading, body: { ...reading.body, placeConfirmed: false } });
  expect(stored.at).toBe(NOW.getTime());
  const [newest] = await ledgerOf(db.pool, job);
  expect(newest).toEqual(stored);
});

test('two writers at once take turns: forty lines, forty numbers without a gap', async () => {
  const { job: other } = await openJob(db.pool, 'T-3');
  await Promise.all(
    Array.from({ length: 40 }, (_, k) =>
      addLine(db.pool, 'T-3', line(note(`line ${k}`), { boardId: null, actor: k % 2 ? 'Bench A' : 'Bench B' }), NOW),
    ),
  );
  const lines = await ledgerOf(db.pool, other.id);
  expect(lines.map((l) => l.seq)).toEqual(Array.from({ length: 40 }, (_, k) => 40 - k));
  expect(new Set(lines.map((l) => JSON.stringify(l.entry.body))).size).toBe(40);
});

test('the same client key writes once, however often and however many at a time it is sent', async () => {
  const same = line(note('once'));
  const answers = await Promise.all(Array.from({ length: 6 }, () => addLine(db.pool, 'T-1', same, NOW)));
  expect(new Set(answers.map((a) => a.id)).size).toBe(1);
  expect((await ledgerOf(db.pool, job)).filter((l) => JSON.stringify(l.entry).includes('once'))).toHaveLength(1);
});

test('a transaction cut off in the middle leaves no line and no hole', async () => {
  const before = await ledgerOf(db.pool, job);
  const cut = withTransaction(db.pool, async (tx) => {
    await insertLine(tx, job, line(note('never')), NOW);
    const own = await tx.query('select pg_backend_pid() as pid');
    await db.pool.query('select pg_terminate_backend($1)', [(own.rows[0] as { pid: number }).pid]);
    await insertLine(tx, job, line(note('nor this')), NOW);
  });
  await expect(cut).rejects.toThrow();
  expect(await ledgerOf(db.pool, job)).toEqual(before);
  const next = await addLine(db.pool, 'T-1', line(note('after the cut')), NOW);
  expect(next.seq).toBe(before[0]!.seq + 1);
});

test('a failure after the first write rolls all of it back and keeps its cause', async () => {
  const before = await ledgerOf(db.pool, job);
  const failing = withTransaction(db.pool, async (tx) => {
    await insertLine(tx, job, line(note('half')), NOW);
    throw new Error('the cause');
  });
  await expect(failing).rejects.toThrow('the cause');
  expect(await ledgerOf(db.pool, job)).toEqual(before);
});

test('lines are never changed or removed, only undone once by a line of their own', async () => {
  const wrong = await addLine(db.pool, 'T-1', line(note('wrong')), NOW);
  expect(await codeOf(db.pool.query('update ledger_line set actor = $1 where id = $2', ['X', wrong.id]))).toBe(
    'ledger_append_only',
  );
  expect(await codeOf(db.pool.query('delete from ledger_line where id = $1', [wrong.id]))).toBe('ledger_append_only');
  expect(await codeOf(db.pool.query('truncate ledger_line cascade'))).toBe('ledger_append_only');
  const undo: LedgerEntry = { kind: 'reversal', body: { reason: 'slipped' } };
  const undone = await addLine(db.pool, 'T-1', line(undo, { reverses: wrong.id }), NOW);
  expect(undone.reverses).toBe(wrong.id);
  expect(await codeOf(addLine(db.pool, 'T-1', line(undo, { reverses: wrong.id }), NOW))).toBe('already-reversed');
  expect(await codeOf(addLine(db.pool, 'T-1', line(undo, { reverses: undone.id }), NOW))).toBe('reversal-of-reversal');
  const theirs = await addLine(db.pool, 'T-1', line(note('of T-1')), NOW);
  expect(await codeOf(addLine(db.pool, 'T-3', line(undo, { reverses: theirs.id, boardId: null }), NOW))).toBe(
    'line-gone',
  );
});

test('a line that its sender has not heard of yet is undone by the key that it was sent with', async () => {
  const wrong = line(note('on its way'));
  const undo = line({ kind: 'reversal', body: { reason: 'at once' } }, { reverses: wrong.clientKey });
  // Before it arrives there is nothing to undo.
  expect(await codeOf(addLine(db.pool, 'T-1', undo, NOW))).toBe('line-gone');
  const stored = await addLine(db.pool, 'T-1', wrong, NOW);
  expect((await addLine(db.pool, 'T-1', undo, NOW)).reverses).toBe(stored.id);
  const other = line({ kind: 'reversal', body: { reason: '' } }, { reverses: wrong.clientKey, boardId: null });
  expect(await codeOf(addLine(db.pool, 'T-3', other, NOW))).toBe('line-gone');
});

test.each([
  [
    'a reading without a board',
    `insert into ledger_line (job_id, seq, kind, body, actor, at, client_key) values ($1, 9001, 'reading', '{}', 'A', now(), gen_random_uuid())`,
    'ledger_board_where_needed',
  ],
  [
    'an unknown kind',
    `insert into ledger_line (job_id, seq, kind, body, actor, at, client_key) values ($1, 9001, 'gossip', '{}', 'A', now(), gen_random_uuid())`,
    'ledger_kind_known',
  ],
  [
    'a body that is no object',
    `insert into ledger_line (job_id, seq, kind, body, actor, at, client_key) values ($1, 9001, 'action', '[]', 'A', now(), gen_random_uuid())`,
    'ledger_body_object',
  ],
  [
    'a reversal of nothing',
    `insert into ledger_line (job_id, seq, kind, body, actor, at, client_key) values ($1, 9001, 'reversal', '{}', 'A', now(), gen_random_uuid())`,
    'ledger_reversal_names_line',
  ],
  [
    'an outcome that is none',
    `insert into ledger_line (job_id, seq, kind, body, actor, at, client_key) values ($1, 9001, 'job-state', '{"outcome":"fine"}', 'A', now(), gen_random_uuid())`,
    'ledger_outcome_known',
  ],
])('the database itself refuses %s', async (_name, sql, constraint) => {
  expect(await codeOf(db.pool.query(sql, [job]))).toBe(constraint);
});

test('a board of another job cannot be written to', async () => {
  expect(await codeOf(addLine(db.pool, 'T-3', line(note('x')), NOW))).toBe('board-gone');
});

test('a part that is refused is not written, its job’s log goes on', async () => {
  const called = await addLine(db.pool, 'T-1', line({ kind: 'fault', body: { fault: 'C6:short', words: '' } }), NOW);
  const fit = (fitted: object): LedgerEntry => ({
    kind: 'replacement',
    body: {
      ref: 'C6',
      was: '1000uF 35V',
      words: '',
      fitted: { source: 'new', samePart: false, value: 1e-3, lowEsr: true, celsius105: true, ...fitted },
    },
  });
  expect(await codeOf(addLine(db.pool, 'T-1', line(fit({ ratedVolts: 16 })), NOW))).toBe('refused-substitution');
  const fitted = await addLine(db.pool, 'T-1', line(fit({ ratedVolts: 50 })), NOW);
  const { lines } = await openJob(db.pool, 'T-1');
  expect(lines.slice(0, 2).map((l) => l.id)).toEqual([fitted.id, called.id]);
  const fuse: LedgerEntry = {
    kind: 'replacement',
    body: { ref: 'F1', was: '', words: '', fitted: { source: 'salvaged', samePart: true } },
  };
  expect(await codeOf(addLine(db.pool, 'T-1', line(fuse), NOW))).toBe('refused-substitution');
});

test('a tracing fact makes the board another; what it started from stays; undoing it derives the board anew', async () => {
  const trace = (text: string): NewLine => ({ ...line({ kind: 'trace', body: { text } }), boardId: board });
  const written = await Promise.all(
    ['R1 "472" is=4.7k basis=seen', 'R1.1 -- R1.1'].map((t) => addLine(db.pool, 'T-1', trace(t), NOW)),
  );
  const value = async (): Promise<unknown> => {
    const part = (await openJob(db.pool, 'T-1')).boards[0]!.content.parts.find((p) => p.ref === 'R1')!;
    return 'value' in part ? [part.value, part.basis] : null;
  };
  expect(await value()).toEqual([4700, 'seen']);
  const before = (await openJob(db.pool, 'T-1')).boards[0]!;
  await addLine(
    db.pool,
    'T-1',
    { ...line({ kind: 'reversal', body: { reason: 'wrong part' } }), reverses: written[0]!.id },
    NOW,
  );
  const after = await openJob(db.pool, 'T-1');
  expect(after.boards[0]!.upto).toBe(after.lines[0]!.seq);
  expect(after.boards[0]!.start).toEqual(before.start);
  expect(await value()).not.toEqual([4700, 'seen']);
});

test('a line of the shorthand that cannot be read, or names what is not there, is refused and nothing is written', async () => {
  const trace = (text: string): NewLine => ({ ...line({ kind: 'trace', body: { text } }), boardId: board });
  const count = async (): Promise<number> => (await openJob(db.pool, 'T-1')).lines.length;
  const before = await count();
  expect(await codeOf(addLine(db.pool, 'T-1', trace('R7 4k7 ONE'), NOW))).toBe('shorthand');
  expect(await codeOf(addLine(db.pool, 'T-1', trace('# a remark'), NOW))).toBe('shorthand');
  expect(await codeOf(addLine(db.pool, 'T-1', trace('drop R999'), NOW))).toBe('no-such-place');
  expect(await codeOf(addLine(db.pool, 'T-1', { ...trace('drop R1'), boardId: null }, NOW))).not.toBe('done');
  expect(await count()).toBe(before);
});

test('exports hold the readings with what was to be expected', async () => {
  const open = await openJob(db.pool, 'T-1');
  const [header, first] = readingsCsv(open).split('\n');
  expect(header).toBe('at,actor,board,mode,red,black,value,expected,low,high,unit,purpose,verdict,inPlace,source,load');
  expect(first).toMatch(/^2026-11-24T10:00:00\.000Z,Bench A,Main board,diode,SRC,DRAIN,0\.512,0\.\d+,/u);
  expect(jobJson(open)).toMatchObject({
    format: 'rough-lantern-job',
    job: { tag: 'T-1', outcome: 'open' },
    readings: [{ mode: 'diode', value: 0.512, verdict: 'noted', inPlace: '' }],
  });
  expect((await openBench(db.pool)).jobs.map((j) => j.job.tag)).toEqual(expect.arrayContaining(['T-1', 'T-3']));
});

test.each([
  ['a negative value', 'R1 -5k A B'],
  ['a key of 70 letters', `R1 472 A B ${'k'.repeat(70)}=5`],
  ['turns beyond all figures', `T1.S ${'9'.repeat(170)}t A B`],
  ['a pin that no part has', 'U9 KV51 500:VCC'],
  ['a hundred million pins', 'U9 KV51 99999999:VCC'],
  ['an empty marking', 'U9 "" A B C'],
])('a line with %s is refused, and the job and the bench open as before', async (_name, text) => {
  const before = (await openJob(db.pool, 'T-1')).lines.length;
  expect(await codeOf(addLine(db.pool, 'T-1', line({ kind: 'trace', body: { text } }), NOW))).toMatch(
    /^(?:shorthand|no-such-place|bad-board)$/u,
  );
  expect((await openJob(db.pool, 'T-1')).lines).toHaveLength(before);
  expect((await openBench(db.pool)).jobs.length).toBeGreaterThan(0);
});

test('a marking of 400 digits is kept as one that nobody can read, and the job and the bench open', async () => {
  const text = `C2 ${'9'.repeat(400)}k9 A B`;
  expect(await codeOf(addLine(db.pool, 'T-1', line({ kind: 'trace', body: { text } }), NOW))).toBe('done');
  const [main] = (await openJob(db.pool, 'T-1')).boards;
  expect(main!.damaged).toBeNull();
  expect((await openBench(db.pool)).jobs.length).toBeGreaterThan(0);
});

test('what is damaged all the same stands by itself, is told as damaged, and is exported as it is', async () => {
  const made = await createJob(db.pool, intake('T-40'), NOW);
  await db.pool.query(
    `insert into ledger_line (job_id, seq, board_id, kind, body, actor, at, client_key)
     values ($1, 1, $2, 'reading', '{"mode":"smell"}', 'Bench A', now(), gen_random_uuid())`,
    [made.id, made.boardId],
  );
  await db.pool.query('update job set last_seq = 1 where id = $1', [made.id]);
  const open = await openJob(db.pool, 'T-40');
  expect(open.lines[0]!.entry).toEqual({ kind: 'damaged', body: { kind: 'reading', was: { mode: 'smell' } } });
  expect(open.boards[0]!.damaged).toBeNull();
  await db.pool.query(`update board set content = '{"title":"half a board"}' where id = $1`, [made.boardId]);
  const [board2] = (await openJob(db.pool, 'T-40')).boards;
  expect(board2!.damaged).not.toBeNull();
  expect(board2!.content.parts).toEqual([]);
  const bench = await openBench(db.pool);
  expect(bench.jobs.find((j) => j.job.tag === 'T-1')!.boards[0]!.damaged).toBeNull();
  const raw = await rawJob(db.pool, 'T-40');
  expect(raw).toContain('half a board');
  expect(raw).toContain('smell');
  expect(await rawJob(db.pool, "T-40' or '1'='1")).toBe('[]');
  // A job whose own row cannot be read takes nobody else down.
  await db.pool.query(`update job set sources = '[{"name":7}]' where id = $1`, [made.id]);
  const after = await openBench(db.pool);
  expect(after.jobs.some((j) => j.job.tag === 'T-1')).toBe(true);
  expect(after.damaged).toEqual(['T-40']);
});

test('ids beyond what a row can have, and tags that are none, are refused before the database sees them', async () => {
  expect(NewLine.safeParse(line(note('x'), { boardId: '9'.repeat(19) })).success).toBe(false);
  expect(NewLine.safeParse(line(note('x'), { reverses: '1'.repeat(30) })).success).toBe(false);
  for (const tag of ['\0', 'T-1\0', '\ud800', "x' or 1=1", 'constructor', ''])
    expect(await codeOf(openJob(db.pool, tag))).toBe('no-such-job');
});

test('what is opened is of one moment, whatever is written while it is read', async () => {
  await createJob(db.pool, intake('T-50'), NOW);
  const seen = await withSnapshot(db.pool, async (snapshot) => {
    const first = (await ledgerOf(snapshot, (await requireJob(snapshot, 'T-50')).id)).length;
    await addLine(db.pool, 'T-50', line(note('meanwhile'), { boardId: null }), NOW);
    return [first, (await ledgerOf(snapshot, (await requireJob(snapshot, 'T-50')).id)).length];
  });
  expect(seen[1]).toBe(seen[0]);
  expect((await openJob(db.pool, 'T-50')).lines).toHaveLength(seen[0]! + 1);
  // Nothing can be written through it.
  const job50 = (await openJob(db.pool, 'T-50')).job.id;
  await expect(
    withSnapshot(db.pool, (s) => s.query('update job set last_seq = 0 where id = $1', [job50])),
  ).rejects.toThrow(/read-only/u);
});

test('the mark moves with what is committed last, though it was begun first', async () => {
  const [one, two] = await Promise.all(['T-60', 'T-61'].map((tag) => createJob(db.pool, intake(tag), NOW)));
  const write = (jobId: string, wait: Promise<void>) =>
    withTransaction(db.pool, async (tx) => {
      await insertLine(tx, jobId, line(note('x'), { boardId: null }), NOW);
      await wait;
    });
  let release = (): void => undefined;
  const held = new Promise<void>((resolve) => (release = resolve));
  const first = write(one!.id, held);
  await new Promise((resolve) => setTimeout(resolve, 100));
  await write(two!.id, Promise.resolve());
  const between = (await benchPulse(db.pool)).mark;
  release();
  await first;
  expect((await benchPulse(db.pool)).mark).not.toBe(between);
});

test('a correction is a line: the board takes its nameplate, the bench its name, the search finds it; undone, all is back', async () => {
  const made = await createJob(db.pool, intake('T-70'), NOW);
  const { job: before } = await openJob(db.pool, 'T-70');
  const nameplate = { ...before.nameplate, inputMax: 132, outputs: [{ ...before.nameplate.outputs![0]!, volts: 12 }] };
  const body = {
    unit: 'Tidewell PC-9',
    nameplate,
    sources: [...before.sources, { id: 's2', name: 'Panel', kind: 'solar' as const }],
  };
  const stored = await addLine(db.pool, 'T-70', line({ kind: 'correction', body }, { boardId: made.boardId }), NOW);
  const [home] = (await openJob(db.pool, 'T-70')).boards;
  expect(home!.content.nameplate).toMatchObject({ inputMax: 132, outputs: [{ volts: 12, rail: 'OUT+' }] });
  expect(home!.start.nameplate).toMatchObject({ inputMax: 264 });
  expect(await listJobs(db.pool)).toContainEqual({ tag: 'T-70', unit: 'Tidewell PC-9', serial: '', archived: false });
  expect((await findBoards(db.pool, 'PC-9')).map((b) => [b.tag, b.unit])).toEqual([['T-70', 'Tidewell PC-9']]);
  const off = { kind: 'isolation', body: { source: 'Mains lead', id: 's1' } } as const;
  await addLine(db.pool, 'T-70', line(off, { boardId: null }), NOW);
  expect((await liveJobs(db.pool)).map((j) => j.unit)).toContain('Tidewell PC-9');
  const undo = { kind: 'reversal', body: { reason: 'misread' } } as const;
  await addLine(db.pool, 'T-70', line(undo, { boardId: null, reverses: stored.id }), NOW);
  expect((await openJob(db.pool, 'T-70')).boards[0]!.content.nameplate).toMatchObject({ inputMax: 264 });
  // The panel was named: it may be there.
  expect((await liveJobs(db.pool)).find((j) => j.tag === 'T-70')?.unit).toBe('Tidewell PC-5');
  const away = { kind: 'job-state', body: { outcome: 'returned', waitingFor: '', archived: true } } as const;
  await addLine(db.pool, 'T-70', line(away, { boardId: null }), NOW);
  expect((await listJobs(db.pool)).find((j) => j.tag === 'T-70')?.archived).toBe(true);
});
