import { watched } from '@/features/job/workers';
import { workerName } from '@/wire/choices';
import { useCallback, useEffect, useRef } from 'react';
import type { SweepColumn } from '@/core/sweep';
import type { SweepAnswer, SweepAsked } from '@/workers/sweepMessages';

/** Reads tables in a worker, so that a long one does not hold the page. */
export function useTableReader(): (text: string, setBy: SweepColumn) => Promise<SweepAnswer> {
  const worker = useRef<Worker | null>(null);
  const waiting = useRef(new Map<number, (answer: SweepAnswer) => void>());
  useEffect(() => {
    const made = watched(
      new Worker(new URL('../../workers/sweep.worker.ts', import.meta.url), {
        type: 'module',
        name: workerName(),
      }),
    );
    worker.current = made;
    made.onmessage = ({ data }: MessageEvent<SweepAnswer>) => {
      waiting.current.get(data.id)?.(data);
      waiting.current.delete(data.id);
    };
    return () => made.terminate();
  }, []);
  const count = useRef(0);
  return useCallback((text, setBy) => {
    const id = ++count.current;
    const asked: SweepAsked = { id, text, setBy };
    return new Promise((resolve) => {
      waiting.current.set(id, resolve);
      worker.current?.postMessage(asked);
    });
  }, []);
}
