'use client';
import { useMemo, useState } from 'react';
import type { FormEvent } from 'react';
import { isElectrolytic, marking } from '@/core/part';
import type { Part } from '@/core/part';
import { shortValue } from '@/core/schematic';
import { judgeSubstitution, safetyKind } from '@/core/substitute';
import type { FittedPart } from '@/core/substitute';
import { Button } from '@/ui/Button';
import { TextField } from '@/ui/Field';
import { FigureField } from './FigureField';
import { figureError, typedFigure } from './typedFigure';
import { Select } from '@/ui/Select';
import { Tick } from '@/ui/Tick';
import { useCommands } from '@/features/job/JobContext';

/**
 * What is fitted instead of a part, judged while it is typed, and written into the log.
 * another  begins with another part than the one that was there.
 */
export function FitForm({
  part,
  boardId,
  lit,
  another = false,
}: {
  part: Part;
  boardId: string;
  lit: boolean;
  another?: boolean;
}) {
  const { addLine } = useCommands();
  const [source, setSource] = useState<'new' | 'salvaged'>('new');
  const [samePart, setSamePart] = useState(!another);
  const [figures, setFigures] = useState<Record<string, string>>({});
  const [ticks, setTicks] = useState<Record<string, boolean>>({});
  const [speed, setSpeed] = useState('');
  const [breaking, setBreaking] = useState('');
  const [words, setWords] = useState('');
  const units = useMemo(
    () =>
      ({
        value: part.kind === 'resistor' ? 'ohm' : part.kind === 'capacitor' ? 'F' : 'H',
        volts: 'V',
        amps: 'A',
        watts: 'W',
      }) as const,
    [part.kind],
  );
  const unread = Object.entries(units).some(([key, unit]) => figureError(figures[key] ?? '', unit) !== undefined);
  const fitted = useMemo((): FittedPart => {
    const figure = (key: keyof typeof units): number | undefined =>
      typedFigure(figures[key] ?? '', units[key]) ?? undefined;
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
  }, [source, samePart, figures, ticks, speed, breaking, units]);
  const verdict = judgeSubstitution(part, fitted);
  const refused = verdict.verdict === 'refused';
  const set = (key: string) => (e: { target: { value: string } }) =>
    setFigures((kept) => ({ ...kept, [key]: e.target.value }));
  const send = (event: FormEvent): void => {
    event.preventDefault();
    if (refused || unread) return;
    const was = marking(part) ?? shortValue(part);
    void addLine({ kind: 'replacement', body: { ref: part.ref, was, fitted: { ...fitted }, words } }, boardId);
  };
  const passive = part.kind === 'resistor' || part.kind === 'capacitor' || part.kind === 'inductor';
  const safety = safetyKind(part);
  return (
    <form onSubmit={send} className="mt-2 flex flex-col gap-2">
      <div className="flex flex-wrap items-end gap-3">
        <Select label="Source" className="w-32" value={source} options={['new', 'salvaged']} onChoose={setSource} />
        <Tick label="the same part" className="pb-1.5" checked={samePart} onTick={setSamePart} />
        {!samePart && (
          <>
            {passive && (
              <FigureField
                unit={units.value}
                label="Value"
                className="w-24"
                value={figures['value'] ?? ''}
                onChange={set('value')}
                placeholder={shortValue(part)}
              />
            )}
            <FigureField
              unit="V"
              label="Rated V"
              className="w-20"
              value={figures['volts'] ?? ''}
              onChange={set('volts')}
            />
            {part.kind !== 'capacitor' && (
              <FigureField
                unit="A"
                label="Rated A"
                className="w-20"
                value={figures['amps'] ?? ''}
                onChange={set('amps')}
              />
            )}
            {part.kind === 'resistor' && (
              <FigureField
                unit="W"
                label="Rated W"
                className="w-20"
                value={figures['watts'] ?? ''}
                onChange={set('watts')}
              />
            )}
            {part.kind === 'fuse' && (
              <>
                <Select
                  label="Speed"
                  className="w-20"
                  value={speed}
                  options={['', 'T', 'F', 'TT', 'FF', 'M']}
                  onChoose={setSpeed}
                />
                <Select
                  label="Breaking"
                  className="w-20"
                  value={breaking}
                  options={['', 'L', 'H', 'E']}
                  onChoose={setBreaking}
                />
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
                  onTick={(on) => setTicks((k) => ({ ...k, esr: on }))}
                />
                <Tick
                  label="105 °C"
                  className="pb-1.5"
                  checked={ticks['hot'] ?? false}
                  onTick={(on) => setTicks((k) => ({ ...k, hot: on }))}
                />
              </>
            )}
          </>
        )}
        <TextField label="Note" className="w-48" value={words} onChange={(e) => setWords(e.target.value)} />
        <Button kind={lit ? 'primary' : 'plain'} type="submit" autoFocus={lit} disabled={refused || unread}>
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
