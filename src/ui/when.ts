import { tz } from '@date-fns/tz';
import { format } from 'date-fns';

/** Day and time of a moment in a zone: `2026-11-28 14:05`. The same on server and page. */
export const timeWords = (at: number, zone: string): string => format(at, 'yyyy-MM-dd HH:mm', { in: tz(zone) });

/** The time of day alone: `14:05`. */
export const clockWords = (at: number, zone: string): string => format(at, 'HH:mm', { in: tz(zone) });
