import { useMemo, useRef } from 'react';
import type { Board } from '@/core/circuit';
import { standingLines } from '@/core/job';
import { deriveBoard, readShorthand } from '@/core/trace';
import type { TraceEntry } from '@/core/trace';
import type { NewLine, StoredLine } from '@/wire/ledger';
import type { JobBoard } from './JobContext';

interface Start {
  readonly id: string;
  readonly label: string;
  readonly origin: string;
  readonly start: Board;
}

/** Each board from its start and its tracing facts; a board whose facts have not changed stays the same object. */
export function useTraced(
  starts: readonly Start[],
  lines: readonly StoredLine[],
  waiting: readonly NewLine[],
): readonly JobBoard[] {
  const known = useRef(new Map<string, { key: string; texts: string; start: Board; traced: JobBoard }>());
  return useMemo(() => {
    const undone = new Set(waiting.flatMap((l) => (l.reverses === null ? [] : [l.reverses])));
    return starts.map((s) => {
      const told: { id: string; text: string }[] = standingLines(lines)
        .filter((l) => l.boardId === s.id && l.entry.kind === 'trace' && !undone.has(l.id))
        .sort((a, b) => a.seq - b.seq)
        .map((l) => ({ id: l.id, text: (l.entry.body as { text: string }).text }));
      for (const l of waiting) {
        if (l.boardId === s.id && l.entry.kind === 'trace') told.push({ id: l.clientKey, text: l.entry.body.text });
      }
      const key = told.map((t) => `${t.id} ${t.text}`).join('\n');
      const before = known.current.get(s.id);
      if (before && before.key === key && before.start === s.start) return before.traced;
      const entries: TraceEntry[] = told.flatMap(({ id, text }) => {
        const read = readShorthand(text);
        return read.ok && read.value ? [{ id, fact: read.value }] : [];
      });
      const trace = deriveBoard(s.start, entries);
      // Acknowledged or still on its way, the same facts make the same board: nothing that hangs on it starts anew.
      const texts = told.map((t) => t.text).join('\n');
      const same = before && before.texts === texts && before.start === s.start;
      const board = same ? before.traced.board : entries.length === 0 ? s.start : trace.board;
      const traced = { ...s, board, entries, trace };
      known.current.set(s.id, { key, texts, start: s.start, traced });
      return traced;
    });
  }, [starts, lines, waiting]);
}
