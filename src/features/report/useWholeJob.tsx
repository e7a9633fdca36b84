'use client';
import ELK from 'elkjs/lib/elk-api.js';
import { useRef, useState } from 'react';
import { netKey } from '@/core/circuit';
import { operatingPoint } from '@/core/operate';
import { formatQuantity } from '@/core/quantity';
import { schematicGraph } from '@/core/schematic';
import { recogniseStages } from '@/core/stages';
import type { Board } from '@/core/circuit';
import { useJob } from '@/features/job/JobContext';
import { Drawing } from '@/features/schematic/Drawing';
import { layOut } from '@/features/schematic/elkLayout';
import { plainSvg } from '@/features/schematic/saveSvg';
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
    const engine = new ELK({ workerUrl: '/elk-worker.min.js' });
    const stop = (): void => gone.abort();
    try {
      const drawings: { board: number; svg: string }[] = [];
      for (const [i, { board }] of boards.entries()) {
        setSending({ share: i / (boards.length + 1), stop });
        const svg = board.parts.length > 0 ? await drawn(board, engine) : null;
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
      engine.terminateWorker();
      setSending(null);
    }
  };
  return [sending, save];
}

const nothing = (): void => {};

/** The drawing of a board as an SVG document. */
async function drawn(board: Board, engine: InstanceType<typeof ELK>): Promise<string | null> {
  const { renderToStaticMarkup } = await import('react-dom/server');
  const map = recogniseStages(board);
  const layout = await layOut(schematicGraph(board, map), engine).catch(() => null);
  if (!layout) return null;
  const volts = new Map(
    operatingPoint(board).computed.map(({ red, nominal }) => [netKey(red), formatQuantity(nominal, 'V')]),
  );
  return plainSvg(
    renderToStaticMarkup(
      <svg>
        <Drawing
          layout={layout}
          board={board}
          selection={{}}
          islands={map.islands}
          volts={volts}
          onPickPart={nothing}
        />
      </svg>,
    ),
    layout,
  );
}
