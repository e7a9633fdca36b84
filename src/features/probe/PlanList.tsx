'use client';
import { easiestPlace } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { pointKey } from '@/core/diagnose';
import { Hint } from '@/ui/Hint';
import { MODE_NAMES } from '@/features/frame/lineWords';
import type { PlanEntry } from '@/workers/messages';
import { SHOWN_POINTS } from './following';
import { waitWords } from './waitWords';

/** The plan, best next first: where, what it separates, what it costs. */
export function PlanList({
  board,
  plan,
  current,
  onChoose,
}: {
  board: Board;
  plan: readonly PlanEntry[];
  current: PlanEntry | null;
  onChoose(point: PlanEntry): void;
}) {
  const place = (net: string): string => easiestPlace(board, net);
  return (
    <ol className="flex flex-col">
      {plan.slice(0, SHOWN_POINTS).map((p) => {
        const here = current !== null && pointKey(p) === pointKey(current);
        return (
          <li key={pointKey(p)}>
            <Hint text={`${place(p.red)} from ${place(p.black)}`} acts>
              <button
                type="button"
                aria-current={here ? 'true' : undefined}
                onClick={() => onChoose(p)}
                className={`flex w-full items-baseline gap-2 px-2 py-0.5 text-left hover:bg-raised ${here ? 'border-l-2 border-brass bg-raised' : 'border-l-2 border-transparent'}`}
              >
                <span className="w-20 shrink-0 text-sm">{MODE_NAMES[p.mode]}</span>
                <span className="min-w-0 flex-1">
                  <span className="block truncate">
                    {place(p.red)} <span className="text-faint">from</span> {place(p.black)}
                  </span>
                  <span className="block text-xs text-faint">
                    {splitWords(p)}, {waitWords(lasts(p))}
                  </span>
                </span>
              </button>
            </Hint>
          </li>
        );
      })}
    </ol>
  );
}

/** Moving the leads, seconds, at the most. */
const MOVING = 13;

/** How long a reading takes, seconds: what the plan charges for waiting is more than that. */
function lasts({ seconds, settle, creep }: PlanEntry): number {
  return Math.min(seconds, MOVING + (creep?.seconds ?? settle));
}

/** What a reading separates, in words. */
export function splitWords(p: PlanEntry): string {
  if (p.again) return 'once more: much hangs on this one reading';
  const total = p.split.reduce((a, b) => a + b, 0);
  return p.split.length > 1
    ? `splits ${total} suspects ${p.split.join(' / ')}`
    : `weighs ${total === 1 ? 'the last suspect' : `${total} suspects`} once more`;
}
