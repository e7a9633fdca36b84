import { z } from 'zod';
import { NewLine } from '@/wire/ledger';
import type { RefusedLine } from './waitingStore';

const Waiting = z.object({ number: z.number(), line: NewLine });
const Refused = z.object({
  line: NewLine,
  problem: z.object({ code: z.string(), sentence: z.string(), remedy: z.string() }),
});

function sound<T>(schema: z.ZodType<T>, records: readonly unknown[]): T[] {
  return records.flatMap((record) => {
    const read = schema.safeParse(record);
    return read.success ? [read.data] : [];
  });
}

/** Lines that wait, in the order they were written; what is none is passed over. */
export function readWaiting(records: readonly unknown[]): readonly NewLine[] {
  return sound(Waiting, records)
    .sort((a, b) => a.number - b.number)
    .map((w) => w.line);
}

/** Lines that were set aside; what is none is passed over. */
export const readRefused = (records: readonly unknown[]): readonly RefusedLine[] => sound(Refused, records);
