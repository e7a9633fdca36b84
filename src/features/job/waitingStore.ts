import { z } from 'zod';
import type { Problem } from '@/core/problem';
import { NewLine } from '@/wire/ledger';

/**
 * Lines of a job that wait for the server, or that it would not take, in this browser's own store. Each has a key of
 * its own, so that two windows never write over each other; sent twice they are written once, by their client key.
 */
const waitingPrefix = (tag: string): string => `outbox ${tag} `;
const refusedPrefix = (tag: string): string => `refused ${tag} `;

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

/** Keeps a line; false where the browser's store takes no more. */
export function keepWaiting(tag: string, line: NewLine, number: number): boolean {
  return put(waitingPrefix(tag) + line.clientKey, { number, line });
}

/** Forgets a line that has been settled. */
export function forgetWaiting(tag: string, line: NewLine): void {
  drop(waitingPrefix(tag) + line.clientKey);
}

/** Keeps a line that was set aside, until somebody has seen it. */
export function keepRefused(tag: string, refused: RefusedLine): void {
  put(refusedPrefix(tag) + refused.line.clientKey, refused);
}

/** Forgets what was set aside. */
export function forgetRefused(tag: string, refused: readonly RefusedLine[]): void {
  for (const { line } of refused) drop(refusedPrefix(tag) + line.clientKey);
}

/** The lines left from before, in the order they were written. */
export function waitingBefore(tag: string): readonly NewLine[] {
  return read(waitingPrefix(tag), Waiting)
    .sort((a, b) => a.number - b.number)
    .map((f) => f.line);
}

/** What was set aside before and is still to be seen. */
export function refusedBefore(tag: string): readonly RefusedLine[] {
  return read(refusedPrefix(tag), Refused);
}

function put(key: string, value: unknown): boolean {
  try {
    window.localStorage.setItem(key, JSON.stringify(value));
    return true;
  } catch {
    return false;
  }
}

function drop(key: string): void {
  try {
    window.localStorage.removeItem(key);
  } catch {
    // A store that cannot be reached holds nothing.
  }
}

function read<T>(prefix: string, schema: z.ZodType<T>): T[] {
  try {
    const { localStorage: store } = window;
    const keys = Array.from({ length: store.length }, (_, i) => store.key(i) ?? '');
    return keys
      .filter((key) => key.startsWith(prefix))
      .flatMap((key) => {
        const parsed = schema.safeParse(readJson(store.getItem(key) ?? ''));
        return parsed.success ? [parsed.data] : [];
      });
  } catch {
    return [];
  }
}

function readJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
