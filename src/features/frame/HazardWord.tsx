'use client';
import type { ReactNode } from 'react';
import type { HazardState } from '@/core/safety';
import { useSettings } from '@/features/job/SettingsContext';
import { clockWords } from '@/ui/when';
import { Bolt } from './Bolt';

/** Each hazard state has its own shape and word, never colour alone. */
const SHAPES: Readonly<Record<HazardState, { readonly mark: ReactNode; readonly look: string }>> = {
  LIVE: { mark: <Bolt />, look: 'bg-oxide text-ground' },
  CHARGED: { mark: '▲', look: 'bg-oxide-ground text-oxide border-2 border-oxide' },
  'NOT PROVED': { mark: '◇', look: 'border-2 border-dashed border-brass text-brass' },
  UNKNOWN: { mark: '?', look: 'border-2 border-dotted border-brass bg-raised text-brass' },
  DISCHARGED: { mark: '▬', look: 'border-2 border-verdigris text-verdigris' },
};

/** The hazard state as a word with its own shape. */
export function HazardWord({
  state,
  since = null,
  large = false,
}: {
  state: HazardState;
  since?: number | null;
  large?: boolean;
}) {
  const { mark, look } = SHAPES[state];
  const { zone } = useSettings();
  return (
    <span
      data-hazard={state}
      className={`inline-flex items-center gap-1.5 rounded-sm font-bold whitespace-nowrap ${look} ${large ? 'px-3 py-1 text-lg max-sm:px-2 max-sm:text-base' : 'px-1.5 text-sm'}`}
    >
      <span aria-hidden>{mark}</span>
      {state}
      {state === 'UNKNOWN' && since !== null && ` since ${clockWords(since, zone)}`}
    </span>
  );
}
