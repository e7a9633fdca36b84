'use client';
import { useState } from 'react';
import { stepExpectation } from '@/core/modify';
import type { StepResult } from '@/core/modify';
import { benchText, formatQuantity } from '@/core/quantity';
import { EMPTY_ROW, writeSweepCsv } from '@/core/sweep';
import type { KeptSweep } from '@/core/job';
import { useJob } from '@/features/job/JobContext';
import { typedFigure } from '@/features/frame/typedFigure';
import { Button } from '@/ui/Button';
import { useLitFocus } from '@/ui/useLitFocus';

const SIGNS = { agrees: '✓ agrees', disagrees: '▨ disagrees', open: '' } as const;

/** The steps of a verification: what to set, what to read, what was read; the next one open for typing. */
export function StepTable({
  sweep,
  results,
  lit,
  done,
}: {
  sweep: KeptSweep;
  results: readonly StepResult[];
  lit: boolean;
  done: boolean;
}) {
  const next = done ? -1 : results.findIndex((r) => r.verdict === 'open');
  return (
    <table className="w-full border-collapse text-left" aria-label="Steps of the sweep">
      <thead className="text-sm text-faint">
        <tr className="border-b border-line">
          <th className="font-normal">Set</th>
          <th className="pr-3 text-right font-normal">to</th>
          <th className="font-normal">Output is to be</th>
          <th className="font-normal">Read</th>
          <th className="font-normal">Verdict</th>
        </tr>
      </thead>
      <tbody>
        {results.map((r, i) => (
          <tr key={i} className={`border-b border-line/40 ${i === next ? 'h-20' : 'h-8'}`}>
            <td>{r.step.words}</td>
            <td className="figure pr-3 text-right whitespace-nowrap">
              {formatQuantity(r.step.set, r.step.setBy === 'vin' ? 'V' : 'A')}
            </td>
            <td className="figure whitespace-nowrap">{stepExpectation(r.step)}</td>
            {i === next ? (
              <td colSpan={2}>
                <StepEntry key={`${sweep.id} ${i}`} sweep={sweep} result={r} lit={lit} />
              </td>
            ) : (
              <>
                <td className="figure">{r.vout === null ? '' : formatQuantity(r.vout, 'V', 4)}</td>
                <td className={r.verdict === 'agrees' ? 'text-verdigris' : 'text-oxide'}>{SIGNS[r.verdict]}</td>
              </>
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The reading at a step: large, Enter keeps it. What is really set may be told when it is not what was asked. */
function StepEntry({ sweep, result, lit }: { sweep: KeptSweep; result: StepResult; lit: boolean }) {
  const { active, addLine } = useJob();
  const { setBy, set } = result.step;
  const [text, setText] = useState('');
  const [really, setReally] = useState(benchText(set));
  const field = useLitFocus<HTMLInputElement>(lit);
  const vout = typedFigure(text, 'V', true);
  const at = typedFigure(really, setBy === 'vin' ? 'V' : 'A', true);
  const keep = (): void => {
    if (vout === null || at === null) return;
    const csv = writeSweepCsv([{ ...EMPTY_ROW, [setBy]: at, vout }], false);
    void addLine({ kind: 'sweep-rows', body: { sweep: sweep.id, csv, count: 1 } }, active.id);
  };
  return (
    <form
      className="flex items-center gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        keep();
      }}
    >
      <input
        ref={field}
        aria-label={`Output volts, ${result.step.words}`}
        value={text}
        onChange={(e) => setText(e.target.value)}
        autoComplete="off"
        placeholder="V"
        className="figure h-16 w-44 rounded-sm border-2 border-line bg-ground px-3 text-5xl placeholder:text-faint"
      />
      <label className="text-sm text-faint">
        really set
        <input
          aria-label="Really set"
          value={really}
          onChange={(e) => setReally(e.target.value)}
          className="figure block h-8 w-20 rounded-sm border border-line bg-ground px-2 text-ink"
        />
      </label>
      <Button kind={lit ? 'primary' : 'plain'} type="submit" disabled={vout === null || at === null}>
        Keep
      </Button>
    </form>
  );
}
