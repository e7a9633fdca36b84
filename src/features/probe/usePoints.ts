'use client';
import { useMemo, useState } from 'react';
import { pointKey } from '@/core/diagnose';
import type { ProbePoint } from '@/core/diagnose';
import { useSuspects } from '@/features/frame/SuspectsContext';
import type { PlanEntry } from '@/workers/messages';

/** The plan's points and the one being taken now. What the technician chose stays until it is read. */
export function usePoints(): {
  readonly plan: readonly PlanEntry[];
  readonly current: PlanEntry | null;
  choose(point: PlanEntry | null): void;
  next(): void;
  back(): void;
} {
  const { weighed, skip } = useSuspects();
  const [chosen, setChosen] = useState<PlanEntry | null>(null);
  const [past, setPast] = useState<readonly PlanEntry[]>([]);
  const plan = useMemo(() => weighed?.plan ?? [], [weighed]);
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
