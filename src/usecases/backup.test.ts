import { execFile } from 'node:child_process';
import { mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { testDatabase } from '@/data/testDatabase';
import { NewJob } from '@/wire/jobForm';
import { addLine } from './addLine';
import { createJob } from './createJob';

const run = promisify(execFile);
const launcher = join(process.cwd(), 'launcher', 'main.mjs');
const lantern = (url: string, ...words: string[]) =>
  run('node', [launcher, ...words], { env: { ...process.env, DATABASE_URL: url } });
const TABLES = ['job', 'unit', 'board', 'ledger_line', 'harness', 'photo', 'photo_marks'];

test('a backup taken while lines are written goes into an empty cluster and is equal to what was there', async () => {
  const [from, to] = [await testDatabase(), await testDatabase()];
  const folder = mkdtempSync(join(tmpdir(), 'lantern-'));
  try {
    const made = await createJob(
      from.pool,
      NewJob.parse({
        tag: 'BK-1',
        unit: 'Tidewell PC-5',
        nameplate: { source: 'mains', inputMax: 264 },
        complaint: 'dead',
        symptoms: ['dead'],
        sources: [{ name: 'Mains lead', kind: 'mains' }],
        board: { from: 'typical', name: 'flyback-opto' },
      }),
      new Date(),
    );
    let writing = true;
    let written = 0;
    const note = () =>
      addLine(
        from.pool,
        'BK-1',
        {
          clientKey: crypto.randomUUID(),
          actor: 'Bench A',
          boardId: made.boardId,
          entry: { kind: 'action', body: { words: `line ${++written}` } },
          reverses: null,
        },
        new Date(),
      );
    for (let k = 0; k < 20; k++) await note();
    const writer = (async () => {
      while (writing) await note();
    })();
    const file = join(folder, 'live.dump');
    await lantern(from.url, 'backup', file);
    writing = false;
    await writer;
    expect(statSync(file).size).toBeGreaterThan(1000);
    await lantern(to.url, 'restore', file);
    // A snapshot: lines without a gap from the first on, and no more than were written.
    const { rows } = await to.pool.query('select seq from ledger_line order by seq');
    expect(rows.map((r: { seq: number }) => r.seq)).toEqual(rows.map((_, i) => i + 1));
    expect(rows.length).toBeGreaterThanOrEqual(20);
    expect(rows.length).toBeLessThanOrEqual(written);

    // At rest: equal to the last row of every table.
    const rest = join(folder, 'rest.dump');
    await lantern(from.url, 'backup', rest);
    await expect(lantern(to.url, 'restore', rest)).rejects.toMatchObject({
      stderr: expect.stringMatching(/holds 1 jobs/u),
    });
    await lantern(to.url, 'restore', rest, '--replace');
    for (const table of TABLES) {
      const all = async (db: typeof from) =>
        (await db.pool.query(`select to_jsonb(t) as row from ${table} t order by to_jsonb(t)::text`)).rows;
      expect([table, await all(to)]).toEqual([table, await all(from)]);
    }
    // And the log still cannot be changed.
    await expect(to.pool.query("update ledger_line set actor = 'x'")).rejects.toThrow(/never changed/u);

    // What is no backup changes nothing.
    const wrong = join(folder, 'wrong.dump');
    writeFileSync(wrong, 'not a backup');
    await expect(lantern(to.url, 'restore', wrong, '--replace')).rejects.toMatchObject({ code: 1 });
    expect((await to.pool.query('select count(*)::int as n from job')).rows).toEqual([{ n: 1 }]);
  } finally {
    rmSync(folder, { recursive: true, force: true });
    await Promise.all([from.close(), to.close()]);
  }
}, 120_000);
