'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Moment } from '@/core/safety';

const TICK_MS = 5000;

interface Said {
  readonly moment: Moment;
  readonly steady: number;
  readonly wall: number;
}

/** The server's time by what it last said and what has passed since by this machine's clocks, the one that says more. */
function passed({ moment, steady, wall }: Said): Moment {
  const seconds = Math.max(0, (performance.now() - steady) / 1000, (Date.now() - wall) / 1000);
  const uptime = moment.uptime === null ? null : moment.uptime + seconds;
  return { ...moment, at: moment.at + seconds * 1000, uptime };
}

/** The server's time now, as this window knows it. */
export interface ServerTime {
  readonly now: Moment;
  /** The server has said what time it is: it shows at the next tick. */
  hear(moment: Moment): void;
  /** A line of this moment was written: it must not lie in the future from here on. */
  reach(moment: Moment): void;
}

export function useMoment(first: Moment): ServerTime {
  const [now, setNow] = useState(first);
  const said = useRef<Said | null>(null);
  const hear = useCallback((moment: Moment) => {
    said.current = { moment, steady: performance.now(), wall: Date.now() };
  }, []);
  const reach = useCallback(
    (moment: Moment) => {
      const shown = said.current && passed(said.current);
      if (!shown || !isLater(shown, moment)) hear(moment);
      setNow(passed(said.current!));
    },
    [hear],
  );
  useEffect(() => {
    if (!said.current) hear(first);
    const timer = window.setInterval(() => said.current && setNow(passed(said.current)), TICK_MS);
    return () => window.clearInterval(timer);
  }, [first, hear]);
  return { now, hear, reach };
}

function isLater(a: Moment, b: Moment): boolean {
  return a.boot === b.boot && a.uptime !== null && b.uptime !== null && a.uptime > b.uptime;
}
