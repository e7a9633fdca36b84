import type { Turn } from './drawing';
import type { IcSides } from './forms';

/** Where a part stood: its cell, and how it was turned; for an IC the sides of its pins. */
export interface Stood {
  readonly col: number;
  readonly row: number;
  readonly turn: Turn;
  readonly flip: boolean;
  readonly sides?: IcSides;
}

/** Where everything stood on a sheet, by the first designator of each symbol: plain data, to be drawn from again. */
export interface Standing {
  readonly cols: number;
  readonly rows: number;
  readonly barrier: number;
  readonly places: Readonly<Record<string, Stood>>;
}
