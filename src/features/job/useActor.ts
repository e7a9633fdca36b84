'use client';
import { keep, useKept } from './kept';
import { useSettings } from './SettingsContext';

const setActor = (name: string): void => keep('actor', name);

/** Who works here, one of the workshop's benches, remembered in this browser. */
export function useActor(): readonly [string, (actor: string) => void] {
  const { benches } = useSettings();
  const first = benches[0]!.name;
  const kept = useKept('actor');
  return [kept !== null && benches.some((b) => b.name === kept) ? kept : first, setActor];
}
