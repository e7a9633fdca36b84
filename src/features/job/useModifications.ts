import { useMemo } from 'react';
import { modificationsOf } from '@/core/job';
import type { Modification } from '@/core/job';
import { useJob } from './JobContext';
import type { TracedJobBoard } from '@/core/job';
import { useAllSweeps } from './useSweeps';

/** The changes of a board, newest first; of the board worked on unless told. */
export function useModifications(home?: TracedJobBoard): readonly Modification[] {
  const { lines, active: current } = useJob();
  const sweeps = useAllSweeps();
  const active = home ?? current;
  return useMemo(() => modificationsOf(lines, active, sweeps), [lines, active, sweeps]);
}
