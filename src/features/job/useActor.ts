'use client';
import { useCallback, useEffect, useState } from 'react';
import { useSettings } from './SettingsContext';

/** Who works here, one of the workshop's benches, remembered in this browser. */
export function useActor(): readonly [string, (actor: string) => void] {
  const { benches } = useSettings();
  const first = benches[0]!.name;
  const [actor, setActor] = useState<string>(first);
  useEffect(() => {
    const kept = window.localStorage.getItem('actor');
    setActor(kept !== null && benches.some((b) => b.name === kept) ? kept : first);
  }, [benches, first]);
  const choose = useCallback((name: string) => {
    window.localStorage.setItem('actor', name);
    setActor(name);
  }, []);
  return [actor, choose];
}
