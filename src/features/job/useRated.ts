'use client';
import { watched } from './workers';
import { workerName } from '@/wire/choices';
import { useEffect, useState } from 'react';
import type { Board } from '@/core/circuit';
import type { BoardAnswer, BoardAsked, RatedBoard } from '@/workers/workingMessages';

/** How hard the parts of a board are worked and what its unit can give by them, worked out in a worker; undefined: not yet. */
export function useRated(board: Board): RatedBoard | null | undefined {
  const [told, setTold] = useState<{ readonly of: Board; readonly said: RatedBoard | null } | null>(null);
  useEffect(() => {
    if (board.parts.length === 0) return;
    const worker = watched(
      new Worker(new URL('../../workers/working.worker.ts', import.meta.url), {
        type: 'module',
        name: workerName(),
      }),
    );
    worker.onmessage = ({ data }: MessageEvent<BoardAnswer>) => {
      if (data.type === 'progress') return;
      setTold({ of: board, said: data.type === 'rate' ? data.rated : null });
      worker.terminate();
    };
    const message: BoardAsked = { type: 'rate', id: 1, board, supposed: [] };
    worker.postMessage(message);
    return () => worker.terminate();
  }, [board]);
  return told?.of === board ? told.said : undefined;
}
