import { linesOf } from '../ledger';
import type { LedgerBodies, LedgerLine } from '../ledger';
import type { SweepRow } from '../sweep';

/** A sweep of the job with its rows in the order they were written. */
export interface KeptSweep {
  readonly id: string;
  readonly boardId: string | null;
  readonly setup: LedgerBodies['sweep'];
  readonly rows: readonly SweepRow[];
}

/** The sweeps in a log, oldest first. rowsOf: the rows in the text of one batch. */
export function sweepsOf(
  lines: readonly LedgerLine[],
  rowsOf: (csv: string) => readonly SweepRow[],
): readonly KeptSweep[] {
  const batches = linesOf(lines, 'sweep-rows');
  return linesOf(lines, 'sweep').map(({ line, body }) => {
    const own = batches.filter((b) => b.body.sweep === line.id);
    const rows = own.flatMap((batch) => rowsOf(batch.body.csv));
    return { id: line.id, boardId: line.boardId, setup: body, rows };
  });
}
