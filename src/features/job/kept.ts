'use client';
import { useSyncExternalStore } from 'react';

const listeners = new Set<() => void>();

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  window.addEventListener('storage', listener);
  return () => {
    listeners.delete(listener);
    window.removeEventListener('storage', listener);
  };
}

/** A short text that this browser keeps under a name; null where it has none, and while the page comes from the server. */
export function useKept(name: string): string | null {
  return useSyncExternalStore(
    subscribe,
    () => window.localStorage.getItem(name),
    () => null,
  );
}

/** Keeps a short text in this browser; whoever shows it shows the new one. */
export function keep(name: string, text: string): void {
  window.localStorage.setItem(name, text);
  for (const listener of listeners) listener();
}

const never = (): (() => void) => () => {};

/** Whether this is drawn in a browser: false while the page comes from the server. */
export const useInBrowser = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
