import type { SweepColumn, SweepRow, SweepTrouble } from '@/core/sweep';

/** A table to read: `id` comes back with the answer. */
export interface SweepAsked {
  readonly id: number;
  readonly text: string;
  readonly setBy: SweepColumn;
}

/** What was read: the rows, those that could not be, and the rows as the text that is kept. */
export interface SweepAnswer {
  readonly id: number;
  readonly rows: readonly SweepRow[];
  readonly troubles: readonly SweepTrouble[];
  readonly csv: string;
}
