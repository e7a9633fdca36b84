'use client';
import { useState } from 'react';
import { linesOf } from '@/core/ledger';
import { useJob } from '@/features/job/JobContext';
import { useSettings } from '@/features/job/SettingsContext';
import { Button } from '@/ui/Button';
import { TextField } from '@/ui/Field';
import { Select } from '@/ui/Select';
import { SAFETY_TESTS, holdsLimit, limitWords } from './closeOut';

/** Electrical safety tests: not made, until they are. */
export function SafetyTests() {
  const { lines, addLine } = useJob();
  const [test, setTest] = useState<string>(SAFETY_TESTS[0]);
  const [result, setResult] = useState('');
  const { closeOut } = useSettings();
  const limit = limitWords(test, closeOut);
  const made = linesOf(lines, 'safety-test');
  const missing = SAFETY_TESTS.filter((t) => !made.some(({ body }) => body.test === t));
  return (
    <section>
      <h2 className="font-semibold">Electrical safety tests</h2>
      {made.map(({ line, body }) => (
        <p key={line.id}>
          {body.test}: {body.result} <span className="text-faint">({line.actor})</span>
          {holdsLimit(body.test, body.result, closeOut) === false && (
            <strong className="text-oxide"> ▲ beyond the limit here, {limitWords(body.test, closeOut)}</strong>
          )}
        </p>
      ))}
      {missing.length > 0 && (
        <p className="font-semibold text-oxide">
          ▲ Electrical safety tests not made: {missing.join(', ').toLowerCase()}.
        </p>
      )}
      {missing.length > 0 && (
        <form
          className="no-print mt-2 flex flex-wrap items-end gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            if (result.trim() !== '')
              void addLine({ kind: 'safety-test', body: { test, result } }).then(() =>
                setResult((now) => (now === result ? '' : now)),
              );
          }}
        >
          <Select label="Test made" className="w-56" value={test} options={missing} onChoose={setTest} />
          <TextField
            label="Result"
            className="w-56"
            value={result}
            onChange={(e) => setResult(e.target.value)}
            placeholder="0.08 ohm, passed"
            hint={limit ?? undefined}
          />
          <Button type="submit">Keep</Button>
        </form>
      )}
    </section>
  );
}
