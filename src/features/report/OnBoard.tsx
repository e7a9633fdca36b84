'use client';
import { useJob } from '@/features/job/JobContext';

/** Names the board where a job has several. */
export function OnBoard({ id }: { id: string | null }) {
  const { boards } = useJob();
  const home = boards.length > 1 && boards.find((b) => b.id === id);
  return home ? <span className="text-faint">{home.label}: </span> : null;
}
