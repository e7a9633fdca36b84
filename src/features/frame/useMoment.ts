'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Moment } from '@/core/safety';

const TICK_MS = 5000;

/**
 * The server's time now, as this window knows it: what the server last said and what has passed since by this
 * machine's clocks, the one that says more. It never runs backward.
 */
export function useMoment(first: Moment): readonly [Moment, (said: Moment) => void] {
  const [now, setNow] = useState(first);
  const said = useRef<{ moment: Moment; steady: number; wall: number } | null>(null);
  const pass = useCallback(() => {
    if (!said.current) return;
    const { moment, steady, wall } = said.current;
    const seconds = Math.max(0, (performance.now() - steady) / 1000, (Date.now() - wall) / 1000);
    setNow({
      ...moment,
      at: moment.at + seconds * 1000,
      uptime: moment.uptime === null ? null : moment.uptime + seconds,
    });
  }, []);
  const hear = useCallback((moment: Moment) => {
    said.current = { moment, steady: performance.now(), wall: Date.now() };
  }, []);
  useEffect(() => {
    if (!said.current) hear(first);
    const timer = window.setInterval(pass, TICK_MS);
    return () => window.clearInterval(timer);
  }, [first, hear, pass]);
  return [now, hear];
}
