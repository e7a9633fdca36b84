import { z } from 'zod';
import type { Db } from './pool';
import { oneRow } from './rows';

const Row = z.strictObject({ migrations: z.number(), jobs: z.number() });

/** Whether the database answers: how far it has been brought, and how many jobs it holds. Throws where it does not. */
export async function databaseState(db: Db): Promise<{ readonly migrations: number; readonly jobs: number }> {
  const { rows } = await db.query(
    'select (select count(*)::int from pgmigrations) as migrations, (select count(*)::int from job) as jobs',
  );
  return oneRow(Row, rows);
}
