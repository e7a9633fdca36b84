import { useMemo } from 'react';
import { linesOf } from '@/core/job';
import type { LedgerLine } from '@/core/job';
import type { SweepRow } from '@/core/sweep';
import { useJob } from './JobContext';
import type { LedgerEntry } from '@/wire/ledger';
import { readSweepText } from '@/wire/csv';

type SweepBody = Extract<LedgerEntry, { kind: 'sweep' }>['body'];

/** A sweep of the job with its rows in the order they were written. */
export interface KeptSweep {
  readonly id: string;
  readonly boardId: string | null;
  readonly setup: SweepBody;
  readonly rows: readonly SweepRow[];
}

/** Rows of a log line, read once: a line never changes. */
const readRows = new Map<string, readonly SweepRow[]>();

/** Rows that a worker has read already. */
export function rememberRows(csv: string, rows: readonly SweepRow[]): void {
  readRows.set(csv, rows);
}

function rowsOf(csv: string): readonly SweepRow[] {
  const known = readRows.get(csv);
  if (known) return known;
  const { rows } = readSweepText(csv, 'vin');
  readRows.set(csv, rows);
  return rows;
}

/** The sweeps in a log, oldest first. */
export function sweepsOf(lines: readonly LedgerLine[]): readonly KeptSweep[] {
  const batches = linesOf<{ sweep: string; csv: string }>(lines, 'sweep-rows');
  return linesOf<SweepBody>(lines, 'sweep').map(({ line, body }) => {
    const own = batches.filter((b) => b.body.sweep === line.id);
    const rows = own.flatMap((batch) => rowsOf(batch.body.csv));
    return { id: line.id, boardId: line.boardId, setup: body, rows };
  });
}

/** The sweeps of the board worked on, oldest first. */
export function useSweeps(): readonly KeptSweep[] {
  const { lines, active } = useJob();
  return useMemo(
    () => sweepsOf(lines).filter((s) => s.boardId === null || s.boardId === active.id),
    [lines, active.id],
  );
}
