'use client';
import { createContext, useContext } from 'react';
import type { ReactNode } from 'react';
import { setDecimalMark } from '@/core/quantity';
import { FIRST_SETTINGS } from '@/wire/settings';
import type { Settings } from '@/wire/settings';

const Held = createContext<Settings>(FIRST_SETTINGS);

/** What the workshop has set, for every screen; figures are written accordingly. */
export function SettingsProvider({ settings, children }: { settings: Settings; children: ReactNode }) {
  // Before anything below prints a figure; the same on every page of the workshop.
  setDecimalMark(settings.decimal);
  return <Held value={settings}>{children}</Held>;
}

export const useSettings = (): Settings => useContext(Held);
