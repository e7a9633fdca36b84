'use client';
import { useEffect, useSyncExternalStore } from 'react';
import type * as engineRoom from './engineRoom';
import { brokenDown, useWorkers } from './workers';

/** What a job's page works out for itself. */
export type Engine = typeof engineRoom;

let engine: Engine | null = null;
/** The turn in which it was asked for last. */
let asked: number | null = null;
const listeners = new Set<() => void>();

async function fetchEngine(turn: number): Promise<void> {
  if (engine || asked === turn) return;
  asked = turn;
  try {
    engine = await import('./engineRoom');
    for (const listener of listeners) listener();
  } catch {
    brokenDown(turn);
  }
}

/**
 * What judges readings and hazard in the page: null until it is fetched, which begins once the page stands. The server has
 * worked out what shows until then. That it cannot be fetched is told in the frame, with another try.
 */
export function useEngine(): Engine | null {
  const { turn } = useWorkers();
  useEffect(() => void fetchEngine(turn), [turn]);
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => engine,
    () => null,
  );
}
