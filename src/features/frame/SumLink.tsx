'use client';
import Link from 'next/link';
import { SUM_TITLES } from '@/core/sums';
import { useJob } from '@/features/job/JobContext';

/** A way to one sum with inputs bound to figures of the board, by input key. */
export function SumLink({
  sum,
  figures,
  typed = {},
  children,
}: {
  sum: string;
  figures: Readonly<Record<string, string>>;
  /** Inputs that are given as if typed. */
  typed?: Readonly<Record<string, string>>;
  children?: string;
}) {
  const { job } = useJob();
  const query = new URLSearchParams({ sum });
  for (const [input, figure] of Object.entries(figures)) query.set(input, `@${figure}`);
  for (const [input, text] of Object.entries(typed)) query.set(input, text);
  return (
    <Link href={`/jobs/${job.tag}/sums?${query.toString()}`} className="text-slate underline underline-offset-4">
      {children ?? SUM_TITLES[sum] ?? sum}
    </Link>
  );
}
