'use client';
import { linesOf } from '@/core/ledger';
import { useMemo, useState } from 'react';
import { printedOutputs } from '@/core/operate';
import { formatQuantity } from '@/core/quantity';
import { runSum } from '@/core/sums';
import { COLUMN_KEYS, SWEEP_COLUMNS } from '@/core/sweep';
import type { SweepColumn, SweepSetup } from '@/core/sweep';
import { useJob } from '@/features/job/JobContext';
import { typedFigure } from '@/features/frame/typedFigure';
import { Button } from '@/ui/Button';
import { TextField } from '@/ui/Field';
import { Select } from '@/ui/Select';

const COLUMNS = COLUMN_KEYS.map((k) => ({ value: k, words: SWEEP_COLUMNS[k].words }));

/** What a new sweep is for: begins with what the nameplate claims. */
export function SetupForm({ onBegin }: { onBegin(setup: SweepSetup): void }) {
  const { active, lines } = useJob();
  const output = printedOutputs(active.board)[0];
  const [title, setTitle] = useState('');
  const [setBy, setSetBy] = useState<SweepColumn>('iout');
  const [column, setColumn] = useState<SweepColumn>('vout');
  const [claimed, setClaimed] = useState(output ? String(output.volts) : '');
  const [tolerance, setTolerance] = useState('5');
  const [sag, setSag] = useState('5');
  const kept = useMemo(() => efficiencyKept(lines), [lines]);
  const [efficiency, setEfficiency] = useState<string | null>(null);
  const efficient = efficiency ?? (kept === null ? '' : (100 * kept).toFixed(1));
  const figure = (text: string): number | null => typedFigure(text, '1');
  const value = typedFigure(claimed, SWEEP_COLUMNS[column].unit);
  const share = figure(efficient);
  const percentError = (text: string, empty: boolean): string | undefined => {
    const read = figure(text);
    return (empty && text === '') || (read !== null && read <= 100) ? undefined : 'A figure up to 100.';
  };
  const bad =
    (claimed !== '' && value === null) ||
    percentError(tolerance, false) !== undefined ||
    percentError(sag, false) !== undefined ||
    percentError(efficient, true) !== undefined;
  const name = title.trim() || `${SWEEP_COLUMNS[column].words} by ${SWEEP_COLUMNS[setBy].words}`;
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        if (bad) return;
        onBegin({
          title: name,
          setBy,
          claimed: value === null ? null : { column, value, tolerance: figure(tolerance)! / 100 },
          sagLimit: figure(sag)! / 100,
          efficiency: share === null ? null : share / 100,
        });
      }}
    >
      <div className="flex flex-wrap items-start gap-3">
        <Select label="What is set" className="w-40" value={setBy} options={COLUMNS} onChoose={setSetBy} />
        <Select label="What is claimed" className="w-40" value={column} options={COLUMNS} onChoose={setColumn} />
        <TextField
          label={`Claimed${SWEEP_COLUMNS[column].unit === '1' ? '' : `, ${SWEEP_COLUMNS[column].unit}`}`}
          className="w-24"
          value={claimed}
          onChange={(e) => setClaimed(e.target.value)}
          error={claimed !== '' && value === null ? 'Write it like 5 or 4V98.' : undefined}
          hint={
            value !== null && SWEEP_COLUMNS[column].unit !== '1'
              ? formatQuantity(value, SWEEP_COLUMNS[column].unit, 4)
              : 'none'
          }
        />
        <TextField
          label="Tolerance, %"
          className="w-24"
          value={tolerance}
          onChange={(e) => setTolerance(e.target.value)}
          error={percentError(tolerance, false)}
        />
        <TextField
          label="Sag limit, %"
          className="w-24"
          value={sag}
          onChange={(e) => setSag(e.target.value)}
          error={percentError(sag, false)}
        />
        <TextField
          label="Efficiency by the sum, %"
          className="w-44"
          value={efficient}
          onChange={(e) => setEfficiency(e.target.value)}
          error={percentError(efficient, true)}
          hint={kept === null ? 'unknown' : 'from the sum kept in this job'}
        />
      </div>
      <TextField
        label="Name"
        className="w-96"
        value={title}
        onChange={(e) => setTitle(e.target.value)}
        placeholder={name}
      />
      <Button kind="primary" type="submit" autoFocus className="self-start" disabled={bad}>
        Begin the sweep
      </Button>
    </form>
  );
}

/** The efficiency that a sum kept in this job gives: loss of a step-down converter, the latest. */
function efficiencyKept(lines: Parameters<typeof linesOf>[0]): number | null {
  const kept = linesOf(lines, 'sum')
    .filter(({ body }) => body.name === 'buck-loss')
    .at(-1);
  const run = kept ? runSum(kept.body.name, kept.body.inputs) : null;
  return run?.ok ? Math.max(run.value.results['effSync'] as number, run.value.results['effDiode'] as number) : null;
}
