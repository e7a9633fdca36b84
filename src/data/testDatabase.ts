import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import pg from 'pg';
import { migrate } from 'postgres-migrations';
import { makePool } from './pool';

/** A migrated database of its own for a test file, on the real server that `lantern test` started. */
export async function testDatabase(): Promise<{
  readonly pool: pg.Pool;
  readonly url: string;
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
  const client = new pg.Client({ connectionString: url.href });
  await client.connect();
  await migrate({ client }, join(process.cwd(), 'migrations'));
  await client.end();
  const pool = makePool(url.href);
  return {
    pool,
    url: url.href,
    async close() {
      await pool.end();
      await admin.query(`drop database ${name} with (force)`);
      await admin.end();
    },
  };
}
