import type { Board } from '../circuit';
import type { LedgerEntry, LedgerLine } from '../ledger';
import { deriveBoard } from '../trace';
import type { TraceEntry } from '../trace';
import { boardEntries, entriesOf } from './boardEntries';
import type { BoardKind } from './boardFacts';
import type { StartBoard, TracedJobBoard } from './startBoard';

/** A line on its way to the server, by the key that its sender gave it; it may take back one that is on its way as well. */
export interface SentLine {
  readonly clientKey: string;
  readonly boardId: string | null;
  readonly entry: LedgerEntry;
  readonly reverses: string | null;
}

/** Kinds of lines that say what a board was like when it came. */
const FOUND: readonly BoardKind[] = ['trace', 'correction'];

/** Boards as they were derived last: one whose facts have not changed stays the same object. */
export class TracedBoards {
  private readonly known = new Map<
    string,
    { readonly key: string; readonly texts: string; readonly start: Board; readonly traced: TracedJobBoard }
  >();

  /** first, lines  boards that are derived already, from these lines. */
  constructor(first: readonly TracedJobBoard[] = [], lines: readonly LedgerLine[] = []) {
    for (const traced of first) {
      const told = boardEntries(lines, traced.id);
      this.known.set(traced.id, { ...wordsOf(told), start: traced.start, traced });
    }
  }

  /** A board from its start, the lines that are written and those on their way. */
  of(s: StartBoard, lines: readonly LedgerLine[], waiting: readonly SentLine[] = []): TracedJobBoard {
    const undone = new Set(waiting.flatMap((l) => (l.reverses === null ? [] : [l.reverses])));
    const standing = lines.filter((l) => !undone.has(l.id));
    const coming = waiting.filter((l) => !undone.has(l.clientKey));
    const told = [...boardEntries(standing, s.id), ...onTheirWay(coming, s.id)];
    const { key, texts } = wordsOf(told);
    const before = this.known.get(s.id);
    if (before && before.key === key && before.start === s.start) return before.traced;
    const trace = deriveBoard(s.start, told);
    // Acknowledged or still on its way, the same facts make the same board: nothing that hangs on it starts anew.
    const same = before && before.texts === texts && before.start === s.start;
    const board = same ? before.traced.board : told.length === 0 ? s.start : trace.board;
    const found = [...boardEntries(standing, s.id, FOUND), ...onTheirWay(coming, s.id, FOUND)];
    const asFound = same
      ? before.traced.asFound
      : found.length === told.length
        ? board
        : deriveBoard(s.start, found).board;
    const traced = { ...s, board, asFound, entries: told, trace };
    this.known.set(s.id, { key, texts, start: s.start, traced });
    return traced;
  }
}

/** What facts say, with and without the lines that they came in. */
function wordsOf(told: readonly TraceEntry[]): { readonly key: string; readonly texts: string } {
  const texts = told.map((t) => JSON.stringify(t.fact));
  return { key: told.map((t, i) => `${t.id} ${texts[i]!}`).join('\n'), texts: texts.join('\n') };
}

/** Facts in lines that are not acknowledged yet. */
function onTheirWay(
  waiting: readonly SentLine[],
  boardId: string,
  kinds?: readonly BoardKind[],
): readonly TraceEntry[] {
  return waiting
    .filter((l) => l.boardId === boardId && (kinds === undefined || kinds.some((k) => k === l.entry.kind)))
    .flatMap((l) => entriesOf(l.clientKey, l.entry));
}
