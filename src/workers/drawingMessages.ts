import type { Board } from '@/core/circuit';
import type { Drawn, Standing } from '@/core/drawing';

/** A board to be drawn, and where everything stood when it was drawn last. */
export interface DrawingAsked {
  readonly id: number;
  readonly board: Board;
  readonly before: Standing | null;
}

export type DrawingAnswer =
  | { readonly type: 'drawn'; readonly id: number; readonly drawn: Drawn }
  | { readonly type: 'failed'; readonly id: number; readonly sentence: string };
