import { standingLines } from '../ledger';
import type { LedgerLine } from '../ledger';
import { netKey } from '../circuit';
import type { PresentReading } from '../permit';
import { saysOfBoard } from './boardFacts';
import type { JobBoard } from './hazardLedger';
import { inOrder, reversedBy } from './logOrder';
import type { WaitingLine } from './logOrder';
import { isEvidence, taken } from './readings';
import { Touches } from './touches';

/**
 * The cold readings of a board as a permit counts them: each with the nets at which something was fitted, changed or
 * found out after it, whatever became of that line later. A reading whose own leads lay there is left out.
 */
export function presentReadings(
  lines: readonly LedgerLine[],
  { id, board, start }: JobBoard,
  waiting: readonly WaitingLine[] = [],
): readonly PresentReading[] {
  const order = inOrder(lines, waiting);
  const byId = new Map(order.map((l) => [l.id, l]));
  const touches = new Touches(new Map([[id, start ? [board, start] : [board]]]), order);
  const changes = order.flatMap((line) => {
    const told = line.reverses === null ? line : reversedBy(line, byId);
    const says = told && told.boardId === id && (saysOfBoard(told.entry) || told.entry.kind === 'replacement');
    return says ? [{ seq: line.seq, nets: touches.of(told).nets }] : [];
  });
  return standingLines(lines).flatMap((line) => {
    if (line.entry.kind !== 'reading' || line.boardId !== id) return [];
    const { body } = line.entry;
    if (!isEvidence(body)) return [];
    const changed = new Set(changes.flatMap((c) => (c.seq > line.seq ? [...c.nets] : [])));
    return changed.has(netKey(body.red)) || changed.has(netKey(body.black)) ? [] : [{ ...taken(body), changed }];
  });
}
