import { useMemo } from 'react';
import { figureOf } from '@/core/figures';
import { linesOf } from '@/core/job';
import { useJob } from './JobContext';

interface KeptBody {
  readonly inputs: Readonly<Record<string, unknown>>;
  readonly bound: Readonly<Record<string, string>>;
}

/** How many of the sums kept for this board follow a figure that has moved since. */
export function useMovedSums(): number {
  const { lines, active } = useJob();
  return useMemo(
    () =>
      linesOf<KeptBody>(lines, 'sum').filter(
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
