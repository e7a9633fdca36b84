import { z } from 'zod';
import { FIRST_SETTINGS, StoredSettings } from '@/wire/settings';
import type { Settings } from '@/wire/settings';
import type { Db, Tx } from '../pool';
import { maybeRow } from '../rows';

const Row = z.strictObject({ body: StoredSettings });

/** What the workshop has set. */
export async function readSettings(db: Db): Promise<Settings> {
  const { rows } = await db.query('select body from workshop_setting');
  return maybeRow(Row, rows)?.body ?? FIRST_SETTINGS;
}

/** Sets it anew. */
export async function putSettings(tx: Tx, settings: Settings, now: Date): Promise<void> {
  await tx.query(
    `insert into workshop_setting (body, changed_at) values ($1, $2)
     on conflict (one) do update set body = excluded.body, changed_at = excluded.changed_at`,
    [JSON.stringify(settings), now],
  );
}
