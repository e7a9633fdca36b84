'use client';
import Link from 'next/link';
import type { Board } from '@/core/circuit';
import { faultWords } from '@/core/fault';
import { useJob } from '@/features/job/JobContext';
import type { Weighed } from '@/features/job/SuspectsContext';
import { Button } from '@/ui/Button';
import { Notice } from '@/ui/Notice';
import type { PlanEntry } from '@/workers/messages';
import { asPlanned, useAssumedPlaces } from './PermitList';
import { percent } from './SuspectList';

/** Odds from which what these readings cannot see is gone for in another way, though not all that they see is ruled out. */
const UNSEEN_LIKELY = 0.9;

/**
 * Where the fault is most likely none that these readings see, while some are not ruled out yet: says so, what the others
 * still hold, and the shorter way on: power, or what is to be read for its permit.
 */
export function LikelyUnseen({
  board,
  weighed: { suspects, permit },
  onChoose,
  onPower,
}: {
  board: Board;
  weighed: Weighed;
  onChoose(point: PlanEntry): void;
  onPower(): void;
}) {
  const { job } = useJob();
  const [unseen, ...seen] = suspects;
  const likely = unseen?.invisible === true && unseen.probability >= UNSEEN_LIKELY;
  const assumed = useAssumedPlaces(board, likely ? permit : null);
  if (!likely) return null;
  // What was read or found speaks against power: then no reading brings it nearer.
  const [next] = permit?.earnable ? permit.clearing : [];
  const named = seen.slice(0, 2).map((s) => faultWords(board, s.fault));
  const words = [...named, ...(seen.length > 2 ? ['others'] : [])].join(', ') || 'next to nothing';
  return (
    <Notice kind="note">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <p className="min-w-64 flex-1">
          <strong>Most likely nothing that these readings see ({percent(unseen.probability)}).</strong> Not ruled out of
          what they see: {words} ({percent(1 - unseen.probability)}). The plan goes on with{' '}
          {seen.length > 1 ? 'those' : 'it'}
          {(permit?.allowed || next) && '; power is the shorter way'}.
        </p>
        {permit?.allowed ? (
          <Button onClick={onPower}>Read it under power</Button>
        ) : next && assumed.has(next) ? (
          <Link href={`/jobs/${job.tag}/board`} className="text-slate underline underline-offset-4 hover:text-ink">
            Confirm in Trace what is there, then earn the permit
          </Link>
        ) : (
          next && (
            <Button onClick={() => onChoose(asPlanned(next))}>
              Earn the permit: {permit!.clearing.length === 1 ? 'one reading' : `${permit!.clearing.length} readings`}
            </Button>
          )
        )}
      </div>
    </Notice>
  );
}
