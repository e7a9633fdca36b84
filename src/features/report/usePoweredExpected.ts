'use client';
import { useEffect, useState } from 'react';
import type { Board } from '@/core/circuit';
import type { PoweredReadingBody } from '@/core/ledger';
import type { PoweredReading } from '@/core/work';
import { openPoweredWorker } from '@/features/job/poweredWorker';
import type { PoweredAnswer, PoweredAsked } from '@/workers/poweredMessages';

const conditionOf = ({ source, load }: PoweredReadingBody): string => `${source} ${load}`;

/**
 * What a sound unit would have shown where readings were taken under power, worked out in a worker, one condition after the
 * other; undefined: not yet, null: nothing can be expected.
 */
export function usePoweredExpected(
  board: Board,
  bodies: readonly PoweredReadingBody[],
): readonly (PoweredReading | null | undefined)[] {
  const [told, setTold] = useState<{
    readonly of: readonly PoweredReadingBody[];
    readonly by: ReadonlyMap<PoweredReadingBody, PoweredReading | null>;
  } | null>(null);
  useEffect(() => {
    if (bodies.length === 0) return;
    const worker = openPoweredWorker();
    const groups = [...new Set(bodies.map(conditionOf))].map((key) => bodies.filter((b) => conditionOf(b) === key));
    const by = new Map<PoweredReadingBody, PoweredReading | null>();
    worker.onmessage = ({ data }: MessageEvent<PoweredAnswer>) => {
      groups[data.id]?.forEach((body, i) => by.set(body, data.type === 'expected' ? (data.readings[i] ?? null) : null));
      setTold({ of: bodies, by: new Map(by) });
    };
    groups.forEach((group, id) => {
      const [{ source, load }] = group as [PoweredReadingBody];
      const message: PoweredAsked = { type: 'expected', id, board, condition: { source, load }, places: group };
      worker.postMessage(message);
    });
    return () => worker.terminate();
  }, [board, bodies]);
  return bodies.map((body) => (told?.of === bodies ? told.by.get(body) : undefined));
}
