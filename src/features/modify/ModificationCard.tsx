'use client';
import { supplyOf } from '@/core/operate';
import { useState } from 'react';
import { findPart } from '@/core/circuit';
import { formatQuantity } from '@/core/quantity';
import { FitForm } from '@/features/frame/FitForm';
import { useJob } from '@/features/job/JobContext';
import { useSettings } from '@/features/job/SettingsContext';
import { timeWords } from '@/ui/when';
import { stressWords } from '@/features/frame/stressWords';
import { SweepPlot } from '@/features/frame/SweepPlot';
import { useWidth } from '@/ui/useWidth';
import { Button } from '@/ui/Button';
import { Notice } from '@/ui/Notice';
import { StepTable } from './StepTable';
import { StressTable } from './StressTable';
import type { Modification } from '@/core/job';

/** A kept change: its parts, what they bear now, better parts to fit, the sweep that proves it, its mark. */
export function ModificationCard({ modification: m, lit }: { modification: Modification; lit: boolean }) {
  const { active } = useJob();
  const { zone } = useSettings();
  const [chosen, setFitting] = useState<string | null | undefined>(undefined);
  const weak = [...new Set(m.stress.filter((r) => r.verdict === 'over' || r.verdict === 'tight').map((r) => r.ref))];
  const over = m.stress.some((r) => r.verdict === 'over');
  // What is over its rating is the next thing to do: its form is open unless it was put away.
  const fitting = chosen === undefined ? (over && m.verdict === null ? (weak[0] ?? null) : null) : chosen;
  const part = fitting === null ? undefined : findPart(active.board, fitting);
  return (
    <article
      aria-label={m.body.title}
      className={`border-l-4 bg-raised px-4 py-3 ${lit ? 'border-brass' : 'border-line'}`}
    >
      <header className="flex items-baseline justify-between gap-4">
        <h2 className="text-lg font-bold">{m.body.title}</h2>
        <VerdictMark modification={m} />
      </header>
      <p className="text-sm text-faint">
        {m.body.why}; {m.actor}, {timeWords(m.at, zone)}
      </p>
      <ul className="my-1">
        {m.body.parts.map((p) => (
          <li key={`${p.ref} ${p.words}`}>
            <span className="figure text-brass">{p.ref}</span> {p.words}
          </li>
        ))}
      </ul>
      <p className="mt-2 font-semibold">What it touches, as the board stands: {stressWords(m.stress)}</p>
      <StressTable rows={m.stress} label="What it touches now" />
      <p className="mt-1 flex gap-4 text-sm">
        {weak.map((ref) => (
          <Button
            key={ref}
            kind="quiet"
            aria-expanded={fitting === ref}
            onClick={() => setFitting(fitting === ref ? null : ref)}
          >
            Fit a better {ref}
          </Button>
        ))}
      </p>
      {part && (
        <FitForm
          key={`${part.ref} ${m.stress.length}`}
          part={part}
          boardId={active.id}
          lit={lit && over && m.verdict === null}
          another
        />
      )}
      {over && m.verdict === null && (
        <Notice kind="trouble" className="my-2">
          <strong>Do not power it yet:</strong> {stressWords(m.stress.filter((r) => r.verdict === 'over'))} its rating.
        </Notice>
      )}
      <Proof modification={m} lit={lit} over={over} />
    </article>
  );
}

function VerdictMark({ modification: m }: { modification: Modification }) {
  if (!m.verdict) return <span className="text-brass">▸ not proved yet</span>;
  return m.verdict.verified ? (
    <span className="font-semibold text-verdigris">✓ verified by {m.verdict.actor}</span>
  ) : (
    <span className="font-semibold text-oxide">✕ not verified</span>
  );
}

/** The verification sweep, step by step, then the mark. */
function Proof({ modification: m, lit, over }: { modification: Modification; lit: boolean; over: boolean }) {
  const { active, addLine } = useJob();
  const [ref, width] = useWidth<HTMLDivElement>(680);
  const setBy = m.body.steps[0]?.setBy ?? 'vin';
  const on = m.body.steps.find((s) => !s.off);
  const limit =
    supplyOf(active.board).kind === 'mains'
      ? 'through a filament lamp, the leads clipped on while it is dead,'
      : 'through a current limit';
  const begin = (): void => {
    const claimed =
      on === undefined
        ? null
        : {
            column: 'vout' as const,
            value: on.nominal,
            tolerance: Math.min(1, Math.max(on.high / on.nominal - 1, 1 - on.low / on.nominal)),
          };
    const body = { title: m.body.title, setBy, claimed, sagLimit: 0.1, efficiency: null, modification: m.id };
    void addLine({ kind: 'sweep', body }, active.id);
  };
  const mark = (verified: boolean): void => {
    const words = m.results
      .map((r) =>
        r.vout === null ? `${r.step.words}: not read` : `${r.step.words}: ${formatQuantity(r.vout, 'V', 4)}`,
      )
      .join('; ');
    void addLine({ kind: 'modification-verdict', body: { modification: m.id, verified, words } }, active.id);
  };
  if (!m.sweep)
    return (
      <div className="mt-3">
        <p className="mb-2 text-sm text-faint">
          {m.body.steps.length} steps prove it. It is powered while they are taken: {limit} first, without the
          customer’s load, and prove it discharged again afterwards.
        </p>
        {m.verdict === null && (
          <Button kind={lit && !over ? 'primary' : 'plain'} autoFocus={lit && !over} disabled={over} onClick={begin}>
            Begin the sweep
          </Button>
        )}
      </div>
    );
  const open = m.results.find((r) => r.verdict === 'open');
  const wrong = m.results.some((r) => r.verdict === 'disagrees');
  return (
    <div className="mt-3" ref={ref}>
      <StepTable sweep={m.sweep} results={m.results} lit={lit && m.verdict === null} done={m.verdict !== null} />
      {m.sweep.rows.length > 0 && <SweepPlot setup={m.sweep.setup} rows={m.sweep.rows} width={width} height={180} />}
      {m.verdict === null && !open && (
        <p className="mt-2 flex items-center gap-3">
          <Button
            kind={lit && !wrong && !over ? 'primary' : 'plain'}
            autoFocus={lit && !wrong && !over}
            disabled={wrong || over}
            onClick={() => mark(true)}
          >
            Mark it verified
          </Button>
          <Button
            kind={lit && (wrong || over) ? 'primary' : 'plain'}
            autoFocus={lit && (wrong || over)}
            onClick={() => mark(false)}
          >
            Not verified
          </Button>
          {(wrong || over) && (
            <span className="text-sm text-oxide">
              {over
                ? 'A part is over its rating.'
                : 'A step disagrees: look again, or undo its row in the log and read once more.'}
            </span>
          )}
        </p>
      )}
    </div>
  );
}
