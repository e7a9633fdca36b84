'use client';
import { useEffect, useRef, useState } from 'react';

/** How often a window asks for news, how long it waits for them, and without which it knows nothing any more. */
const ASK_MS = 1500;
const WAIT_MS = 3000;
const LOST_MS = 5000;

/**
 * Keeps a window in touch with the server: asks for news again and again, at once when the window comes to the front.
 *
 * path   what to ask, made anew each time. onNews: what came.
 * Gives the time since when there has been no contact, milliseconds since 1970, once that is longer than five seconds;
 * null while in touch.
 */
export function useContact<T>(path: () => string, onNews: (news: T) => void): number | null {
  const [lostSince, setLostSince] = useState<number | null>(null);
  const latest = useRef({ path, onNews });
  useEffect(() => {
    latest.current = { path, onNews };
  });
  useEffect(() => {
    let ended = false;
    let asking = false;
    // The steady clock decides; the wall clock is for telling people.
    let heard = performance.now();
    let heardAt = Date.now();
    const look = (): void => {
      if (!ended) setLostSince(performance.now() - heard > LOST_MS ? heardAt : null);
    };
    const ask = async (): Promise<void> => {
      if (asking || ended) return;
      asking = true;
      try {
        const response = await fetch(latest.current.path(), {
          cache: 'no-store',
          signal: AbortSignal.timeout(WAIT_MS),
        });
        if (response.ok) {
          const news = (await response.json()) as T;
          if (ended) return;
          heard = performance.now();
          heardAt = Date.now();
          latest.current.onNews(news);
        }
      } catch {
        // No contact: time tells.
      } finally {
        asking = false;
        look();
      }
    };
    const timer = window.setInterval(() => {
      look();
      void ask();
    }, ASK_MS);
    const front = (): void => void (document.visibilityState === 'visible' && ask());
    document.addEventListener('visibilitychange', front);
    window.addEventListener('focus', front);
    return () => {
      ended = true;
      window.clearInterval(timer);
      document.removeEventListener('visibilitychange', front);
      window.removeEventListener('focus', front);
    };
  }, []);
  return lostSince;
}
