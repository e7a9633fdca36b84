import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import pg from 'pg';
import { orphansOf, startCluster } from '../launcher/postgres.mjs';

const lockModule = join(process.cwd(), 'launcher', 'lock.mjs');

/** Processes that pass for a start command and take the same lock at once; each says whose it is, and then holds on. */
async function takers(file: string, count: number): Promise<readonly string[]> {
  const code = `import { takeLock } from ${JSON.stringify(lockModule)};
    const holder = takeLock(${JSON.stringify(file)});
    console.log(holder === null ? 'mine' : 'of ' + holder);
    setTimeout(() => {}, 60000);`;
  const children = Array.from({ length: count }, () =>
    spawn(process.execPath, ['--input-type=module', '-e', code, 'launcher/main.mjs'], {
      stdio: ['ignore', 'pipe', 'inherit'],
    }),
  );
  const said = await Promise.all(
    children.map(
      (child) => new Promise<string>((resolve) => child.stdout.once('data', (d) => resolve(String(d).trim()))),
    ),
  );
  for (const child of children) child.kill('SIGKILL');
  return said;
}

test('of many starts at once one gets the lock and the others know whose it is; one left by the dead is taken over', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'lock-'));
  const file = join(folder, 'start.lock');
  for (const left of [null, '999999999', 'half']) {
    if (left !== null) writeFileSync(file, left);
    const said = await takers(file, 6);
    expect(said.filter((s) => s === 'mine')).toHaveLength(1);
    const holder = readFileSync(file, 'utf8');
    expect(said.filter((s) => s === `of ${holder}`)).toHaveLength(5);
  }
  rmSync(folder, { recursive: true });
});

test('a database killed with work still going on is not started over it: the process is named, and after it all is there', async () => {
  const first = await startCluster('orphan');
  const client = new pg.Client({ connectionString: first.url });
  client.on('error', () => {});
  try {
    await client.connect();
    await client.query('drop table if exists kept');
    await client.query('create table kept as select 7 as n');
    const { rows } = await client.query<{ pid: number }>('select pg_backend_pid() as pid');
    const { pid } = rows[0]!;
    // A backend that hangs outlives its server.
    process.kill(pid, 'SIGSTOP');
    process.kill(first.pid, 'SIGKILL');
    await expect.poll(() => orphansOf(first.folder).map((o: { pid: number }) => o.pid)).toEqual([pid]);
    const why = await startCluster('orphan').then(
      () => 'started',
      (error: Error) => error.message,
    );
    expect(why).toContain(`process ${pid}: postgres: lantern`);
    expect(why).toContain(`kill ${pid}`);
    expect(why).toContain('Nothing is lost');
    process.kill(pid, 'SIGKILL');
    await expect.poll(() => orphansOf(first.folder)).toEqual([]);
    // What the dead server left behind is PostgreSQL's own to clear away.
    const second = await startCluster('orphan');
    const again = new pg.Client({ connectionString: second.url });
    await again.connect();
    expect((await again.query('select n from kept')).rows).toEqual([{ n: 7 }]);
    await again.end();
    await second.stop();
  } finally {
    for (const { pid } of orphansOf(first.folder)) process.kill(pid, 'SIGKILL');
    rmSync(first.folder, { recursive: true, force: true });
  }
});
