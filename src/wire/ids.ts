import { z } from 'zod';

/** The id of a row as text: digits that fit the database's bigint. */
export const RowId = z.string().regex(/^\d{1,18}$/u, 'There is no such number.');

/** The tag of a job as it is written on the unit. */
export const JOB_TAG = /^[A-Z0-9][A-Z0-9-]{0,19}$/u;
