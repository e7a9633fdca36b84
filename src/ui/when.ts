import { TZDateMini } from '@date-fns/tz';
import { lightFormat } from 'date-fns';

/** Day and time of a moment in a zone: `2026-11-28 14:05`. The same on server and page. */
export const timeWords = (at: number, zone: string): string =>
  lightFormat(new TZDateMini(at, zone), 'yyyy-MM-dd HH:mm');

/** The time of day alone: `14:05`. */
export const clockWords = (at: number, zone: string): string => lightFormat(new TZDateMini(at, zone), 'HH:mm');
