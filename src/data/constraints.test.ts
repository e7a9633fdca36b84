import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { testDatabase } from './testDatabase';

/** The rules of the ledger hold in the database itself, whatever code writes to it. */
let db: Awaited<ReturnType<typeof testDatabase>>;
let job: string;
let other: string;
let board: string;
let otherBoard: string;

async function one(sql: string, values: readonly unknown[] = []): Promise<string> {
  const { rows } = await db.pool.query<{ id: string }>(sql, [...values]);
  return rows[0]!.id;
}

/** The name of the constraint that refuses a statement, or `done`. */
async function refusedBy(sql: string, values: readonly unknown[] = []): Promise<string> {
  try {
    await db.pool.query(sql, [...values]);
    return 'done';
  } catch (error) {
    if (!(error instanceof pg.DatabaseError)) throw error;
    return error.constraint ?? error.message;
  }
}

async function makeJob(tag: string): Promise<string> {
  const unit = await one(`insert into unit (name, nameplate) values ('U', '{}') returning id`);
  return one(
    `insert into job (tag, unit_id, sources, created_at, bench) values ($1, $2, '[{"name":"m","kind":"mains"}]', now(), 'Bench A') returning id`,
    [tag, unit],
  );
}

const BOARD = `insert into board (job_id, label, origin, start, content) values ($1, $2, 'empty', '{}', '{}')`;
const LINE = `insert into ledger_line (job_id, seq, board_id, kind, body, actor, at, reverses, client_key)
  values ($1, $2, $3, $4, $5, $6, now(), $7, $8) returning id`;
let seq = 0;
const line = (
  more: Partial<{
    job: string;
    seq: number;
    board: string | null;
    kind: string;
    body: string;
    actor: string;
    reverses: string | null;
    key: string;
  }> = {},
): readonly unknown[] => [
  more.job ?? job,
  more.seq ?? ++seq,
  more.board === undefined ? null : more.board,
  more.kind ?? 'action',
  more.body ?? '{"words":"x"}',
  more.actor ?? 'Bench A',
  more.reverses ?? null,
  more.key ?? randomUUID(),
];

beforeAll(async () => {
  db = await testDatabase();
  job = await makeJob('C-1');
  other = await makeJob('C-2');
  const insert = `${BOARD} returning id`;
  board = await one(insert, [job, 'Main board']);
  otherBoard = await one(insert, [other, 'Main board']);
}, 60_000);
afterAll(() => db.close());

test('a line once written is never changed, removed or truncated away', async () => {
  const id = await one(LINE, line());
  expect(await refusedBy(`update ledger_line set actor = 'Bench B' where id = $1`, [id])).toBe('ledger_append_only');
  expect(await refusedBy('delete from ledger_line where id = $1', [id])).toBe('ledger_append_only');
  expect(await refusedBy('truncate ledger_line cascade')).toBe('ledger_append_only');
  const { rows } = await db.pool.query('select actor from ledger_line where id = $1', [id]);
  expect(rows).toEqual([{ actor: 'Bench A' }]);
});

test.each([
  ['a kind nobody knows', { kind: 'gossip' }, 'ledger_kind_known'],
  ['nobody as its writer', { actor: '  ' }, 'ledger_actor_filled'],
  ['a body that is no object', { body: '[1]' }, 'ledger_body_object'],
  ['a reading without its board', { kind: 'reading' }, 'ledger_board_where_needed'],
  ['a proof without its board', { kind: 'discharge-proof' }, 'ledger_board_where_needed'],
  ['a fault without its board', { kind: 'fault' }, 'ledger_board_where_needed'],
  ['a reversal of nothing', { kind: 'reversal' }, 'ledger_reversal_names_line'],
  ['a job that is not there', { job: '999999' }, 'ledger_job_fkey'],
])('a line with %s is refused', async (_name, more, constraint) => {
  expect(await refusedBy(LINE, line(more))).toBe(constraint);
});

