import { useMemo } from 'react';
import { sweepsOf } from '@/core/job';
import type { KeptSweep } from '@/core/job';
import type { SweepRow } from '@/core/sweep';
import { readSweepText } from '@/wire/csv';
import { useJob } from './JobContext';

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

/** Every sweep of the job, oldest first. */
export function useAllSweeps(): readonly KeptSweep[] {
  const { lines } = useJob();
  return useMemo(() => sweepsOf(lines, rowsOf), [lines]);
}

/** The sweeps of the board worked on, oldest first. */
export function useSweeps(): readonly KeptSweep[] {
  const { active } = useJob();
  const all = useAllSweeps();
  return useMemo(() => all.filter((s) => s.boardId === null || s.boardId === active.id), [all, active.id]);
}
