'use client';
import { useMemo, useState } from 'react';
import type { FormEvent } from 'react';
import { isElectrolytic, marking } from '@/core/circuit';
import type { Part } from '@/core/circuit';
import type { SeenReading } from '@/core/expect';
import { parseQuantity } from '@/core/quantity';
import { judgeSubstitution, safetyKind } from '@/core/substitute';
import type { FittedPart } from '@/core/substitute';
import { useJob } from '@/features/frame/JobContext';
import type { JobBoard } from '@/features/frame/JobContext';
import { seenWords } from '@/features/frame/lineWords';
import { shortValue } from '@/core/schematic';
import { Button } from '@/ui/Button';
import { Choice, TextField, Tick } from '@/ui/Field';
import { COLD_CONDITIONS } from './coldConditions';
import { OutcomeMark } from './OutcomeMark';
import { QuickReading } from './QuickReading';
import type { FitState } from './useRepair';

/** One part: what is fitted instead, judged while typed; then the reading that shows it works. */
export function FitRow({ home, state, lit }: { home: JobBoard; state: FitState; lit: boolean }) {
  const { addLine } = useJob();
  const { board, id } = home;
  const { part, fitted, expected, after } = state;
  const keep = (seen: SeenReading): void => {
    if (!expected) return;
    const { mode, red, black } = expected;
    void addLine(
      {
        kind: 'reading',
        body: {
          mode,
          red,
          black,
          seen,
          purpose: 'after-repair',
          ref: part.ref,
          placeConfirmed: true,
          conditions: COLD_CONDITIONS,
        },
      },
      id,
    );
  };
  return (
    <div className={`border-l-4 bg-raised px-4 py-2 ${lit ? 'border-brass' : 'border-line'}`}>
      <p className="flex justify-between gap-3">
        <span>
          <strong>{part.ref}</strong> <span className="figure">{shortValue(part)}</span>{' '}
          {marking(part) && <span className="text-faint">“{marking(part)}”</span>}
          {safetyKind(part) && (
            <span className="ml-2 border border-oxide px-1 text-sm text-oxide">safety part: {safetyKind(part)}</span>
          )}
        </span>
        {fitted && (
          <span className="text-verdigris">
            ✓ {fitted.fitted.source} {fitted.fitted.samePart ? 'same part' : 'other part'} fitted
          </span>
        )}
      </p>
      {!fitted && <FitForm part={part} boardId={id} lit={lit} />}
      {fitted && !after && expected && <QuickReading board={board} expected={expected} lit={lit} onKeep={keep} />}
      {after && (
        <p>
          <OutcomeMark outcome={after.outcome} figure={seenWords(after.body.mode, after.body.seen)} />
          {after.outcome === 'disagree' && (
            <span className="ml-3 text-oxide">
              Not working as it should: undo the reading in the log, or look again.
            </span>
          )}
        </p>
      )}
    </div>
  );
}

