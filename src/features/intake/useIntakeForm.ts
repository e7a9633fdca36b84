'use client';
import { zodResolver } from '@hookform/resolvers/zod';
import { useMemo } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { z } from 'zod';
import type { Unit } from '@/core/quantity';
import { nameplateSanity } from '@/core/safety';
import { figureIn } from '@/features/frame/figureIn';
import { typedFigure } from '@/features/frame/typedFigure';
import type { BoardChoice, NewJobInput } from '@/wire/jobForm';

/** What feeds a unit, and every kind of source of energy, in words. */
export const FED_BY = [
  { value: 'mains', words: 'mains' },
  { value: 'dc', words: 'DC' },
  { value: 'battery', words: 'battery' },
] as const;
export const SOURCE_KINDS = [
  ...FED_BY,
  { value: 'solar', words: 'solar' },
  { value: 'back-feed', words: 'fed from behind' },
] as const;

/** The intake form as typed. Figures stay text until they are sent; one that cannot be read is said at its field. */
export const IntakeForm = z.object({
  tag: z.string(),
  unit: z.string(),
  serial: z.string(),
  input: z.string(),
  sourceKind: z.enum(['mains', 'dc', 'battery']),
  inputMin: figureIn('V'),
  inputMax: figureIn('V'),
  outputVolts: figureIn('V'),
  outputAmps: figureIn('A'),
  fuseAmps: figureIn('A'),
  complaint: z.string(),
  symptoms: z.array(z.string()),
  history: z.string(),
  accessories: z.string(),
  otherSources: z.string(),
  disconnected: z.boolean(),
});
export type IntakeForm = z.infer<typeof IntakeForm>;

const EMPTY: IntakeForm = {
  tag: '',
  unit: '',
  serial: '',
  input: '',
  sourceKind: 'mains',
  inputMin: '',
  inputMax: '',
  outputVolts: '',
  outputAmps: '',
  fuseAmps: '',
  complaint: '',
  symptoms: [],
  history: '',
  accessories: '',
  otherSources: '',
  disconnected: false,
};

const figure = (text: string, unit: Unit): number | undefined => typedFigure(text, unit) ?? undefined;

/** What kind of source a name tells of. */
function sourceKind(name: string): 'battery' | 'solar' | 'back-feed' {
  if (/batter|cell|accu/iu.test(name)) return 'battery';
  return /solar|panel/iu.test(name) ? 'solar' : 'back-feed';
}

/** State of the intake form, its nameplate sanity, and the job it would make. */
export function useIntakeForm(first: Partial<IntakeForm>) {
  const { register, control, handleSubmit, formState } = useForm<IntakeForm>({
    defaultValues: { ...EMPTY, ...first },
    resolver: zodResolver(IntakeForm),
    mode: 'onChange',
  });
  const form = useWatch({ control }) as IntakeForm;
  const plate = useMemo(
    () => ({
      source: form.sourceKind,
      inputMin: figure(form.inputMin, 'V'),
      inputMax: figure(form.inputMax, 'V') ?? figure(form.inputMin, 'V'),
      outputVolts: figure(form.outputVolts, 'V'),
      outputAmps: figure(form.outputAmps, 'A'),
      fuseAmps: figure(form.fuseAmps, 'A'),
    }),
    [form],
  );
  const sanity = useMemo(() => nameplateSanity(plate), [plate]);
  const toJob = (board: BoardChoice, bench: string): NewJobInput => {
    const names = { mains: 'Mains lead', dc: 'DC input', battery: 'Battery' } as const;
    const others = form.otherSources
      .split(',')
      .map((s) => s.trim())
      .filter(Boolean);
    const outputs =
      plate.outputVolts !== undefined
        ? [{ volts: plate.outputVolts, amps: plate.outputAmps ?? 0, kind: 'dc' as const }]
        : undefined;
    return {
      tag: form.tag,
      unit: form.unit,
      serial: form.serial,
      nameplate: JSON.parse(
        JSON.stringify({
          input: form.input || undefined,
          source: form.sourceKind,
          inputMin: plate.inputMin,
          inputMax: plate.inputMax,
          outputs,
        }),
      ) as NewJobInput['nameplate'],
      complaint: form.complaint,
      symptoms: [...form.symptoms],
      history: form.history,
      accessories: form.accessories,
      sources: [
        { name: names[form.sourceKind], kind: form.sourceKind },
        ...others.map((name) => ({ name, kind: sourceKind(name) })),
      ],
      board,
      bench,
      disconnected: form.disconnected,
    };
  };
  return { form, register, control, handleSubmit, errors: formState.errors, plate, sanity, toJob };
}
