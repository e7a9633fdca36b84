import { linesOf } from '@/core/ledger';
import { useMemo } from 'react';
import { useJob } from './JobContext';
import { useEngine } from './useEngine';

/** How many of the sums kept for this board follow a figure that has moved since; none until that can be worked out. */
export function useMovedSums(): number {
  const { lines, active } = useJob();
  const engine = useEngine();
  return useMemo(
    () =>
      !engine
        ? 0
        : linesOf(lines, 'sum').filter(
            ({ line, body }) =>
              line.boardId === active.id &&
              Object.entries(body.bound).some(([key, name]) => {
                const figure = engine.figureOf(active.board, name);
                return figure !== undefined && figure.value !== body.inputs[key];
              }),
          ).length,
    [engine, lines, active.id, active.board],
  );
}
