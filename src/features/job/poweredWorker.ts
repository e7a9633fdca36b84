/** A worker that works out units under power; whoever opens it ends it. */
import { decimalMark } from '@/core/quantity';
export const openPoweredWorker = (): Worker =>
  new Worker(new URL('../../workers/powered.worker.ts', import.meta.url), { type: 'module', name: decimalMark() });
