'use client';
import { formatQuantity } from '@/core/quantity';
import type { ConverterState } from '@/core/work';
import type { PoweredUnit } from '@/workers/poweredMessages';

const WORDS: Readonly<Record<ConverterState, string>> = {
  run: 'runs',
  hiccup: 'starts and stops, over and over',
  off: 'does not start',
  latched: 'has latched off',
};

/** What the unit does as it is fed and loaded, were it sound. */
export function PoweredState({ unit }: { unit: PoweredUnit }) {
  const { state, states, period, warnings, destroys, contradictions } = unit;
  const others = Object.entries(states).filter(([, s]) => s !== state);
  return (
    <div>
      <p>
        A sound unit <strong>{WORDS[state]}</strong>
        {period !== null && `, every ${formatQuantity(period, 's')}`}
        {others.length > 0 && (
          <span className="text-faint"> ({others.map(([ref, s]) => `${ref} ${WORDS[s]}`).join('; ')})</span>
        )}
        .
      </p>
      {destroys.map((d) => (
        <p key={d.ref} className="text-oxide">
          {d.ref} would give way: {d.why}.
        </p>
      ))}
      {contradictions.length > 0 && (
        <p className="text-sm text-oxide" role="status">
          Not as a sound unit: {contradictions.map((c) => c.words).join('; ')}.{' '}
          {contradictions.every((c) => c.adopted)
            ? 'What hangs on it is expected after the reading.'
            : 'What makes it is at fault or held down: the rest is expected as of a sound unit.'}
        </p>
      )}
      {warnings.map((w) => (
        <p key={w} className="text-sm text-faint">
          {w} Figures are noted, not judged.
        </p>
      ))}
    </div>
  );
}
