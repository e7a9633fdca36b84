import { readdirSync } from 'node:fs';

const TABLE = 'pgmigrations';

/**
 * Brings a database to the newest migration of a folder; gives the names of those it ran. One that was brought so far by
 * the package that was used before is carried on from there: what that noted as done is noted as done here.
 *
 * client  a connected client of node-postgres.
 */
export async function bringToNewest(client, folder) {
  const { runner } = await import('node-pg-migrate');
  await carryOver(client, folder);
  const done = await runner({
    dbClient: client,
    dir: folder,
    direction: 'up',
    migrationsTable: TABLE,
    checkOrder: true,
    verbose: false,
    logger: { debug() {}, info() {}, warn: console.warn, error: console.error },
  });
  return done.map((m) => m.name);
}

async function carryOver(client, folder) {
  const { rows } = await client.query(`select to_regclass('migrations') as before, to_regclass('${TABLE}') as now`);
  if (rows[0].before === null || rows[0].now !== null) return;
  const names = new Map(readdirSync(folder).map((file) => [Number.parseInt(file, 10), file.replace(/\.sql$/u, '')]));
  await client.query('begin');
  try {
    await client.query(
      `create table ${TABLE} (id serial primary key, name varchar(255) not null, run_on timestamp not null)`,
    );
    const ran = await client.query('select id, executed_at from migrations where id > 0 order by id');
    for (const { id, executed_at: at } of ran.rows) {
      const name = names.get(id);
      if (name === undefined) throw new Error(`This database holds migration ${id}, which is not of this version.`);
      await client.query(`insert into ${TABLE} (name, run_on) values ($1, $2)`, [name, at ?? new Date()]);
    }
    await client.query('drop table migrations');
    await client.query('commit');
  } catch (error) {
    await client.query('rollback');
    throw error;
  }
}
