import { createStore, del, delMany, entries, set } from 'idb-keyval';
import { z } from 'zod';
import type { Problem } from '@/core/problem';
import { NewLine } from '@/wire/ledger';

/**
 * Lines of a job that wait for the server, or that it would not take, in this browser's own database. Each is a record of
 * its own, so that two windows never write over each other; sent twice they are written once, by their client key.
 */
const waitingKey = (tag: string, line: NewLine): string => `waiting ${tag} ${line.clientKey}`;
const refusedKey = (tag: string, line: NewLine): string => `refused ${tag} ${line.clientKey}`;

/** A line that the server would not take, with its reason: set aside, so that the next could go on. */
export interface RefusedLine {
  readonly line: NewLine;
  readonly problem: Problem;
}

const Waiting = z.object({ number: z.number(), line: NewLine });
const Refused = z.object({
  line: NewLine,
  problem: z.object({ code: z.string(), sentence: z.string(), remedy: z.string() }),
});

let opened: ReturnType<typeof createStore> | null = null;
const records = (): ReturnType<typeof createStore> => (opened ??= createStore('rough-lantern', 'outbox'));

/** Keeps a line; false where the browser's store takes no more. number: its place among those that wait. */
export function keepWaiting(tag: string, line: NewLine, number: number): Promise<boolean> {
  return tried(() => set(waitingKey(tag, line), { number, line }, records()));
}

/** Forgets a line that has been settled. */
export async function forgetWaiting(tag: string, line: NewLine): Promise<void> {
  await tried(() => del(waitingKey(tag, line), records()));
}

/** Keeps a line that was set aside, until somebody has seen it. */
export async function keepRefused(tag: string, refused: RefusedLine): Promise<void> {
  await tried(() => set(refusedKey(tag, refused.line), refused, records()));
}

/** Forgets what was set aside. */
export async function forgetRefused(tag: string, refused: readonly RefusedLine[]): Promise<void> {
  await tried(() =>
    delMany(
      refused.map(({ line }) => refusedKey(tag, line)),
      records(),
    ),
  );
}

/** What was left of a job's lines before: those that wait, in the order they were written, and those set aside. */
export async function linesBefore(
  tag: string,
): Promise<{ readonly waiting: readonly NewLine[]; readonly refused: readonly RefusedLine[] }> {
  const all: [IDBValidKey, unknown][] = [...earlierStore()];
  // A store that cannot be reached holds nothing.
  await tried(async () => all.push(...(await entries(records()))));
  const read = <T>(prefix: string, schema: z.ZodType<T>): T[] =>
    all.flatMap(([key, value]) => {
      const parsed = String(key).startsWith(prefix) ? schema.safeParse(value) : null;
      return parsed?.success ? [parsed.data] : [];
    });
  const waiting = read(`waiting ${tag} `, Waiting).sort((a, b) => a.number - b.number);
  return { waiting: waiting.map((w) => w.line), refused: read(`refused ${tag} `, Refused) };
}

/** What an earlier version left in the browser's other store, carried over once. */
function earlierStore(): [string, unknown][] {
  try {
    const names = Object.keys(window.localStorage).filter((key) => /^(?:outbox|refused) \S+ \S+$/u.test(key));
    return names.map((name) => {
      const value = JSON.parse(window.localStorage.getItem(name) ?? 'null') as unknown;
      const key = name.replace(/^outbox/u, 'waiting');
      void tried(() => set(key, value, records())).then((kept) => kept && window.localStorage.removeItem(name));
      return [key, value];
    });
  } catch {
    return [];
  }
}

async function tried(work: () => Promise<unknown>): Promise<boolean> {
  try {
    await work();
    return true;
  } catch {
    return false;
  }
}
