import type { Board } from '@/core/circuit';
import type { Drawn, Standing } from '@/core/drawing';
import { watched } from '@/features/job/workers';
import { workerName } from '@/wire/choices';
import type { DrawingAnswer, DrawingAsked } from '@/workers/drawingMessages';

let worker: Worker | null = null;
let last = 0;
const waiting = new Map<number, { readonly done: (drawn: Drawn) => void; readonly failed: (why: Error) => void }>();

function open(): Worker {
  if (worker) return worker;
  const made = watched(
    new Worker(new URL('../../workers/drawing.worker.ts', import.meta.url), { type: 'module', name: workerName() }),
  );
  made.addEventListener('message', ({ data }: MessageEvent<DrawingAnswer>) => {
    const asked = waiting.get(data.id);
    waiting.delete(data.id);
    if (data.type === 'drawn') asked?.done(data.drawn);
    else asked?.failed(new Error(data.sentence));
  });
  made.addEventListener('error', () => {
    for (const { failed } of waiting.values()) failed(new Error('the drawing could not be made'));
    waiting.clear();
    worker = null;
  });
  worker = made;
  return made;
}

/** Has a board drawn in the worker that all drawings of the page share. before: where everything stood on it last. */
export function drawInWorker(board: Board, before: Standing | null): Promise<Drawn> {
  const id = ++last;
  return new Promise((done, failed) => {
    waiting.set(id, { done, failed });
    const asked: DrawingAsked = { id, board, before };
    open().postMessage(asked);
  });
}

/** Drawing was stopped by who waited for it. */
export class Stopped extends Error {}

/** Stops whatever is being drawn; what is asked for after that is drawn again. */
export function stopDrawing(): void {
  worker?.terminate();
  worker = null;
  for (const { failed } of waiting.values()) failed(new Stopped());
  waiting.clear();
}