test('a line belongs to a board of its own job', async () => {
  expect(await refusedBy(LINE, line({ kind: 'reading', board }))).toBe('done');
  expect(await refusedBy(LINE, line({ kind: 'reading', board: otherBoard }))).toBe('ledger_board_fkey');
});

test('numbers and client keys stand once in a job', async () => {
  const key = randomUUID();
  const at = ++seq;
  expect(await refusedBy(LINE, line({ seq: at, key }))).toBe('done');
  expect(await refusedBy(LINE, line({ seq: at }))).toBe('ledger_seq_key');
  expect(await refusedBy(LINE, line({ key }))).toBe('ledger_client_key');
  expect(await refusedBy(LINE, line({ job: other, seq: at, key }))).toBe('done');
});

test('a line is reversed once, by a line of the same job, and a reversal never', async () => {
  const first = await one(LINE, line());
  const reversal = { kind: 'reversal', reverses: first };
  const undo = await one(LINE, line(reversal));
  expect(await refusedBy(LINE, line(reversal))).toBe('ledger_reversed_once');
  expect(await refusedBy(LINE, line({ kind: 'reversal', reverses: undo }))).toBe('ledger_reversal_of_reversal');
  const foreign = await one(LINE, line({ job: other }));
  expect(await refusedBy(LINE, line({ kind: 'reversal', reverses: foreign }))).toBe('ledger_reverses_fkey');
  expect(await refusedBy(LINE, line({ kind: 'action', reverses: foreign }))).toBe('ledger_reversal_names_line');
});

test.each([
  ['lower-case tag', `update job set tag = 'c-9' where tag = 'C-1'`, 'job_tag_shape'],
  ['tag of another job', `update job set tag = 'C-2' where tag = 'C-1'`, 'job_tag_key'],
  ['no source of energy', `update job set sources = '[]' where tag = 'C-1'`, 'job_sources_list'],
  ['no bench', `update job set bench = ' ' where tag = 'C-1'`, 'job_bench_filled'],
  ['unit without a name', `insert into unit (name, nameplate) values (' ', '{}')`, 'unit_name_filled'],
  ['nameplate that is no object', `insert into unit (name, nameplate) values ('U', '7')`, 'unit_nameplate_object'],
])('a job with a %s is refused', async (_name, sql, constraint) => expect(await refusedBy(sql)).toBe(constraint));

test('a board says what it started from, and how much of the log is in it', async () => {
  const sql = (origin: string, upto: number, start: string): string =>
    `insert into board (job_id, label, origin, upto, start, content) values (${job}, 'B ${origin} ${upto}', '${origin}', ${upto}, ${start}, '{}')`;
  expect(await refusedBy(sql('netlist', 3, `'{}'`))).toBe('done');
  expect(await refusedBy(sql('guess', 3, `'{}'`))).toBe('board_origin_known');
  expect(await refusedBy(sql('netlist', -1, `'{}'`))).toBe('board_upto_counts');
  expect(await refusedBy(sql('json', 3, 'null'))).toMatch(/null value in column "start"/u);
});

test('a harness joins two boards of one job', async () => {
  const second = await one(`${BOARD} returning id`, [job, 'Second']);
  const sql = `insert into harness (job_id, from_board, from_pin, to_board, to_pin) values ($1, $2, 'J1 pin 1', $3, 'J2 pin 1')`;
  expect(await refusedBy(sql, [job, board, second])).toBe('done');
  expect(await refusedBy(sql, [job, board, board])).toBe('harness_two_boards');
  expect(await refusedBy(sql, [job, board, otherBoard])).toBe('harness_to_fkey');
  // Noted once, whichever end comes first and however it is written.
  expect(await refusedBy(sql, [job, board, second])).toBe('harness_once');
  const other = sql.replace("'J1 pin 1'", "'j2 PIN 1'").replace("$3, 'J2 pin 1'", "$3, 'j1 pin 1'");
  expect(await refusedBy(other, [job, second, board])).toBe('harness_once');
  expect(await refusedBy(BOARD, [job, 'Second'])).toBe('board_label_key');
});

