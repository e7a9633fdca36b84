'use client';
import { useCallback, useEffect, useState } from 'react';
import type { Board } from '@/core/circuit';
import type { Drawing, Standing } from '@/core/drawing';
import { Stopped, drawInWorker } from './drawingWorker';

/** A drawing with the board that it is of: while another is being made, the drawing stays that of the old board. */
interface DrawnBoard {
  readonly drawing: Drawing;
  readonly board: Board;
}

/** Where everything stands on the boards drawn so far, by their titles: as long as the page is open they stay there. */
const STANDING = new Map<string, Standing>();

/** A board as it is drawn; null until it is. Failed, or stopped by somebody, it is drawn no more until `anew`, which places everything afresh. */
export function useDrawing(board: Board): {
  readonly drawn: DrawnBoard | null;
  readonly failed: boolean;
  readonly stopped: boolean;
  readonly anew: () => void;
} {
  const [drawn, setDrawn] = useState<DrawnBoard | null>(null);
  const [ended, setEnded] = useState<'failed' | 'stopped' | null>(null);
  const [turn, setTurn] = useState(0);
  useEffect(() => {
    let stale = false;
    drawInWorker(board, STANDING.get(board.title) ?? null)
      .then(({ drawing, standing }) => {
        STANDING.set(board.title, standing);
        if (stale) return;
        setDrawn({ drawing, board });
        setEnded(null);
      })
      .catch((why: unknown) => {
        if (!stale) setEnded(why instanceof Stopped ? 'stopped' : 'failed');
      });
    return () => {
      stale = true;
    };
  }, [board, turn]);
  const anew = useCallback(() => {
    STANDING.delete(board.title);
    setEnded(null);
    setTurn((t) => t + 1);
  }, [board.title]);
  return { drawn, failed: ended === 'failed', stopped: ended === 'stopped', anew };
}
