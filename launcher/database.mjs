import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { bringToNewest } from './migrate.mjs';
import { bundle } from './packages.mjs';
import { ROOT } from './run.mjs';
import { say } from './say.mjs';

/** Brings a database to the newest migration. `empty` drops everything in it first. */
export async function migrateDatabase(url, { reset = false } = {}) {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    if (reset) await client.query('drop schema public cascade; create schema public');
    const applied = await bringToNewest(client, join(ROOT, 'migrations'));
    if (applied.length > 0) say(`Database: ${applied.length} migration${applied.length === 1 ? '' : 's'} applied.`);
  } finally {
    await client.end();
  }
}

/** Puts the demo data in, unless the database already holds a job. Says how many jobs it made. */
export async function seedDemo(url) {
  const { seedDemo: seed } = await import(pathToFileURL(await bundle('seed', 'src/demo/seed.ts')).href);
  const made = await seed(url);
  if (made > 0) say(`Demo: ${made} jobs of the Skerry Point workshop.`);
}
