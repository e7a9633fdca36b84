'use client';
import { useMemo } from 'react';
import { netKey } from '@/core/circuit';
import { withFacts } from '@/core/modify';
import { operatingPoint } from '@/core/operate';
import { formatQuantity } from '@/core/quantity';
import { useJob } from '@/features/job/JobContext';
import { useWorkedVolts } from '@/features/job/useWorkedVolts';

/** Rails that move by less than this share stay as they are. */
const MOVES = 0.02;

/** What a planned change does to every rail of the unit at work, as the engine has it before and after. */
export function MovedRails({ facts }: { facts: readonly string[] }) {
  const { active } = useJob();
  const key = facts.join('\n');
  const after = useMemo(() => withFacts(active.board, key.split('\n')).board, [active.board, key]);
  const before = useWorkedVolts(active.board);
  const known = useWorkedVolts(after);
  if (!before || !known)
    return (
      <p role="status" className="text-sm text-faint">
        Working out what else moves at work …
      </p>
    );
  const was = operatingPoint(active.board).computed;
  const now = new Map(operatingPoint(after).computed.map((c) => [`${netKey(c.red)} ${netKey(c.black)}`, c]));
  if (was.length === 0) return null;
  if (now.size === 0)
    return <p className="text-sm">As computed the unit does not run with it: look at what it touches before.</p>;
  const moved = was.flatMap((w) => {
    const n = now.get(`${netKey(w.red)} ${netKey(w.black)}`);
    return n && Math.abs(n.nominal - w.nominal) > MOVES * Math.abs(w.nominal) ? [[w, n] as const] : [];
  });
  return (
    <p className="text-sm">
      {moved.length === 0 ? (
        'No other rail moves at work.'
      ) : (
        <>
          At work, full load:{' '}
          {moved.map(([w, n], i) => (
            <span key={w.red}>
              {i > 0 && '; '}
              <span className="figure">{w.red}</span> {formatQuantity(w.nominal, 'V')} →{' '}
              <strong className="figure">{formatQuantity(n.nominal, 'V')}</strong> (
              <span className="figure">
                {formatQuantity(n.low, 'V')} to {formatQuantity(n.high, 'V')}
              </span>
              )
            </span>
          ))}
          .
        </>
      )}
    </p>
  );
}
