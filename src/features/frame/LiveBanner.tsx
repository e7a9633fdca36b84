import Link from 'next/link';
import { Bolt } from './Bolt';

/** A job that is live somewhere in the workshop. */
export interface LiveJob {
  readonly tag: string;
  readonly unit: string;
  readonly bench: string;
}

/** What is live on the benches, on every screen until it is isolated. */
export function LiveBanner({ jobs }: { jobs: readonly LiveJob[] }) {
  if (jobs.length === 0) return null;
  return (
    <p role="status" className="no-print shrink-0 bg-oxide px-4 py-1 font-semibold text-ground">
      <Bolt /> LIVE:{' '}
      {jobs.map((job, i) => (
        <span key={job.tag}>
          {i > 0 && ', '}
          <Link href={`/jobs/${job.tag}/safe`} className="underline underline-offset-4">
            {job.tag}
          </Link>{' '}
          {job.unit} on {job.bench}
        </span>
      ))}
    </p>
  );
}
