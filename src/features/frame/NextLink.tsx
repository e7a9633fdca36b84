'use client';
import type { Step } from '@/core/job';
import { PrimaryLink } from '@/ui/PrimaryLink';
import { useJob, useStanding } from '@/features/job/JobContext';

/** The way to what is to be done next; from these steps, which stand here already or come later, to another. */
export function NextLink({ from, otherwise }: { from: readonly Step[]; otherwise: Step }) {
  const { job } = useJob();
  const { progress } = useStanding();
  const step = from.includes(progress.attention) ? otherwise : progress.attention;
  return <PrimaryLink href={`/jobs/${job.tag}/${step}`}>{progress.next}</PrimaryLink>;
}
