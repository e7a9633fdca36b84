'use client';
import { useSettings } from '@/features/job/SettingsContext';
import type { Board } from '@/core/circuit';
import { faultWords } from '@/core/fault';
import type { UnseenKind } from '@/core/diagnose';
import type { Weighed } from '@/features/job/SuspectsContext';
import { wouldShow } from './wouldShow';
import { WhyThis } from './WhyThis';

/** The suspects, likeliest first: a bar of suspicion, the figure, and what cannot be told apart from each. */
export function SuspectList({ board, weighed }: { board: Board; weighed: Weighed }) {
  const first = weighed.suspects.find((s) => !s.invisible);
  return (
    <ol className="flex flex-col gap-0.5" aria-live="polite">
      {weighed.suspects.slice(0, 5).map((s, i) => (
        <li key={s.fault} className="relative px-2 py-0.5">
          <span
            aria-hidden
            className="absolute inset-y-0 left-0 rounded-sm bg-wash"
            style={{ width: `${Math.max(1.5, 100 * s.probability)}%` }}
          />
          <span className="relative flex items-baseline gap-2">
            <span className="figure w-14 shrink-0 text-right text-brass">{percent(s.probability)}</span>
            <span className="min-w-0">
              <span className="block">{faultWords(board, s.fault)}</span>
              {s.invisible && <Unseen kinds={s.unseen} planned={weighed.instruments} />}
              {s === first && <WhyThis board={board} weighed={weighed} />}
              {i === 0 && !s.invisible && s.group.length > 1 && (
                <span className="block text-xs text-faint">
                  {'not told from '}
                  {s.group
                    .filter((g) => g !== s.fault)
                    .slice(0, 2)
                    .map((g) => faultWords(board, g))
                    .join('; ')}
                  {s.group.length > 3 && `; and ${s.group.length - 3} more`}
                </span>
              )}
            </span>
          </span>
        </li>
      ))}
    </ol>
  );
}

/** What these readings cannot see, by kind of part, and what would; `planned`: the instruments that they are planned with. */
function Unseen({ kinds, planned }: { kinds: readonly UnseenKind[]; planned: readonly string[] }) {
  const { instruments } = useSettings();
  const told = kinds.filter((k) => k.probability >= 0.01).slice(0, 4);
  if (told.length === 0) return null;
  return (
    <span className="block text-xs text-faint">
      {told.map((k) => `${k.words} ${percent(k.probability)}`).join(', ')}:{' '}
      {wouldShow(
        told.map((k) => k.words),
        instruments,
        planned,
      )}
    </span>
  );
}

/** A probability as a whole percentage; small ones as such. */
export function percent(p: number): string {
  if (p < 0.01) return '<1\u202f%';
  return `${Math.min(99, Math.round(100 * p))}\u202f%`;
}
