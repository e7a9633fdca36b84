import { execFile } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { cpSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import pg from 'pg';
import { makePool } from './pool';

const run = promisify(execFile);

/**
 * A migrated database of its own for a test file, on the real server that `lantern test` started.
 *
 * upTo  the number of the last migration; `advance` then brings it to the newest.
 */
export async function testDatabase(upTo = Infinity): Promise<{
  readonly pool: pg.Pool;
  readonly url: string;
  advance(): Promise<void>;
  close(): Promise<void>;
}> {
  const server = process.env['TEST_DATABASE_URL'];
  if (!server) throw new Error('TEST_DATABASE_URL is not set: run the tests with ./lantern test');
  const name = `unit_${randomBytes(6).toString('hex')}`;
  const admin = new pg.Client({ connectionString: server });
  await admin.connect();
  await admin.query(`create database ${name}`);
  const url = new URL(server);
  url.pathname = `/${name}`;
  const all = join(process.cwd(), 'migrations');
  const bring = async (folder: string): Promise<void> => {
    // A program of its own: the package is a module that Jest's own context cannot take in.
    await run(process.execPath, [join(process.cwd(), 'launcher/migrateCommand.mjs'), url.href, folder]);
  };
  const old = mkdtempSync(join(tmpdir(), 'migrations-'));
  for (const file of readdirSync(all)) if (Number.parseInt(file, 10) <= upTo) cpSync(join(all, file), join(old, file));
  await bring(old).finally(() => rmSync(old, { recursive: true }));
  const pool = makePool(url.href);
  return {
    pool,
    url: url.href,
    advance: () => bring(all),
    async close() {
      await pool.end();
      await admin.query(`drop database ${name} with (force)`);
      await admin.end();
    },
  };
}
