'use client';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';

/** How often a window asks for news, how long it waits for them, and without which it knows nothing any more. */
const ASK_MS = 1500;
const WAIT_MS = 3000;
const LOST_MS = 5000;

/**
 * Keeps a window in touch with the server: asks for news again and again, at once when the window comes to the front.
 *
 * about   what the news are of. path: what to ask, made anew each time. onNews: what came.
 * Gives the time since when there has been no contact, milliseconds since 1970, once that is longer than five seconds;
 * null while in touch.
 */
export function useContact<T>(about: string, path: () => string, onNews: (news: T) => void): number | null {
  const [lostSince, setLostSince] = useState<number | null>(null);
  const latest = useRef({ path, onNews });
  useEffect(() => {
    latest.current = { path, onNews };
  });
  // The steady clock decides; the wall clock is for telling people.
  const heard = useRef<{ readonly steady: number; readonly at: number } | null>(null);
  const { data } = useQuery({
    queryKey: ['news', about],
    queryFn: async () => {
      const response = await fetch(latest.current.path(), { cache: 'no-store', signal: AbortSignal.timeout(WAIT_MS) });
      if (!response.ok) throw new Error(`answered ${response.status}`);
      const news = (await response.json()) as T;
      heard.current = { steady: performance.now(), at: Date.now() };
      return { news };
    },
    refetchInterval: ASK_MS,
    refetchIntervalInBackground: true,
    refetchOnWindowFocus: 'always',
    structuralSharing: false,
    gcTime: 0,
  });
  useEffect(() => {
    if (data) latest.current.onNews(data.news);
  }, [data]);
  useEffect(() => {
    heard.current ??= { steady: performance.now(), at: Date.now() };
    const look = (): void => {
      const { steady, at } = heard.current!;
      setLostSince(performance.now() - steady > LOST_MS ? at : null);
    };
    const timer = window.setInterval(look, ASK_MS / 3);
    return () => window.clearInterval(timer);
  }, []);
  return lostSince;
}
