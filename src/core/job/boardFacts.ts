import { standingLines } from '../ledger';
import type { LedgerLine, StoredEntry } from '../ledger';
import { netlistText } from '../netlist';
import type { FittedPart } from '../substitute';
import { readShorthand } from '../trace';
import type { TraceEntry } from '../trace';

/** Kinds of lines that say something about what is on the board. */
const BOARD_KINDS = ['trace', 'modification', 'replacement', 'correction'] as const;
export type BoardKind = (typeof BOARD_KINDS)[number];

/** What a ledger line says about its board, as lines of the shorthand; none for most kinds. */
export function boardFacts(entry: StoredEntry): readonly string[] {
  switch (entry.kind) {
    case 'trace':
      return [entry.body.text];
    case 'modification':
      return entry.body.facts;
    case 'replacement':
      return fittedFacts(entry.body.ref, entry.body.fitted);
    default:
      return [];
  }
}

/** The same part changes nothing; another one has other figures, and its old marking is gone with it. */
function fittedFacts(ref: string, fitted: FittedPart): readonly string[] {
  if (fitted.samePart) return [];
  const { value, ratedVolts, ratedAmps, ratedWatts } = fitted;
  const keys = [
    ...(value === undefined ? [] : [`is=${netlistText(value)}`]),
    ...(ratedVolts === undefined ? [] : [`vr=${netlistText(ratedVolts)}`]),
    ...(ratedAmps === undefined ? [] : [`ir=${netlistText(ratedAmps)}`]),
    ...(ratedWatts === undefined ? [] : [`pr=${netlistText(ratedWatts)}`]),
  ];
  return keys.length === 0 ? [] : [`${ref} ${keys.join(' ')} mark=${markOf(value, ratedVolts)} basis=seen`];
}

function markOf(value: number | undefined, ratedVolts: number | undefined): string {
  const said = [value === undefined ? '' : netlistText(value), ratedVolts === undefined ? '' : `${ratedVolts}V`];
  return said.filter((s) => s !== '').join('/') || 'replaced';
}

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

/** Whether a line makes its board another. */
export function saysOfBoard(entry: StoredEntry): boolean {
  return boardFacts(entry).length > 0 || (entry.kind === 'correction' && entry.body.nameplate !== undefined);
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