test('an outcome from before it was a line becomes one, of nobody that is known; a job that is open needs none', async () => {
  const old = await testDatabase(5);
  await old.pool.query(
    `with u as (insert into unit (name, nameplate) values ('U', '{}') returning id)
     insert into job (tag, unit_id, sources, created_at, bench, outcome, waiting_for, last_seq)
     select v.*, 'Bench A', o.outcome, o.waiting, 7 from u,
       (values ('A', 'repaired', ''), ('B', 'open', 'a coil'), ('C', 'open', '')) o(tag, outcome, waiting),
       lateral (select o.tag, u.id, '[{"name":"m","kind":"mains"}]'::jsonb, now()) v`,
  );
  await old.advance();
  const { rows } = await old.pool.query(
    'select j.tag, l.seq, l.kind, l.body, l.actor, j.last_seq from job j left join ledger_line l on l.job_id = j.id order by tag',
  );
  const said = { seq: 8, kind: 'job-state', actor: 'not noted', last_seq: 8 };
  expect(rows).toEqual([
    { tag: 'A', ...said, body: { outcome: 'repaired', waitingFor: '' } },
    { tag: 'B', ...said, body: { outcome: 'open', waitingFor: 'a coil' } },
    { tag: 'C', seq: null, kind: null, body: null, actor: null, last_seq: 7 },
  ]);
  await old.close();
});

test('boards of the time when every fact made a version migrate: what they started from, what they are, each wire once', async () => {
  const old = await testDatabase(6);
  const ids = async (sql: string): Promise<readonly string[]> =>
    (await old.pool.query<{ id: string }>(sql)).rows.map((r) => r.id);
  const [unit] = await ids(`insert into unit (name, nameplate) values ('U', '{}') returning id`);
  const [jobId] = await ids(
    `insert into job (tag, unit_id, sources, created_at, bench, last_seq)
     values ('OLD', ${unit}, '[{"name":"m","kind":"mains"}]', now(), 'Bench A', 9) returning id`,
  );
  const [first, second] = await ids(
    `insert into board (job_id, label) values (${jobId}, 'Main'), (${jobId}, 'Panel') returning id`,
  );
  const version = (b: string, n: number, origin: string): string =>
    `(${b}, ${n}, '${origin}', '{"title":"${origin} ${n}"}', now())`;
  await old.pool.query(
    `insert into board_version (board_id, version, origin, content, created_at) values ${[
      version(first!, 1, 'netlist'),
      version(first!, 2, 'trace'),
      version(first!, 3, 'replacement'),
      version(second!, 1, 'empty'),
    ].join()}`,
  );
  const wire = (a: string, p: string, b: string, q: string): string => `(${jobId}, ${a}, '${p}', ${b}, '${q}')`;
  await old.pool.query(
    `insert into harness (job_id, from_board, from_pin, to_board, to_pin) values ${[
      wire(first!, 'J1.1', second!, 'J2.1'),
      wire(second!, 'j2.1', first!, 'J1.1'),
      wire(first!, 'J1.2', second!, 'J2.1'),
    ].join()}`,
  );
  await old.advance();
  const { rows } = await old.pool.query(
    `select label, origin, start->>'title' as start, content->>'title' as content, upto from board order by id`,
  );
  expect(rows).toEqual([
    { label: 'Main', origin: 'netlist', start: 'netlist 1', content: 'replacement 3', upto: 9 },
    { label: 'Panel', origin: 'empty', start: 'empty 1', content: 'empty 1', upto: 9 },
  ]);
  expect((await old.pool.query('select 1 from harness')).rows).toHaveLength(2);
  await old.close();
});
