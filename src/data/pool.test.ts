import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { z } from 'zod';
import { ProblemError } from '@/core/problem';
import { withTransaction } from './pool';
import { manyRows, maybeRow, oneRow, refusals } from './rows';
import { testDatabase } from './testDatabase';

const LOG = join(mkdtempSync(join(tmpdir(), 'log-')), 'application.log');
process.env['LANTERN_LOG'] = LOG;

let db: Awaited<ReturnType<typeof testDatabase>>;
beforeAll(async () => {
  db = await testDatabase();
  await db.pool.query('create table note (id integer constraint note_once primary key, words text not null)');
}, 60_000);
afterAll(() => db.close());
beforeEach(() => db.pool.query('delete from note'));

const count = async (): Promise<number> =>
  Number((await db.pool.query<{ n: string }>('select count(*) as n from note')).rows[0]!.n);
const put = 'insert into note (id, words) values ($1, $2)';

test('what a transaction did is there after it, and its answer comes back', async () => {
  const got = await withTransaction(db.pool, async (tx) => {
    await tx.query(put, [1, 'a']);
    await tx.query(put, [2, 'b']);
    return 'done';
  });
  expect(got).toBe('done');
  expect(await count()).toBe(2);
});

test('an error anywhere takes everything back, and is the error that is told', async () => {
  const work = withTransaction(db.pool, async (tx) => {
    await tx.query(put, [1, 'a']);
    throw new Error('in the middle');
  });
  await expect(work).rejects.toThrow('in the middle');
  expect(await count()).toBe(0);
});

test('a refusal of the database takes everything back as well', async () => {
  const work = withTransaction(db.pool, async (tx) => {
    await tx.query(put, [1, 'a']);
    await tx.query(put, [1, 'again']);
  });
  await expect(work).rejects.toMatchObject({ constraint: 'note_once' });
  expect(await count()).toBe(0);
});

test('nothing of an open transaction is seen from outside', async () => {
  await withTransaction(db.pool, async (tx) => {
    await tx.query(put, [1, 'a']);
    expect(await count()).toBe(0);
  });
  expect(await count()).toBe(1);
});

test('a connection cut in the middle fails its own work, and the pool goes on', async () => {
  const work = withTransaction(db.pool, async (tx) => {
    await tx.query(put, [1, 'a']);
    const { rows } = await tx.query('select pg_backend_pid() as pid', []);
    await db.pool.query('select pg_terminate_backend($1)', [(rows[0] as { pid: number }).pid]);
    await new Promise((resolve) => setTimeout(resolve, 50));
    await tx.query(put, [2, 'b']);
  });
  await expect(work).rejects.toThrow();
  expect(await count()).toBe(0);
  await withTransaction(db.pool, (tx) => tx.query(put, [3, 'c']));
  expect(await count()).toBe(1);
});

test('ten at once each keep their own', async () => {
  const done = await Promise.allSettled(
    Array.from({ length: 10 }, (_, i) =>
      withTransaction(db.pool, async (tx) => {
        await tx.query(put, [i, 'x']);
        if (i % 3 === 0) throw new Error('no');
      }),
    ),
  );
  expect(done.filter((d) => d.status === 'fulfilled')).toHaveLength(6);
  expect(await count()).toBe(6);
});

const Row = z.strictObject({ id: z.number() });

test('a connection lost while nobody used it is written down with its cause, and the next query works', async () => {
  const [first, second] = [await db.pool.connect(), await db.pool.connect()];
  const { rows } = await first.query<{ pid: number }>('select pg_backend_pid() as pid');
  first.release();
  await new Promise((resolve) => setTimeout(resolve, 20));
  await second.query('select pg_terminate_backend($1)', [rows[0]!.pid]);
  second.release();
  await new Promise((resolve) => setTimeout(resolve, 100));
  expect((await db.pool.query('select 1 as one')).rows).toEqual([{ one: 1 }]);
  const written = readFileSync(LOG, 'utf8').trim().split('\n').at(-1)!;
  expect(JSON.parse(written)).toMatchObject({
    msg: 'a connection to the database was lost',
    err: { type: expect.any(String) as string },
  });
  expect(written).toMatch(/terminat/u);
});

test('a query says how many rows it expects, and a breach throws there', () => {
  expect(oneRow(Row, [{ id: 1 }])).toEqual({ id: 1 });
  expect(() => oneRow(Row, [])).toThrow();
  expect(() => oneRow(Row, [{ id: 1 }, { id: 2 }])).toThrow();
  expect(maybeRow(Row, [])).toBeNull();
  expect(maybeRow(Row, [{ id: 1 }])).toEqual({ id: 1 });
  expect(() => maybeRow(Row, [{ id: 1 }, { id: 2 }])).toThrow();
  expect(manyRows(Row, [{ id: 1 }, { id: 2 }])).toHaveLength(2);
  expect(() => manyRows(Row, [{ id: 1, more: true }])).toThrow();
});

test('a refusal by a named constraint becomes a problem; any other stays what it is', async () => {
  const taken = () => ({ code: 'taken', sentence: 'It is there.', remedy: 'Choose another.' });
  await db.pool.query(put, [1, 'a']);
  const mapped = db.pool.query(put, [1, 'b']).catch(refusals({ note_once: taken }));
  await expect(mapped).rejects.toBeInstanceOf(ProblemError);
  await expect(mapped).rejects.toMatchObject({ problem: { code: 'taken' } });
  const other = db.pool.query(put, [2, null]).catch(refusals({ note_once: taken }));
  await expect(other).rejects.not.toBeInstanceOf(ProblemError);
});
