'use client';
import { useMemo, useState } from 'react';
import { boardNets, netKey } from '@/core/circuit';
import { pointKey } from '@/core/diagnose';
import type { ProbePoint } from '@/core/diagnose';
import { useJob } from '@/features/job/JobContext';
import { useSuspects } from '@/features/job/SuspectsContext';
import type { PlanEntry } from '@/workers/messages';
import { SHOWN_POINTS, following } from './following';

/**
 * The plan's points and the one being taken now. What the technician was shown first, chose, or has begun to type at,
 * stays until it is read, however the plan changes beneath it; a point already read here is left out before the new plan
 * is there.
 *
 * begun  where a figure was half typed when this board was left.
 */
export function usePoints(begun: PlanEntry | null): {
  readonly plan: readonly PlanEntry[];
  readonly current: PlanEntry | null;
  /** Where the figures of one line go: the present point, then the others that are shown; as they were when typing began. */
  readonly places: readonly PlanEntry[];
  choose(point: PlanEntry | null): void;
  begin(): void;
  next(): void;
  back(): void;
} {
  const { active, lines, waiting } = useJob();
  const { weighed, thinking, skip } = useSuspects();
  const [chosen, setChosen] = useState<PlanEntry | null>(begun);
  const [line, setLine] = useState<readonly PlanEntry[] | null>(null);
  const [held, setHeld] = useState<Held | null>(null);
  const [past, setPast] = useState<readonly PlanEntry[]>([]);
  const nets = useMemo(() => new Set(boardNets(active.board).map(netKey)), [active.board]);
  const { taken, read } = useMemo(() => {
    const undone = new Set(lines.map((l) => l.reverses));
    const keys = [...lines.filter((l) => !undone.has(l.id)), ...waiting].flatMap(({ boardId, entry }) =>
      boardId === active.id && entry.kind === 'reading' ? [pointKey(entry.body)] : [],
    );
    return { taken: new Set(keys), read: keys.length };
  }, [active.id, lines, waiting]);
  const plan = useMemo(() => {
    const there = (p: PlanEntry): boolean => nets.has(netKey(p.red)) && nets.has(netKey(p.black));
    return (weighed?.plan ?? []).filter((p) => (p.again ? !thinking : !taken.has(pointKey(p))) && there(p));
  }, [weighed, thinking, nets, taken]);
  const now = `${active.id} ${read}`;
  const whole = weighed !== null && weighed.done === weighed.of;
  // The whole plan takes the place of a first look while nobody can have put a probe down by it yet.
  const better = whole && held?.whole === false && weighed.tookMs < UNTOUCHED_MS;
  if (plan[0] && !thinking && (held?.at !== now || better)) setHeld({ at: now, point: plan[0], whole });
  const shown = held?.at === now && nets.has(netKey(held.point.red)) && nets.has(netKey(held.point.black));
  const current = chosen ?? (shown ? held.point : plan[0]) ?? null;
  const inPlan = current ? [current, ...following(plan.slice(0, SHOWN_POINTS), current)] : [];
  const choose = (point: PlanEntry | null): void => {
    setLine(null);
    setChosen(point);
  };
  const begin = (): void => {
    setChosen(current);
    setLine(inPlan);
  };
  const next = (): void => {
    if (!current) return;
    setPast((kept) => [...kept, current]);
    skip(plain(current));
    choose(following(plan, current)[0] ?? null);
  };
  const back = (): void => {
    const last = past.at(-1);
    if (!last) return;
    setPast((kept) => kept.slice(0, -1));
    choose(last);
  };
  return { plan, current, places: line ?? inPlan, choose, begin, next, back };
}

/** The point that was shown first after the last reading, and whether by all there is to know. */
interface Held {
  readonly at: string;
  readonly point: PlanEntry;
  readonly whole: boolean;
}

/** In less than this nobody has found a point and put probes on it. */
const UNTOUCHED_MS = 3000;

function plain({ mode, red, black }: ProbePoint): ProbePoint {
  return { mode, red, black };
}
