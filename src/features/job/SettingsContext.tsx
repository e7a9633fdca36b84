'use client';
import { createContext, useContext } from 'react';
import type { ReactNode } from 'react';
import { applyChoices } from '@/wire/choices';
import type { Settings } from '@/wire/settings';

const Held = createContext<Settings | null>(null);

/** What the workshop has set, for every screen; figures are written accordingly. */
export function SettingsProvider({ settings, children }: { settings: Settings; children: ReactNode }) {
  // Before anything below prints a figure; the same on every page of the workshop.
  applyChoices(settings);
  return <Held value={settings}>{children}</Held>;
}

/** The settings of the workshop. Throws outside of their provider. */
export function useSettings(): Settings {
  const held = useContext(Held);
  if (!held) throw new Error('no settings around this');
  return held;
}
