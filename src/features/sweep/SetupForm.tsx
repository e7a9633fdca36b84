'use client';
import { linesOf } from '@/core/ledger';
import { zodResolver } from '@hookform/resolvers/zod';
import { useMemo } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { z } from 'zod';
import { printedOutputs } from '@/core/operate';
import { formatQuantity, withMark } from '@/core/quantity';
import { runSum } from '@/core/sums';
import { COLUMN_KEYS, SWEEP_COLUMNS } from '@/core/sweep';
import type { SweepColumn, SweepSetup } from '@/core/sweep';
import { useJob } from '@/features/job/JobContext';
import { figureError, typedFigure } from '@/features/frame/typedFigure';
import { FormSelect } from '@/features/frame/FormSelect';
import { Button } from '@/ui/Button';
import { TextField } from '@/ui/Field';

const COLUMNS = COLUMN_KEYS.map((k) => ({ value: k, words: SWEEP_COLUMNS[k].words }));

const percent = (text: string): number | null => typedFigure(text, '1');
const percentIn = (empty: boolean) =>
  z.string().refine((text) => (empty && text.trim() === '') || (percent(text) ?? 101) <= 100, 'A figure up to 100.');

/** A sweep's set-up as typed. */
const Setup = z
  .object({
    title: z.string().trim().max(120, 'At most 120 characters.'),
    setBy: z.enum(COLUMN_KEYS as [SweepColumn, ...SweepColumn[]]),
    column: z.enum(COLUMN_KEYS as [SweepColumn, ...SweepColumn[]]),
    claimed: z.string(),
    tolerance: percentIn(false),
    sag: percentIn(false),
    efficiency: percentIn(true),
  })
  .superRefine(({ claimed, column }, context) => {
    const wrong = figureError(claimed, SWEEP_COLUMNS[column].unit);
    if (wrong !== undefined) context.addIssue({ code: 'custom', path: ['claimed'], message: wrong });
  });
type Setup = z.infer<typeof Setup>;

/** What a new sweep is for: begins with what the nameplate claims. */
export function SetupForm({ onBegin }: { onBegin(setup: SweepSetup): void }) {
  const { active, lines } = useJob();
  const output = printedOutputs(active.board)[0];
  const kept = useMemo(() => efficiencyKept(lines), [lines]);
  const { register, control, handleSubmit, formState } = useForm<Setup>({
    resolver: zodResolver(Setup),
    defaultValues: {
      title: '',
      setBy: 'iout',
      column: 'vout',
      claimed: output ? withMark(String(output.volts)) : '',
      tolerance: '5',
      sag: '5',
      efficiency: kept === null ? '' : withMark((100 * kept).toFixed(1)),
    },
    mode: 'onChange',
  });
  const { errors } = formState;
  const typed = useWatch({ control }) as Setup;
  const { title, setBy, column, claimed } = typed;
  const { unit } = SWEEP_COLUMNS[column];
  const value = typedFigure(claimed, unit);
  const name = title.trim() || `${SWEEP_COLUMNS[column].words} by ${SWEEP_COLUMNS[setBy].words}`;
  return (
    <form
      className="flex flex-col gap-4"
      noValidate
      onSubmit={(e) =>
        void handleSubmit((setup) => {
          const share = percent(setup.efficiency);
          onBegin({
            title: name,
            setBy: setup.setBy,
            claimed: value === null ? null : { column, value, tolerance: percent(setup.tolerance)! / 100 },
            sagLimit: percent(setup.sag)! / 100,
            efficiency: share === null ? null : share / 100,
          });
        })(e)
      }
    >
      <div className="flex flex-wrap items-start gap-3">
        <FormSelect
          control={control}
          name="setBy"
          label="What is set"
          className="w-40"

          options={COLUMNS}
        />
        <FormSelect
          control={control}
          name="column"
          label="What is claimed"
          className="w-40"

          options={COLUMNS}
        />
        <TextField
          label={`Claimed${unit === '1' ? '' : `, ${unit}`}`}
          className="w-24"
          error={errors.claimed?.message}
          hint={value !== null && unit !== '1' ? formatQuantity(value, unit, 4) : 'none'}
          {...register('claimed')}
        />
        <TextField label="Tolerance, %" className="w-24" error={errors.tolerance?.message} {...register('tolerance')} />
        <TextField label="Sag limit, %" className="w-24" error={errors.sag?.message} {...register('sag')} />
        <TextField
          label="Efficiency by the sum, %"
          className="w-44"
          error={errors.efficiency?.message}
          hint={kept === null ? 'unknown' : 'from the sum kept in this job'}
          {...register('efficiency')}
        />
      </div>
      <TextField
        label="Name"
        className="w-96"
        placeholder={name}
        error={errors.title?.message}
        {...register('title')}
      />
      <Button kind="primary" type="submit" autoFocus className="self-start" disabled={!Setup.safeParse(typed).success}>
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
