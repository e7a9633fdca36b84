import { standingLines } from '../ledger';
import type { LedgerLine, StoredEntry } from '../ledger';
import { readShorthand } from '../trace';
import type { TraceEntry } from '../trace';
import { BOARD_KINDS, boardFacts } from './boardFacts';
import type { BoardKind } from './boardFacts';

/**
 * The facts about a board in lines that stand, oldest first; one line may give several with one id.
 * kinds  only lines of these, all that say something unless told.
 */
export function boardEntries(
  lines: readonly LedgerLine[],
  boardId: string,
  kinds: readonly BoardKind[] = BOARD_KINDS,
): readonly TraceEntry[] {
  return standingLines(lines)
    .filter((l) => l.boardId === boardId && kinds.some((k) => k === l.entry.kind))
    .flatMap((l) => entriesOf(l.id, l.entry));
}

/** What a line says about its board as facts under one id; what cannot be read is left out. */
export function entriesOf(id: string, entry: StoredEntry): readonly TraceEntry[] {
  if (entry.kind === 'correction') {
    const { nameplate } = entry.body;
    return nameplate === undefined ? [] : [{ id, fact: { kind: 'plate', plate: nameplate } }];
  }
  return boardFacts(entry).flatMap((text) => {
    const read = readShorthand(text);
    return read.ok && read.value ? [{ id, fact: read.value }] : [];
  });
}
