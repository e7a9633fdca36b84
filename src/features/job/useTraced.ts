import { useMemo, useState } from 'react';
import type { Board } from '@/core/circuit';
import { boardEntries, entriesOf } from '@/core/job';
import type { BoardKind } from '@/core/job';
import { deriveBoard } from '@/core/trace';
import type { TraceEntry } from '@/core/trace';
import type { NewLine, StoredLine } from '@/wire/ledger';
import type { JobBoard } from './jobBoard';

interface Start {
  readonly id: string;
  readonly label: string;
  readonly damaged: string | null;
  readonly start: Board;
}

/** Kinds of lines that say what a board was like when it came. */
const FOUND: readonly BoardKind[] = ['trace', 'correction'];

/** Each board from its start and its tracing facts; a board whose facts have not changed stays the same object. */
export function useTraced(
  starts: readonly Start[],
  lines: readonly StoredLine[],
  waiting: readonly NewLine[],
): readonly JobBoard[] {
  const [traced] = useState(() => new TracedBoards());
  return useMemo(() => starts.map((s) => traced.of(s, lines, waiting)), [traced, starts, lines, waiting]);
}

/** Boards as they were traced last. */
class TracedBoards {
  private readonly known = new Map<string, { key: string; texts: string; start: Board; traced: JobBoard }>();

  of(s: Start, lines: readonly StoredLine[], waiting: readonly NewLine[]): JobBoard {
    const undone = new Set(waiting.flatMap((l) => (l.reverses === null ? [] : [l.reverses])));
    const standing = lines.filter((l) => !undone.has(l.id));
    const told = [...boardEntries(standing, s.id), ...onTheirWay(waiting, s.id)];
    const key = told.map((t) => `${t.id} ${JSON.stringify(t.fact)}`).join('\n');
    const before = this.known.get(s.id);
    if (before && before.key === key && before.start === s.start) return before.traced;
    const trace = deriveBoard(s.start, told);
    // Acknowledged or still on its way, the same facts make the same board: nothing that hangs on it starts anew.
    const texts = told.map((t) => JSON.stringify(t.fact)).join('\n');
    const same = before && before.texts === texts && before.start === s.start;
    const board = same ? before.traced.board : told.length === 0 ? s.start : trace.board;
    const found = [...boardEntries(standing, s.id, FOUND), ...onTheirWay(waiting, s.id, FOUND)];
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

/** Facts in lines that are not acknowledged yet. */
function onTheirWay(waiting: readonly NewLine[], boardId: string, kinds?: readonly BoardKind[]): readonly TraceEntry[] {
  return waiting
    .filter((l) => l.boardId === boardId && (kinds === undefined || kinds.some((k) => k === l.entry.kind)))
    .flatMap((l) => entriesOf(l.clientKey, l.entry));
}
