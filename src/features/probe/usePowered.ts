'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Board } from '@/core/circuit';
import { isLikeCondition } from '@/core/job';
import type { AlivePoint, OperatingCondition, PoweredMode, TakenReading } from '@/core/work';
import { openPoweredWorker } from '@/features/job/poweredWorker';
import type { PoweredAnswer, PoweredAsked, PoweredUnit } from '@/workers/poweredMessages';

/** What the worker said of a unit, and of which one. */
interface Told {
  readonly of: string;
  readonly condition: OperatingCondition;
  readonly unit: PoweredUnit | null;
  readonly failed: string | null;
}

/** A source that is still being typed is not worked out yet, milliseconds. */
const PAUSE_MS = 250;

/**
 * The unit of a board under power in some condition, worked out in a worker; null condition: not yet.
 *
 * readings  what was read on it in that condition: stands in place of what is computed.
 * place  asks for one more place of the unit as it was worked out last.
 */
export function usePowered(
  board: Board,
  condition: OperatingCondition | null,
  readings: readonly TakenReading[],
): {
  readonly unit: PoweredUnit | null;
  readonly working: boolean;
  readonly failed: string | null;
  stop(): void;
  place(mode: PoweredMode, red: string, black: string): Promise<AlivePoint | null>;
} {
  const worker = useRef<Worker | null>(null);
  const count = useRef(0);
  const places = useRef(new Map<number, (point: AlivePoint | null) => void>());
  const [told, setTold] = useState<Told | null>(null);
  const [stopped, setStopped] = useState<string | null>(null);
  const source = condition?.source ?? null;
  const load = condition?.load ?? null;
  const [asked, setAsked] = useState<{ readonly board: Board; readonly key: string } | null>(null);
  const key = source === null ? null : `${source} ${load}`;

  const latest = useRef(readings);
  const letGo = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
    for (const answer of places.current.values()) answer(null);
    places.current.clear();
  }, []);

  useEffect(() => {
    if (source === null || load === null || key === null) return;
    const timer = setTimeout(() => {
      letGo();
      const made = openPoweredWorker();
      worker.current = made;
      made.onmessage = ({ data }: MessageEvent<PoweredAnswer>) => {
        if (data.type === 'place') {
          places.current.get(data.id)?.(data.point);
          places.current.delete(data.id);
        } else if (data.type === 'unit')
          setTold({ of: key, condition: { source, load }, unit: data.unit, failed: null });
        else if (data.type === 'failed')
          setTold({ of: key, condition: { source, load }, unit: null, failed: data.sentence });
      };
      setAsked({ board, key });
      setStopped(null);
      const message: PoweredAsked = {
        type: 'unit',
        id: ++count.current,
        board,
        condition: { source, load },
        readings: latest.current,
      };
      made.postMessage(message);
    }, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [board, source, load, key, letGo]);
  useEffect(() => letGo, [letGo]);
  useEffect(() => {
    if (latest.current === readings) return;
    latest.current = readings;
    const message: PoweredAsked = { type: 'readings', id: ++count.current, readings };
    worker.current?.postMessage(message);
  }, [readings]);

  const place = useCallback((mode: PoweredMode, red: string, black: string) => {
    const id = ++count.current;
    const message: PoweredAsked = { type: 'place', id, mode, red, black };
    return new Promise<AlivePoint | null>((resolve) => {
      if (!worker.current) return resolve(null);
      places.current.set(id, resolve);
      worker.current.postMessage(message);
    });
  }, []);
  const stop = useCallback(() => {
    letGo();
    setStopped(key);
  }, [letGo, key]);
  const own = told !== null && asked?.board === board;
  const here = own && told.of === key;
  // Fed hardly otherwise it stays until it is worked out again: nobody who types at one of its points loses that.
  const like = own && condition !== null && isLikeCondition(told.condition, condition);
  return {
    unit: here || like ? told.unit : null,
    failed: here ? told.failed : null,
    working: key !== null && !here && stopped !== key,
    stop,
    place,
  };
}
