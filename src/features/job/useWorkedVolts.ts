'use client';
import { useEffect, useState } from 'react';
import type { Board } from '@/core/circuit';
import { fillOperatingPoint, operatingPoint } from '@/core/operate';
import { openPoweredWorker } from './poweredWorker';
import type { PoweredAnswer, PoweredAsked } from '@/workers/poweredMessages';

/** A board that is still being changed is not worked out yet, milliseconds. */
const PAUSE_MS = 400;

/**
 * Has the rails of a board at work worked out in a worker and put into its operating point; true once they are there. The
 * screen that asks shows what else is known until then.
 */
export function useWorkedVolts(board: Board): boolean {
  const [filled, setFilled] = useState<Board | null>(null);
  const known = filled === board || operatingPoint(board).computed.length > 0;
  useEffect(() => {
    if (known || board.parts.length === 0) return;
    let worker: Worker | null = null;
    const timer = setTimeout(() => {
      worker = openPoweredWorker();
      worker.onmessage = ({ data }: MessageEvent<PoweredAnswer>) => {
        // A unit that cannot be worked out leaves what the rooms know without it.
        if (data.type === 'rails') fillOperatingPoint(board, data.volts);
        setFilled(board);
        worker?.terminate();
      };
      worker.onerror = () => setFilled(board);
      const message: PoweredAsked = { type: 'rails', id: 0, board };
      worker.postMessage(message);
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      worker?.terminate();
    };
  }, [board, known]);
  return known;
}
