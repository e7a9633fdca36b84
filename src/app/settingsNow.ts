import { cache } from 'react';
import { pool } from '@/data/pool';
import { workshopSettings } from '@/usecases/settings';

/** The workshop's settings, read once for each page that is made. */
export const settingsNow = cache(() => workshopSettings(pool()));
