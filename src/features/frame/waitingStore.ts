import { NewLine } from '@/wire/ledger';

/**
 * Lines of a job that wait for the server, in this browser's own store. Each has a key of its own, so that two windows
 * never write over each other; sent twice they are written once, by their client key.
 */
const prefix = (tag: string): string => `outbox ${tag} `;

/** Keeps a line; false where the browser's store takes no more. */
export function keepWaiting(tag: string, line: NewLine, number: number): boolean {
  try {
    window.localStorage.setItem(prefix(tag) + line.clientKey, JSON.stringify({ number, line }));
    return true;
  } catch {
    return false;
  }
}

/** Forgets a line that has been settled. */
export function forgetWaiting(tag: string, line: NewLine): void {
  try {
    window.localStorage.removeItem(prefix(tag) + line.clientKey);
  } catch {
    // A store that cannot be reached holds nothing.
  }
}

/** The lines left from before, in the order they were written; those of an older form of the store too. */
export function waitingBefore(tag: string): readonly NewLine[] {
  const found: { readonly number: number; readonly line: NewLine }[] = [];
  try {
    const { localStorage: store } = window;
    const keys = Array.from({ length: store.length }, (_, i) => store.key(i) ?? '');
    for (const key of keys) {
      const text = key.startsWith(prefix(tag)) || key === prefix(tag).trim() ? store.getItem(key) : null;
      if (text === null) continue;
      const raw = readJson(text);
      const list = Array.isArray(raw) ? raw.map((line, number) => ({ number, line })) : [raw];
      for (const entry of list) {
        const { number, line } = (entry ?? {}) as { readonly number?: unknown; readonly line?: unknown };
        const parsed = NewLine.safeParse(line);
        if (parsed.success) found.push({ number: typeof number === 'number' ? number : 0, line: parsed.data });
      }
      if (Array.isArray(raw)) store.removeItem(key);
    }
  } catch {
    return [];
  }
  return found.sort((a, b) => a.number - b.number).map((f) => f.line);
}

function readJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
