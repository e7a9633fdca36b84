/** A worker that works out units under power; whoever opens it ends it. */
import { watched } from './workers';
import { workerName } from '@/wire/choices';
export const openPoweredWorker = (): Worker =>
  watched(
    new Worker(new URL('../../workers/powered.worker.ts', import.meta.url), { type: 'module', name: workerName() }),
  );
