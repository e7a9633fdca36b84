'use client';
import { useSyncExternalStore } from 'react';

interface Watched {
  /** Some worker could not be fetched, or broke down. */
  readonly failed: boolean;
  /** Grows each time they are begun anew. */
  readonly turn: number;
}

const FIRST: Watched = { failed: false, turn: 0 };
let now = FIRST;
const listeners = new Set<() => void>();

function tell(next: Watched): void {
  now = next;
  for (const listener of listeners) listener();
}

/** Watches over a worker: one that cannot be fetched, or breaks down, is told in the frame of the job. */
export function watched(worker: Worker): Worker {
  const { turn } = now;
  worker.addEventListener('error', () => brokenDown(turn));
  return worker;
}

/** What was begun in a turn could not be fetched, or broke down; of an earlier turn it concerns nobody any more. */
export function brokenDown(turn: number): void {
  if (turn === now.turn) tell({ ...now, failed: true });
}

/** Lets what computes begin anew. */
export const beginAnew = (): void => tell({ failed: false, turn: now.turn + 1 });

/** How the workers of this page are. */
export const useWorkers = (): Watched =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => now,
    () => FIRST,
  );
