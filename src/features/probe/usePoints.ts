'use client';
import { useMemo, useState } from 'react';
import { boardNets, netKey } from '@/core/circuit';
import { pointKey } from '@/core/diagnose';
import type { ProbePoint } from '@/core/diagnose';
import { useJob } from '@/features/job/JobContext';
import { useSuspects } from '@/features/job/SuspectsContext';
import type { PlanEntry } from '@/workers/messages';

/**
 * The plan's points and the one being taken now. What the technician chose, or has begun to type at, stays until it
 * is read, however the plan changes beneath it; a point already read here is left out before the new plan is there.
 *
 * begun  where a figure was half typed when this board was left.
 */
export function usePoints(begun: PlanEntry | null): {
  readonly plan: readonly PlanEntry[];
  readonly current: PlanEntry | null;
  choose(point: PlanEntry | null): void;
  next(): void;
  back(): void;
} {
  const { active, lines, waiting } = useJob();
  const { weighed, thinking, skip } = useSuspects();
  const [chosen, setChosen] = useState<PlanEntry | null>(begun);
  const [past, setPast] = useState<readonly PlanEntry[]>([]);
  const plan = useMemo(() => {
    const undone = new Set(lines.map((l) => l.reverses));
    const taken = new Set(
      [...lines.filter((l) => !undone.has(l.id)), ...waiting].flatMap(({ boardId, entry }) =>
        boardId === active.id && entry.kind === 'reading' ? [pointKey(entry.body)] : [],
      ),
    );
    const nets = new Set(boardNets(active.board).map(netKey));
    const there = (p: PlanEntry): boolean => nets.has(netKey(p.red)) && nets.has(netKey(p.black));
    return (weighed?.plan ?? []).filter((p) => (p.again ? !thinking : !taken.has(pointKey(p))) && there(p));
  }, [weighed, thinking, active.id, active.board, lines, waiting]);
  const current = chosen ?? plan[0] ?? null;
  const next = (): void => {
    if (!current) return;
    setPast((kept) => [...kept, current]);
    skip(plain(current));
    setChosen(plan.find((p) => pointKey(p) !== pointKey(current)) ?? null);
  };
  const back = (): void => {
    const last = past.at(-1);
    if (!last) return;
    setPast((kept) => kept.slice(0, -1));
    setChosen(last);
  };
  return { plan, current, choose: setChosen, next, back };
}

function plain({ mode, red, black }: ProbePoint): ProbePoint {
  return { mode, red, black };
}
