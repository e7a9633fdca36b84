import type { Pool } from 'pg';
import { applyChoices } from '@/wire/choices';
import { log } from '@/data/log';
import { withTransaction } from '@/data/pool';
import { putSettings, readSettings } from '@/data/setting/settingTable';
import { FIRST_SETTINGS } from '@/wire/settings';
import type { Settings } from '@/wire/settings';

/**
 * What the workshop has set; figures that this process writes follow it. As at first where the database does not answer: the
 * page then says so itself.
 */
export async function workshopSettings(pool: Pool): Promise<Settings> {
  const settings = await readSettings(pool).catch((err: unknown) => {
    log().warn({ err }, 'the settings could not be read');
    return FIRST_SETTINGS;
  });
  applyChoices(settings);
  return settings;
}

/** Sets the workshop's settings anew. */
export async function changeSettings(pool: Pool, settings: Settings, now: Date): Promise<Settings> {
  await withTransaction(pool, (tx) => putSettings(tx, settings, now));
  applyChoices(settings);
  return settings;
}
