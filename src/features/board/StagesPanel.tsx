'use client';
import { useMemo, useState } from 'react';
import { CORE_PURPOSES, PIN_ROLES, STAGE_KINDS, STAGE_NOTES, recogniseStages } from '@/core/stages';
import { findTwins } from '@/core/trace';
import { useJob } from '@/features/job/JobContext';
import { Hint } from '@/ui/Hint';
import { Select } from '@/ui/Select';
import { ConverterReading } from './ConverterReading';
import { stageWords } from '@/core/drawing';
import type { Selection } from '@/features/schematic/selection';

/** What the board is made of, from input to output: topology, stages with their evidence, pins, islands, twins. */
export function StagesPanel({ picked, onPick }: { picked: string | undefined; onPick(selection: Selection): void }) {
  const { active, addLine } = useJob();
  const { board } = active;
  const map = useMemo(() => recogniseStages(board), [board]);
  const twins = useMemo(() => findTwins(board), [board]);
  const [open, setOpen] = useState('');
  const settle = (text: string): void => void addLine({ kind: 'trace', body: { text } }, active.id);
  const stageOf = map.stages.find((s) => picked !== undefined && s.parts.includes(picked))?.kind;
  const findings = map.crossings.filter((c) => !c.allowed);
  return (
    <div className="flex flex-col gap-3">
      <ConverterReading map={map} onSettle={settle} />
      {findings.map((f) => (
        <p key={f.ref} className="border-l-4 border-oxide bg-oxide-ground px-3 py-1">
          {f.why}
        </p>
      ))}
      {picked !== undefined && (
        <Select
          label={
            <>
              <span className="figure">{picked}</span> belongs to
            </>
          }
          place="beside"
          value={stageOf ?? ''}
          options={[
            ...(stageOf === undefined ? [{ value: '' as const, words: 'no stage yet' }] : []),
            ...STAGE_KINDS.map((k) => ({ value: k, words: stageWords(k) })),
          ]}
          onChoose={(k) => k !== '' && settle(`stage ${picked} ${k}`)}
        />
      )}
      <ol aria-label="Stages from input to output" className="border-t border-line">
        {map.stages.map((s) => {
          const key = `${s.kind} ${s.parts[0]}`;
          const notes = STAGE_NOTES[s.kind];
          return (
            <li key={key} className="border-b border-line/60">
              <button
                type="button"
                aria-expanded={open === key}
                onClick={() => setOpen(open === key ? '' : key)}
                className="grid w-full grid-cols-[10rem_1fr_4rem] items-baseline gap-3 px-1 py-1 text-left hover:bg-raised"
              >
                <span className="font-semibold">{stageWords(s.kind)}</span>
                <span className="figure truncate text-sm">{s.parts.join(' ')}</span>
                <span className="figure text-right text-sm text-faint">{Math.round(100 * s.confidence)} %</span>
              </button>
              {open === key && (
                <div className="grid grid-cols-2 gap-4 px-1 pb-3 text-sm">
                  <ul>
                    {s.parts.map((ref) => (
                      <li key={ref}>
                        <button
                          type="button"
                          className="figure underline decoration-line underline-offset-4"
                          onClick={() => onPick({ part: ref })}
                        >
                          {ref}
                        </button>{' '}
                        <span className="text-faint">{s.reasons[ref]}</span>
                      </li>
                    ))}
                  </ul>
                  <dl>
                    <dt className="text-faint">it {notes.does}; what fails here</dt>
                    <dd>{notes.fails}</dd>
                    <dt className="mt-1 text-faint">checked here</dt>
                    <dd>{notes.checks}</dd>
                  </dl>
                </div>
              )}
            </li>
          );
        })}
      </ol>
      {map.unplaced.length > 0 && (
        <p className="text-sm">
          Without a stage: <span className="figure">{map.unplaced.map((u) => u.ref).join(' ')}</span>{' '}
          <span className="text-faint">({map.unplaced[0]!.why})</span>
        </p>
      )}
      <div className="grid grid-cols-2 gap-6 text-sm max-xl:grid-cols-1">
        <section aria-label="Pins of the controllers">
          <h2 className="font-semibold">Pins</h2>
          {Object.entries(map.pins).map(([ref, pins]) => (
            <ul key={ref} className="mb-2">
              {pins.map((p) => (
                <li key={p.pin} className="flex items-baseline gap-1">
                  <span className="figure inline-block w-12">
                    {ref}.{p.pin}
                  </span>
                  <Select
                    label={`Role of ${ref}.${p.pin}`}
                    place="hidden"
                    look="bare"
                    box="w-24 font-bold"
                    value={p.role}
                    options={PIN_ROLES}
                    onChoose={(role) => settle(`pin ${ref}.${p.pin} ${role}`)}
                  />
                  <Hint text={p.reasons.join('; ')}>
                    <span tabIndex={p.reasons.length > 1 ? 0 : undefined} className="text-faint">
                      {p.reasons[0]}
                      {p.runnerUp && p.runnerUp.score > p.score - 0.25 && ` (or ${p.runnerUp.role})`}
                    </span>
                  </Hint>
                </li>
              ))}
            </ul>
          ))}
        </section>
        <section aria-label="Islands and twins">
          <h2 className="font-semibold">Black lead</h2>
          <ul className="mb-3">
            {map.islands.map((i) => (
              <li key={i.reference}>
                <span className="figure">{i.reference}</span> for {i.nets.length} nets: {HAZARDS[i.hazard]}
              </li>
            ))}
          </ul>
          {map.cores.length > 0 && <h2 className="font-semibold">Cores</h2>}
          <ul className="mb-3">
            {map.cores.map((c) => (
              <li key={c.refs.join(' ')} className="flex items-baseline gap-2">
                <span className="figure">{c.refs.join(' ')}</span>
                <Select
                  label={`Purpose of the core of ${c.refs[0]}`}
                  place="hidden"
                  look="bare"
                  value={c.purpose}
                  options={CORE_PURPOSES.map((p) => ({ value: p, words: CORE_WORDS[p] }))}
                  onChoose={(p) => settle(`core ${c.refs[0]} ${p}`)}
                />
              </li>
            ))}
          </ul>
          {twins.length > 0 && <h2 className="font-semibold">Twins to compare</h2>}
          <ul>
            {twins.slice(0, 12).map((t) => (
              <li key={t.refs.join(' ')}>
                <button
                  type="button"
                  className="text-left underline decoration-line underline-offset-4"
                  onClick={() => onPick({ part: t.refs[0]! })}
                >
                  {t.words}
                </button>
              </li>
            ))}
          </ul>
        </section>
      </div>
    </div>
  );
}

const CORE_WORDS: Readonly<Record<(typeof CORE_PURPOSES)[number], string>> = {
  'common-mode': 'common-mode choke',
  'output-choke': 'output choke',
  current: 'current transformer',
  drive: 'drive transformer',
  transformer: 'transformer',
};

const HAZARDS: Readonly<Record<string, string>> = {
  mains: 'connected to the mains input',
  hv: 'above 60 V when powered, stores may hold it',
  battery: 'on the battery',
  elv: 'isolated low voltage',
};
