'use client';
import { useCallback, useEffect, useState } from 'react';

/** The benches of the workshop; who writes is the bench. */
export const BENCHES = ['Bench A', 'Bench B'] as const;

/** Who works here, remembered in this browser. */
export function useActor(): readonly [string, (actor: string) => void] {
  const [actor, setActor] = useState<string>(BENCHES[0]);
  useEffect(() => {
    const kept = window.localStorage.getItem('actor');
    if (kept) setActor(kept);
  }, []);
  const choose = useCallback((name: string) => {
    window.localStorage.setItem('actor', name);
    setActor(name);
  }, []);
  return [actor, choose];
}
