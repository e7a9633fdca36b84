'use client';
import { SunMoon } from 'lucide-react';
import { ICON_LOOK } from '@/ui/Button';
import { useLight } from '@/ui/useLight';

/** Switches between soot and paper; remembered. */
export function ThemeSwitch() {
  const [, turn] = useLight();
  return (
    <button type="button" onClick={turn} className={ICON_LOOK} aria-label="Switch between dark and light">
      <SunMoon aria-hidden className="size-4.5" />
    </button>
  );
}
