'use client';
import { formatQuantity } from '@/core/quantity';
import type { ConverterState } from '@/core/work';
import type { StatedUnit } from '@/workers/poweredMessages';

const WORDS: Readonly<Record<ConverterState, string>> = {
  run: 'runs',
  hiccup: 'starts and stops, over and over',
  off: 'does not start',
  latched: 'has latched off',
};

/** A start sooner than this is at once for whoever waits, s. */
const WORTH_SAYING = 0.1;

/** What the unit does as it is fed and loaded, were it sound. */
export function PoweredState({ unit }: { unit: StatedUnit }) {
  const { state, states, period, starts, warnings, destroys, contradictions } = unit;
  const slow = Object.entries(starts).filter(([, s]) => s < Infinity && s > WORTH_SAYING);
  const never = Object.entries(starts).filter(([, s]) => s === Infinity);
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
      {(slow.length > 0 || never.length > 0) && (
        <p className="text-sm text-faint">
          {slow.map(([ref, s]) => `${ref} starts ${formatQuantity(s, 's', 2)} after switch-on`).join('; ')}
          {slow.length > 0 && never.length > 0 && '; '}
          {never.map(([ref]) => `${ref} never gets the volts to start`).join('; ')}.
        </p>
      )}
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
