'use client';
import { zodResolver } from '@hookform/resolvers/zod';
import { useMemo } from 'react';
import { Controller, useForm, useWatch } from 'react-hook-form';
import type { Control } from 'react-hook-form';
import { z } from 'zod';
import type { Unit } from '@/core/quantity';
import { isElectrolytic, marking } from '@/core/part';
import type { Part } from '@/core/part';
import { shortValue } from '@/core/part';
import { judgeSubstitution, safetyKind } from '@/core/substitute';
import type { FittedPart } from '@/core/substitute';
import { FormSelect } from './FormSelect';
import { Button } from '@/ui/Button';
import { TextField } from '@/ui/Field';
import { figureIn } from './figureIn';
import { typedFigure } from './typedFigure';
import { Tick } from '@/ui/Tick';
import { useCommands } from '@/features/job/JobContext';

const SPEEDS = ['', 'T', 'F', 'TT', 'FF', 'M'] as const;
const BREAKING = ['', 'L', 'H', 'E'] as const;

type Units = Readonly<Record<'value' | 'ratedVolts' | 'ratedAmps' | 'ratedWatts', Unit>>;

/** What is typed of a fitted part; figures in their units. */
const fitSchema = (units: Units) =>
  z.object({
    source: z.enum(['new', 'salvaged']),
    samePart: z.boolean(),
    value: figureIn(units.value),
    ratedVolts: figureIn(units.ratedVolts),
    ratedAmps: figureIn(units.ratedAmps),
    ratedWatts: figureIn(units.ratedWatts),
    lowEsr: z.boolean(),
    celsius105: z.boolean(),
    safetyClass: z.string().max(60),
    fuseSpeed: z.enum(SPEEDS),
    fuseBreaking: z.enum(BREAKING),
    words: z.string().max(2000, 'At most 2000 characters.'),
  });
type Fit = z.infer<ReturnType<typeof fitSchema>>;

const NOTHING: Fit = {
  source: 'new',
  samePart: true,
  value: '',
  ratedVolts: '',
  ratedAmps: '',
  ratedWatts: '',
  lowEsr: false,
  celsius105: false,
  safetyClass: '',
  fuseSpeed: '',
  fuseBreaking: '',
  words: '',
};

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
  const units = useMemo(
    () =>
      ({
        value: part.kind === 'resistor' ? 'ohm' : part.kind === 'capacitor' ? 'F' : 'H',
        ratedVolts: 'V',
        ratedAmps: 'A',
        ratedWatts: 'W',
      }) as const,
    [part.kind],
  );
  const schema = useMemo(() => fitSchema(units), [units]);
  const { register, control, handleSubmit, formState } = useForm<Fit>({
    resolver: zodResolver(schema),
    defaultValues: { ...NOTHING, samePart: !another },
    mode: 'onChange',
  });
  const { errors } = formState;
  const typed = useWatch({ control }) as Fit;
  const { samePart } = typed;
  const unread = schema.safeParse(typed).success === false;
  const fitted = useMemo((): FittedPart => {
    const figure = (key: keyof typeof units): number | undefined => typedFigure(typed[key], units[key]) ?? undefined;
    const made = {
      source: typed.source,
      samePart: typed.samePart,
      value: figure('value'),
      ratedVolts: figure('ratedVolts'),
      ratedAmps: figure('ratedAmps'),
      ratedWatts: figure('ratedWatts'),
      lowEsr: typed.lowEsr || undefined,
      celsius105: typed.celsius105 || undefined,
      safetyClass: typed.safetyClass || undefined,
      fuseSpeed: typed.fuseSpeed || undefined,
      fuseBreaking: typed.fuseBreaking || undefined,
    };
    return JSON.parse(JSON.stringify(made)) as FittedPart;
  }, [typed, units]);
  const verdict = judgeSubstitution(part, fitted);
  const refused = verdict.verdict === 'refused';
  const send = handleSubmit(({ words }) => {
    if (refused) return;
    const was = marking(part) ?? shortValue(part);
    void addLine({ kind: 'replacement', body: { ref: part.ref, was, fitted: { ...fitted }, words } }, boardId);
  });
  const passive = part.kind === 'resistor' || part.kind === 'capacitor' || part.kind === 'inductor';
  const safety = safetyKind(part);
  return (
    <form onSubmit={(e) => void send(e)} noValidate className="mt-2 flex flex-col gap-2">
      <div className="flex flex-wrap items-end gap-3">
        <FormSelect
          control={control}
          name="source"
          label="Source"
          className="w-32"

          options={['new', 'salvaged']}
        />
        <Ticked control={control} name="samePart" label="the same part" />
        {!samePart && (
          <>
            {passive && (
              <TextField
                inputMode="decimal"
                label="Value"
                className="w-24"
                error={errors.value?.message}
                placeholder={shortValue(part)}
                {...register('value')}
              />
            )}
            <TextField
              inputMode="decimal"
              label="Rated V"
              className="w-20"
              error={errors.ratedVolts?.message}
              {...register('ratedVolts')}
            />
            {part.kind !== 'capacitor' && (
              <TextField
                inputMode="decimal"
                label="Rated A"
                className="w-20"
                error={errors.ratedAmps?.message}
                {...register('ratedAmps')}
              />
            )}
            {part.kind === 'resistor' && (
              <TextField
                inputMode="decimal"
                label="Rated W"
                className="w-20"
                error={errors.ratedWatts?.message}
                {...register('ratedWatts')}
              />
            )}
            {part.kind === 'fuse' && (
              <>
                <FormSelect
                  control={control}
                  name="fuseSpeed"
                  label="Speed"
                  className="w-20"

                  options={SPEEDS}
                />
                <FormSelect
                  control={control}
                  name="fuseBreaking"
                  label="Breaking"
                  className="w-20"

                  options={BREAKING}
                />
              </>
            )}
            {safety !== null && part.kind !== 'fuse' && (
              <TextField label="Class printed on it" className="w-36" {...register('safetyClass')} />
            )}
            {isElectrolytic(part) && (
              <>
                <Ticked control={control} name="lowEsr" label="low ESR" />
                <Ticked control={control} name="celsius105" label="105 °C" />
              </>
            )}
          </>
        )}
        <TextField label="Note" className="w-48" error={errors.words?.message} {...register('words')} />
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

function Ticked({
  control,
  name,
  label,
}: {
  control: Control<Fit>;
  name: 'samePart' | 'lowEsr' | 'celsius105';
  label: string;
}) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field }) => <Tick label={label} className="pb-1.5" checked={field.value} onTick={field.onChange} />}
    />
  );
}
