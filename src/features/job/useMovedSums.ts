import { linesOf } from '@/core/ledger';
import { useMemo } from 'react';
import { figureOf } from '@/core/figures';
import { useJob } from './JobContext';

/** How many of the sums kept for this board follow a figure that has moved since. */
export function useMovedSums(): number {
  const { lines, active } = useJob();
  return useMemo(
    () =>
      linesOf(lines, 'sum').filter(
        ({ line, body }) =>
          line.boardId === active.id &&
          Object.entries(body.bound).some(([key, name]) => {
            const figure = figureOf(active.board, name);
            return figure !== undefined && figure.value !== body.inputs[key];
          }),
      ).length,
    [lines, active.id, active.board],
  );
}
