'use client';
import { SunMoon } from 'lucide-react';
import { useTheme } from 'next-themes';

/** Switches between soot and paper; remembered. Until then it is as the system has it. */
export function ThemeSwitch() {
  const { resolvedTheme, setTheme } = useTheme();
  const light = resolvedTheme === 'paper' || resolvedTheme === 'light';
  return (
    <button
      type="button"
      onClick={() => setTheme(light ? 'soot' : 'paper')}
      className="grid size-8 place-items-center rounded-sm border border-line text-faint hover:text-ink pointer-coarse:size-[44px]"
      aria-label="Switch between dark and light"
    >
      <SunMoon aria-hidden className="size-4.5" />
    </button>
  );
}