function FitForm({ part, boardId, lit }: { part: Part; boardId: string; lit: boolean }) {
  const { addLine } = useJob();
  const [source, setSource] = useState<'new' | 'salvaged'>('new');
  const [samePart, setSamePart] = useState(true);
  const [figures, setFigures] = useState<Record<string, string>>({});
  const [ticks, setTicks] = useState<Record<string, boolean>>({});
  const [speed, setSpeed] = useState('');
  const [breaking, setBreaking] = useState('');
  const [words, setWords] = useState('');
  const fitted = useMemo((): FittedPart => {
    const figure = (key: string): number | undefined => {
      const read = parseQuantity(figures[key] ?? '');
      return (figures[key] ?? '') !== '' && read.ok && read.value.value > 0 ? read.value.value : undefined;
    };
    const made = {
      source,
      samePart,
      value: figure('value'),
      ratedVolts: figure('volts'),
      ratedAmps: figure('amps'),
      ratedWatts: figure('watts'),
      lowEsr: ticks['esr'],
      celsius105: ticks['hot'],
      safetyClass: figures['class'] || undefined,
      fuseSpeed: (speed || undefined) as FittedPart['fuseSpeed'],
      fuseBreaking: (breaking || undefined) as FittedPart['fuseBreaking'],
    };
    return JSON.parse(JSON.stringify(made)) as FittedPart;
  }, [source, samePart, figures, ticks, speed, breaking]);
  const verdict = judgeSubstitution(part, fitted);
  const refused = verdict.verdict === 'refused';
  const set = (key: string) => (e: { target: { value: string } }) =>
    setFigures((kept) => ({ ...kept, [key]: e.target.value }));
  const send = (event: FormEvent): void => {
    event.preventDefault();
    if (refused) return;
    const was = marking(part) ?? shortValue(part);
    void addLine({ kind: 'replacement', body: { ref: part.ref, was, fitted: { ...fitted }, words } }, boardId);
  };
  const passive = part.kind === 'resistor' || part.kind === 'capacitor' || part.kind === 'inductor';
  const safety = safetyKind(part);
  return (
    <form onSubmit={send} className="mt-2 flex flex-col gap-2">
      <div className="flex flex-wrap items-end gap-3">
        <Choice
          label="Source"
          className="w-32"
          value={source}
          onChange={(e) => setSource(e.target.value as 'new' | 'salvaged')}
        >
          <option value="new">new</option>
          <option value="salvaged">salvaged</option>
        </Choice>
        <Tick
          label="the same part"
          className="pb-1.5"
          checked={samePart}
          onChange={(e) => setSamePart(e.target.checked)}
        />
        {!samePart && (
          <>
            {passive && (
              <TextField
                label="Value"
                className="w-24"
                value={figures['value'] ?? ''}
                onChange={set('value')}
                placeholder={shortValue(part)}
              />
            )}
            <TextField label="Rated V" className="w-20" value={figures['volts'] ?? ''} onChange={set('volts')} />
            {part.kind !== 'capacitor' && (
              <TextField label="Rated A" className="w-20" value={figures['amps'] ?? ''} onChange={set('amps')} />
            )}
            {part.kind === 'resistor' && (
              <TextField label="Rated W" className="w-20" value={figures['watts'] ?? ''} onChange={set('watts')} />
            )}
            {part.kind === 'fuse' && (
              <>
                <Choice label="Speed" className="w-20" value={speed} onChange={(e) => setSpeed(e.target.value)}>
                  {['', 'T', 'F', 'TT', 'FF', 'M'].map((s) => (
                    <option key={s}>{s}</option>
                  ))}
                </Choice>
                <Choice
                  label="Breaking"
                  className="w-20"
                  value={breaking}
                  onChange={(e) => setBreaking(e.target.value)}
                >
                  {['', 'L', 'H', 'E'].map((s) => (
                    <option key={s}>{s}</option>
                  ))}
                </Choice>
              </>
            )}
            {safety !== null && part.kind !== 'fuse' && (
              <TextField
                label="Class printed on it"
                className="w-36"
                value={figures['class'] ?? ''}
                onChange={set('class')}
              />
            )}
            {isElectrolytic(part) && (
              <>
                <Tick
                  label="low ESR"
                  className="pb-1.5"
                  checked={ticks['esr'] ?? false}
                  onChange={(e) => setTicks((k) => ({ ...k, esr: e.target.checked }))}
                />
                <Tick
                  label="105 °C"
                  className="pb-1.5"
                  checked={ticks['hot'] ?? false}
                  onChange={(e) => setTicks((k) => ({ ...k, hot: e.target.checked }))}
                />
              </>
            )}
          </>
        )}
        <TextField label="Note" className="w-48" value={words} onChange={(e) => setWords(e.target.value)} />
        <Button kind={lit ? 'primary' : 'plain'} type="submit" autoFocus={lit} disabled={refused}>
          Fitted
        </Button>
      </div>
      <p
        className={refused ? 'text-oxide' : verdict.verdict === 'doubt' ? 'text-brass' : 'text-faint'}
        aria-live="polite"
      >
        {refused ? '✕ Refused: ' : verdict.verdict === 'doubt' ? '▲ ' : '✓ '}
        {verdict.reasons.join(' ')}
      </p>
    </form>
  );
}
