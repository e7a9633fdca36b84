'use client';
import { linesOf } from '@/core/ledger';
import { useMemo } from 'react';
import { useJob } from '@/features/job/JobContext';
import { useWorkedVolts } from '@/features/job/useWorkedVolts';
import { readSheet } from './sheet';
import { SumsScreen } from './SumsScreen';

/** Bench sums inside a job: inputs can follow its board, and a sum can be kept in its log. */
export function JobSums() {
  const { job, active, lines, addLine } = useJob();
  useWorkedVolts(active.board);
  const kept = useMemo(
    () =>
      linesOf(lines, 'sum')
        .filter(({ line }) => line.boardId === null || line.boardId === active.id)
        .map(({ line, body }) => ({ ...body, id: line.id }))
        .reverse(),
    [lines, active.id],
  );
  return (
    <SumsScreen
      place={`${job.tag} ${active.id}`}
      board={active.board}
      kept={kept}
      onKeep={async (state, words) => {
        const { given, sum } = readSheet(state, active.board);
        const bound = Object.fromEntries(Object.entries(state.bound).map(([key, { figure }]) => [key, figure]));
        const inputs = Object.fromEntries(
          Object.entries(given).map(([key, value]) => [key, typeof value === 'object' ? [...value] : value]),
        );
        return (await addLine({ kind: 'sum', body: { name: sum.name, inputs, bound, words } }, active.id)) !== null;
      }}
    />
  );
}
