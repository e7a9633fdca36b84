import pg from 'pg';
import { log } from './log';

/** Anything that can run a query: the pool, or a transaction. */
export interface Db {
  query(text: string, values?: readonly unknown[]): Promise<pg.QueryResult>;
}

declare const inTransaction: unique symbol;
/** A transaction; only `withTransaction` makes one, so a writer cannot be given the pool by mistake. */
export interface Tx extends Db {
  readonly [inTransaction]: true;
}

const holder = globalThis as typeof globalThis & { lanternPool?: pg.Pool };

/** The one pool of this process. */
export function pool(): pg.Pool {
  if (!holder.lanternPool) {
    const connectionString = process.env['DATABASE_URL'];
    if (!connectionString) throw new Error('DATABASE_URL is not set; start the application with ./lantern start');
    holder.lanternPool = makePool(connectionString);
  }
  return holder.lanternPool;
}

/** A pool that survives a server going away between queries: the next query gets a new connection. */
export function makePool(connectionString: string): pg.Pool {
  const made = new pg.Pool({ connectionString, max: 10, connectionTimeoutMillis: 10_000 });
  // A connection that broke while nobody used it: the next query gets a new one, but it is worth knowing.
  made.on('error', (err) => log().warn({ err }, 'a connection to the database was lost'));
  return made;
}

/**
 * Runs work in one transaction: all of it or none.
 *
 * A failing rollback never hides why the work failed; the broken connection is then thrown away.
 */
export async function withTransaction<T>(from: pg.Pool, work: (tx: Tx) => Promise<T>): Promise<T> {
  return inOne(from, 'begin', work);
}

/** Runs reading work on one snapshot: all it reads is of the same moment, whatever is written meanwhile. */
export async function withSnapshot<T>(from: pg.Pool, work: (db: Db) => Promise<T>): Promise<T> {
  return inOne(from, 'begin isolation level repeatable read read only', work);
}

/** Makes those who change one thing take turns, until the transaction ends. */
export async function lockFor(tx: Tx, what: string): Promise<void> {
  await tx.query('select pg_advisory_xact_lock(hashtext($1))', [what]);
}

async function inOne<T>(from: pg.Pool, begin: string, work: (tx: Tx) => Promise<T>): Promise<T> {
  const client = await from.connect();
  let broken: Error | undefined;
  // A connection lost while it is ours must fail this work, not the process.
  const lost = (error: Error): void => {
    broken = error;
  };
  client.on('error', lost);
  try {
    await client.query(begin);
    const done = await work(client as unknown as Tx);
    await client.query('commit');
    return done;
  } catch (error) {
    await client.query('rollback').catch((reason: unknown) => {
      broken = reason instanceof Error ? reason : new Error(String(reason));
    });
    throw error;
  } finally {
    client.off('error', lost);
    client.release(broken);
  }
}
