'use client';
import { linesOf } from '@/core/ledger';
import { useMemo, useState } from 'react';
import { LOOK_SIGNS } from '@/core/diagnose';
import type { Severity } from '@/core/diagnose';
import { recogniseStages } from '@/core/stages';
import { useJob } from '@/features/job/JobContext';
import { Select } from '@/ui/Select';
import { PlaceChoice } from './PlaceChoice';
import { stageWords } from '@/core/drawing';

const SEVERITIES: readonly Severity[] = ['note', 'doubt', 'fault', 'danger'];

/** The inspection, stage by stage: what is seen goes into the log with its place and changes the odds. */
export function LookPanel({ picked }: { picked: string | undefined }) {
  const { active, lines, addLine } = useJob();
  const map = useMemo(() => recogniseStages(active.board), [active.board]);
  const kinds = useMemo(() => [...new Set(map.stages.map((s) => s.kind))], [map]);
  const [stage, setStage] = useState<string>(() => kinds[0] ?? '');
  const [place, setPlace] = useState('');
  const [severity, setSeverity] = useState<Severity | null>(null);
  const here = map.stages.filter((s) => s.kind === stage);
  const parts = here.flatMap((s) => s.parts);
  const own = LOOK_SIGNS.filter((s) => s.stages.some((k) => k === stage));
  const others = LOOK_SIGNS.filter((s) => !own.includes(s));
  const at = place.trim() || picked || stageWords(stage);
  const findings = linesOf(lines, 'finding').filter(({ line }) => line.boardId === active.id || line.boardId === null);
  const note = (words: string, usual: Severity): void =>
    void addLine({ kind: 'finding', body: { place: at, severity: severity ?? usual, words } }, active.id);
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap items-center gap-3">
        <Select
          label="Stage"
          place="beside"
          value={stage}
          options={kinds.map((k) => ({ value: k, words: stageWords(k) }))}
          onChoose={(k) => (setStage(k), setPlace(''))}
        />
        <PlaceChoice board={active.board} place={at} first={parts} onChoose={setPlace} />
        <Select<Severity | ''>
          label="Severity"
          place="beside"
          value={severity ?? ''}
          options={[{ value: '', words: 'as usual for it' }, ...SEVERITIES]}
          onChoose={(s) => setSeverity(s === '' ? null : s)}
        />
      </div>
      {[own, others].map((signs, i) => (
        <ul key={i} aria-label={i === 0 ? 'Looked for here' : 'Anywhere'} className="flex flex-wrap gap-2">
          {signs.map((s) => (
            <li key={s.words}>
              <button
                type="button"
                onClick={() => note(s.words, s.severity)}
                className={`rounded-sm border px-3 py-1.5 hover:border-ink ${i === 0 ? 'border-slate bg-raised' : 'border-line text-sm text-faint'}`}
              >
                {s.words}
              </button>
            </li>
          ))}
        </ul>
      ))}
      <section aria-label="Seen so far">
        <h2 className="text-sm text-faint">
          Seen so far at {findings.length === 0 ? 'no place' : findings.map(({ body }) => body.place).join(', ')};
          undone in the log
        </h2>
        <ul>
          {findings.map(({ line, body }) => (
            <li key={line.id}>
              <span className="figure">{body.place}</span> {body.words}{' '}
              <span className="text-sm text-faint">{body.severity}</span>
            </li>
          ))}
        </ul>
      </section>
    </div>
  );
}
