'use client';
import { useMemo } from 'react';
import { repairState } from '@/core/job';
import type { RepairState } from '@/core/job';
import { useJob } from '@/features/job/JobContext';
import type { TracedJobBoard } from '@/core/job';

/** Where the repair of the open job stands. */
export function useRepair(): RepairState<TracedJobBoard> {
  const { boards, active, lines } = useJob();
  return useMemo(() => repairState(boards, active, lines), [boards, active, lines]);
}
