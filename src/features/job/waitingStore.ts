import { createStore, del, delMany, entries, set } from 'idb-keyval';
import type { Problem } from '@/core/problem';
import type { NewLine } from '@/wire/ledger';

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

let opened: ReturnType<typeof createStore> | null = null;
const records = (): ReturnType<typeof createStore> => (opened ??= createStore('rough-lantern', 'outbox'));

/** Client keys of the waiting lines that the store is known to hold, and who is told when that changes. */
const held = new Set<string>();
const watchers = new Set<() => void>();

/** Whether a waiting line would outlast this window: shown the moment it is written, it is in the store a little later. */
export function outlasts({ clientKey }: Pick<NewLine, 'clientKey'>): boolean {
  return held.has(clientKey);
}

/** Tells when `outlasts` may have changed; gives how to stop it. */
export function watchKept(watcher: () => void): () => void {
  watchers.add(watcher);
  return () => void watchers.delete(watcher);
}

function hold(lines: readonly NewLine[]): void {
  for (const { clientKey } of lines) held.add(clientKey);
  for (const watcher of watchers) watcher();
}

/** Keeps a line; false where the browser's store takes no more. number: its place among those that wait. */
export async function keepWaiting(tag: string, line: NewLine, number: number): Promise<boolean> {
  const kept = await tried(() => set(waitingKey(tag, line), { number, line }, records()));
  if (kept) hold([line]);
  return kept;
}

/** Forgets a line that has been settled. */
export async function forgetWaiting(tag: string, line: NewLine): Promise<void> {
  await tried(() => del(waitingKey(tag, line), records()));
  held.delete(line.clientKey);
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
  const own = all.filter(([key]) => /^(?:waiting|refused) /u.test(String(key)) && String(key).split(' ')[1] === tag);
  // Seldom anything was left: what it is held to is fetched only then.
  if (own.length === 0) return { waiting: [], refused: [] };
  const { readWaiting, readRefused } = await import('./waitingShape');
  const of = (kind: string): readonly unknown[] => own.flatMap(([key, v]) => (String(key).startsWith(kind) ? [v] : []));
  const waiting = readWaiting(of('waiting'));
  hold(waiting);
  return { waiting, refused: readRefused(of('refused')) };
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
