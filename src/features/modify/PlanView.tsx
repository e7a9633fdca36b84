'use client';
import { useState } from 'react';
import type { Change, Plan, PlanProblem } from '@/core/modify';
import { stepExpectation } from '@/core/modify';
import type { Result } from '@/core/problem';
import { formatQuantity } from '@/core/quantity';
import { SUMS, derivation } from '@/core/sums';
import { useJob } from '@/features/job/JobContext';
import { Button } from '@/ui/Button';
import { Notice } from '@/ui/Notice';
import { Reveal } from '@/ui/Reveal';
import { TextField } from '@/ui/Field';
import { MovedRails } from './MovedRails';
import { StressTable } from './StressTable';

/** What a planned change comes to: parts, ratings, notes, the sweep; and keeping it, with the reason. */
export function PlanView({
  plan,
  change,
  onKept,
}: {
  plan: Result<Plan, PlanProblem> | null;
  change: Change | null;
  onKept(): void;
}) {
  const { active, addLine } = useJob();
  const [why, setWhy] = useState('');
  const [sending, setSending] = useState(false);
  // The board has the change already while its line is on its way: what is planned here would come on top.
  if (sending) return <p role="status">Keeping the change …</p>;
  if (!plan || !change)
    return (
      <>
        <p className="text-faint">Give every figure above: the parts and what they touch follow at once.</p>
        <Button kind="primary" disabled className="self-start">
          Keep this change
        </Button>
      </>
    );
  if (!plan.ok)
    return (
      <>
        <Notice kind="trouble">
          <strong>{plan.problem.sentence}</strong> {plan.problem.remedy}
        </Notice>
        <Button kind="primary" disabled className="self-start">
          Keep this change
        </Button>
      </>
    );
  const { title, facts, parts, sum, notes, stress, steps, reaches } = plan.value;
  const over = stress.filter((r) => r.verdict === 'over');
  const definition = SUMS.find((s) => s.name === sum.name)!;
  const keep = async (): Promise<void> => {
    const body = {
      title,
      why: why.trim(),
      change,
      facts: [...facts],
      parts: [...parts],
      sum: { name: sum.name, inputs: { ...sum.inputs } as Record<string, string | number> },
      reaches,
      steps: [...steps],
    };
    setSending(true);
    if (await addLine({ kind: 'modification', body }, active.id)) onKept();
    else setSending(false);
  };
  return (
    <div className="flex flex-col gap-3" aria-live="polite">
      <div>
        <p className="text-lg font-semibold">
          {title}
          {reaches !== null && (
            <span className="font-normal text-faint">
              {' '}
              (really <span className="figure">{formatQuantity(reaches, 'V', 4)}</span>)
            </span>
          )}
        </p>
        <ul className="text-lg">
          {parts.map((p) => (
            <li key={`${p.ref} ${p.words}`}>
              <span className="figure text-brass">{p.ref}</span> {p.words}
            </li>
          ))}
        </ul>
      </div>
      <StressTable rows={stress} label="What it touches" />
      <MovedRails facts={facts} />
      {over.length > 0 && (
        <Notice kind="trouble">
          <strong>
            {[...new Set(over.map((r) => r.ref))].join(', ')} would be over{' '}
            {over.length === 1 ? 'its rating' : 'their ratings'}
          </strong>
          : do not power it like this. Fit a better part first, or ask for less.
        </Notice>
      )}
      <ul className="list-disc pl-5 text-sm">
        {notes.map((n) => (
          <li key={n}>{n}</li>
        ))}
      </ul>
      <Reveal className="text-sm" words="How it comes about, and the sweep that will prove it">
        <ul className="figure mt-1">
          {derivation(definition, sum).map((l) => (
            <li key={l.key}>
              {definition.resultWords[l.key]} = {l.numbers} = {l.value}
            </li>
          ))}
        </ul>
        <ul className="mt-1">
          {steps.map((s, i) => (
            <li key={i}>
              {s.setBy === 'vin' ? 'input' : 'load'}{' '}
              <span className="figure">{formatQuantity(s.set, s.setBy === 'vin' ? 'V' : 'A')}</span>, {s.words}:{' '}
              <span className="figure">{stepExpectation(s)}</span>
            </li>
          ))}
        </ul>
      </Reveal>
      <form
        className="flex items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          void keep();
        }}
      >
        <TextField
          label="Why it is changed"
          className="w-80"
          value={why}
          onChange={(e) => setWhy(e.target.value)}
          placeholder="the cradles want 6.2 V"
        />
        <Button kind="primary" type="submit" disabled={why.trim().length < 3}>
          Keep this change
        </Button>
      </form>
    </div>
  );
}
