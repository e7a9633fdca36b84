import type { LedgerBodies, LedgerKind, StoredEntry } from './bodies';

/** A line of a job's log. */
export interface LedgerLine {
  readonly id: string;
  readonly seq: number;
  readonly boardId: string | null;
  readonly entry: StoredEntry;
  readonly actor: string;
  /** When it was written: by the wall clock, milliseconds since 1970, and by the server's steady one where it is known. */
  readonly at: number;
  readonly boot?: string | null | undefined;
  readonly uptime?: number | null | undefined;
  readonly reverses: string | null;
}

/** The lines that stand, oldest first: reversals and what they undid are left out. */
export function standingLines<T extends LedgerLine>(lines: readonly T[]): readonly T[] {
  const undone = new Set(lines.flatMap((l) => (l.reverses === null ? [] : [l.reverses])));
  return lines.filter((l) => l.reverses === null && !undone.has(l.id)).sort((a, b) => a.seq - b.seq);
}

/** The standing lines of one kind, oldest first, with what they say. */
export function linesOf<K extends LedgerKind>(
  lines: readonly LedgerLine[],
  kind: K,
): readonly { readonly line: LedgerLine; readonly body: LedgerBodies[K] }[] {
  return standingLines(lines).flatMap((line) =>
    line.entry.kind === kind ? [{ line, body: line.entry.body as LedgerBodies[K] }] : [],
  );
}
