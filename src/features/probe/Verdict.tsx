'use client';
import { faultWords } from '@/core/fault';
import { useJob } from '@/features/job/JobContext';
import { useSuspects } from '@/features/job/SuspectsContext';
import { Notice } from '@/ui/Notice';
import { PrimaryLink } from '@/ui/PrimaryLink';
import { count } from './WhyThis';

/** The verdict and the one thing to do about it. */
export function Verdict() {
  const { job, active } = useJob();
  const { weighed } = useSuspects();
  const leader = weighed!.suspects[0]!;
  const { board } = active;
  if (weighed!.verdict === 'named') {
    return (
      <div className="flex items-center gap-4 border-2 border-brass bg-raised px-4 py-3">
        <p className="min-w-0 flex-1 text-lg">
          <strong>{faultWords(board, leader.fault)}</strong>
          {weighed!.evidence && weighed!.evidence.for.length > 0 && (
            <span className="text-sm text-faint"> rests on {count(weighed!.evidence.for)}</span>
          )}
          {leader.group.length > 1 && (
            <span className="block text-sm text-faint">
              or what reads the same:{' '}
              {leader.group
                .slice(1, 4)
                .map((g) => faultWords(board, g))
                .join('; ')}
              . Lift a leg to tell.
            </span>
          )}
        </p>
        <PrimaryLink href={`/jobs/${job.tag}/repair?fault=${encodeURIComponent(leader.fault)}`}>
          Call the fault
        </PrimaryLink>
      </div>
    );
  }
  return (
    <Notice kind="note">
      <strong>These readings cannot tell.</strong> What is left reads like a healthy board to diode test and ohms:{' '}
      {leader.group
        .filter((g) => g !== 'none')
        .slice(0, 4)
        .map((g) => faultWords(board, g))
        .join('; ')}{' '}
      and others. Nothing is convicted.
    </Notice>
  );
}
