'use client';
import { useRef, useState } from 'react';
import { drawingSvg, titleLines } from '@/core/drawing';
import type { Board } from '@/core/circuit';
import { useJob } from '@/features/job/JobContext';
import { drawInWorker } from '@/features/schematic/drawingWorker';
import type { Sending } from '@/ui/FileDrop';
import { saveFile } from '@/ui/saveFile';

/** Saves the whole job as a zip file: each board is drawn here, the rest comes from the server. Sending: how far it is. */
export function useWholeJob(): readonly [Sending | null, () => Promise<void>] {
  const { job, boards, setTrouble } = useJob();
  const [sending, setSending] = useState<Sending | null>(null);
  const stopped = useRef<AbortController | null>(null);
  const save = async (): Promise<void> => {
    const gone = new AbortController();
    stopped.current = gone;
    const stop = (): void => gone.abort();
    try {
      const drawings: { board: number; svg: string }[] = [];
      for (const [i, { board }] of boards.entries()) {
        setSending({ share: i / (boards.length + 1), stop });
        const svg = board.parts.length > 0 ? await drawn(board) : null;
        if (gone.signal.aborted) return;
        if (svg !== null) drawings.push({ board: i, svg });
      }
      setSending({ share: boards.length / (boards.length + 1), stop });
      const answer = await fetch(`/api/jobs/${job.tag}/export`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ drawings }),
        signal: gone.signal,
      });
      if (!answer.ok) throw new Error(`answered ${answer.status}`);
      saveFile(`${job.tag}.zip`, 'application/zip', await answer.blob());
    } catch {
      if (!gone.signal.aborted)
        setTrouble({
          code: 'no-connection',
          sentence: 'The job could not be put together.',
          remedy: 'Nothing is lost. Check that the application runs, then try again.',
        });
    } finally {
      setSending(null);
    }
  };
  return [sending, save];
}

/** The drawing of a board as an SVG document. */
async function drawn(board: Board): Promise<string | null> {
  const made = await drawInWorker(board, null).catch(() => null);
  return made && drawingSvg(made.drawing, board.title, titleLines(board));
}
