'use client';
import { useCallback, useEffect, useState } from 'react';
import type { Board } from '@/core/circuit';
import type { Drawing, Standing } from '@/core/drawing';
import { drawInWorker } from './drawingWorker';

/** A drawing with the board that it is of: while another is being made, the drawing stays that of the old board. */
interface DrawnBoard {
  readonly drawing: Drawing;
  readonly board: Board;
}

/** Where everything stands on the boards drawn so far, by their titles: as long as the page is open they stay there. */
const STANDING = new Map<string, Standing>();

/** A board as it is drawn; null until it is. Anew: places everything afresh. */
export function useDrawing(board: Board): {
  readonly drawn: DrawnBoard | null;
  readonly failed: boolean;
  readonly anew: () => void;
} {
  const [drawn, setDrawn] = useState<DrawnBoard | null>(null);
  const [failed, setFailed] = useState(false);
  const [turn, setTurn] = useState(0);
  useEffect(() => {
    let stale = false;
    drawInWorker(board, STANDING.get(board.title) ?? null)
      .then(({ drawing, standing }) => {
        STANDING.set(board.title, standing);
        if (stale) return;
        setDrawn({ drawing, board });
        setFailed(false);
      })
      .catch(() => {
        if (!stale) setFailed(true);
      });
    return () => {
      stale = true;
    };
  }, [board, turn]);
  const anew = useCallback(() => {
    STANDING.delete(board.title);
    setTurn((t) => t + 1);
  }, [board.title]);
  return { drawn, failed, anew };
}
