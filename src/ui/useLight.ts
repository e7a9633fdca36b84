'use client';
import { useTheme } from 'next-themes';
import { useCallback } from 'react';

/** Whether the page is light (paper) now, and how it is turned the other way; remembered. Until then it is as the system has it. */
export function useLight(): readonly [boolean, () => void] {
  const { resolvedTheme, setTheme } = useTheme();
  const light = resolvedTheme === 'paper' || resolvedTheme === 'light';
  const turn = useCallback(() => setTheme(light ? 'soot' : 'paper'), [light, setTheme]);
  return [light, turn];
}
