'use client';
import { withIds } from '@/core/job';
import { zodResolver } from '@hookform/resolvers/zod';
import { useMemo } from 'react';
import { Controller, useFieldArray, useForm } from 'react-hook-form';
import { z } from 'zod';
import type { Nameplate, NameplateOutput } from '@/core/circuit';
import type { JobFacts, JobSource, LedgerBodies } from '@/core/ledger';
import { withMark } from '@/core/quantity';
import { useJob } from '@/features/job/JobContext';
import { figureIn } from '@/features/frame/figureIn';
import { typedFigure } from '@/features/frame/typedFigure';
import { FormSelect } from '@/features/frame/FormSelect';
import { Button } from '@/ui/Button';
import { TextArea, TextField } from '@/ui/Field';
import { COMPLAINT_CODES } from '@/wire/complaints';
import { Symptoms } from './Symptoms';
import { FED_BY, SOURCE_KINDS } from './useIntakeForm';

const Form = z.object({
  unit: z.string().trim().min(1, 'Name the unit.').max(120, 'At most 120 characters.'),
  serial: z.string().trim().max(80, 'At most 80 characters.'),
  input: z.string().trim().max(200, 'At most 200 characters.'),
  source: z.enum(['mains', 'dc', 'battery']),
  inputMin: figureIn('V'),
  inputNominal: figureIn('V'),
  inputMax: figureIn('V'),
  outputs: z.array(
    z.object({
      /** Which output it was before; null for a new one. */
      was: z.number().nullable(),
      volts: figureIn('V').refine((t) => t.trim() !== '', 'How many volts?'),
      amps: figureIn('A', true),
      kind: z.enum(['dc', 'ac', 'pulse']),
    }),
  ),
  complaint: z.string().trim().max(2000, 'At most 2000 characters.'),
  symptoms: z.array(z.string()),
  history: z.string().trim().max(2000, 'At most 2000 characters.'),
  accessories: z.string().trim().max(500, 'At most 500 characters.'),
  sources: z
    .array(
      z.object({
        id: z.string(),
        name: z.string().trim().min(1, 'Name it.').max(80, 'At most 80 characters.'),
        kind: z.enum(['mains', 'battery', 'solar', 'back-feed', 'dc']),
      }),
    )
    .min(1)
    .max(8),
});
type Form = z.infer<typeof Form>;

/** What was taken in wrongly is put right by a line in the log; what the line does not name stays as it was. */
export function CorrectForm({ onDone }: { onDone(): void }) {
  const { job, boards, sources: known, addLine } = useJob();
  const first = useMemo(() => formOf(job), [job]);
  const { register, control, handleSubmit, formState } = useForm<Form>({
    resolver: zodResolver(Form),
    defaultValues: first,
    mode: 'onChange',
  });
  const outputs = useFieldArray({ control, name: 'outputs' });
  const sources = useFieldArray({ control, name: 'sources', keyName: 'key' });
  const { errors } = formState;
  const send = handleSubmit(async (form) => {
    const body = changes(job, first, form);
    if (Object.keys(body).length > 0) {
      const home = body.nameplate === undefined ? null : (boards[0]?.id ?? null);
      if ((await addLine({ kind: 'correction', body }, home)) === null) return;
    }
    onDone();
  });
  const next = (): string => {
    const taken = new Set([...known.map((s) => s.id), ...sources.fields.map((s) => s.id)]);
    let n = taken.size + 1;
    while (taken.has(`s${n}`)) n++;
    return `s${n}`;
  };
  return (
    <form
      onSubmit={(e) => void send(e)}
      className="flex flex-col gap-5"
      noValidate
      aria-label="Correct what was taken in"
    >
      <div className="grid grid-cols-[1fr_12rem] gap-3 max-sm:grid-cols-1">
        <TextField label="Unit" autoFocus error={errors.unit?.message} {...register('unit')} />
        <TextField label="Serial" error={errors.serial?.message} {...register('serial')} />
      </div>
      <fieldset className="grid grid-cols-4 gap-3 max-sm:grid-cols-2">
        <legend className="mb-1 text-sm font-semibold">Nameplate</legend>
        <FormSelect control={control} name="source" label="Fed by" options={FED_BY} />
        <TextField
          label="Input as printed"
          className="col-span-3 max-sm:col-span-1"
          error={errors.input?.message}
          {...register('input')}
        />
        <TextField
          label="Lowest input, V"
          inputMode="decimal"
          error={errors.inputMin?.message}
          {...register('inputMin')}
        />
        <TextField
          label="Usual, V"
          inputMode="decimal"
          error={errors.inputNominal?.message}
          {...register('inputNominal')}
        />
        <TextField label="Highest, V" inputMode="decimal" error={errors.inputMax?.message} {...register('inputMax')} />
      </fieldset>
      <fieldset className="flex flex-col gap-2">
        <legend className="mb-1 text-sm font-semibold">Outputs</legend>
        {outputs.fields.map((field, i) => (
          <div
            key={field.id}
            className="grid grid-cols-[7rem_7rem_8rem_auto] items-end justify-start gap-3 max-sm:grid-cols-2"
          >
            <TextField
              label={`Output ${i + 1}, V`}
              inputMode="decimal"
              error={errors.outputs?.[i]?.volts?.message}
              {...register(`outputs.${i}.volts`)}
            />
            <TextField
              label="A"
              inputMode="decimal"
              error={errors.outputs?.[i]?.amps?.message}
              {...register(`outputs.${i}.amps`)}
            />
            <FormSelect control={control} name={`outputs.${i}.kind`} label="Kind" options={OUTPUT_KINDS} />
            <Button onClick={() => outputs.remove(i)}>Take away</Button>
          </div>
        ))}
        <Button className="self-start" onClick={() => outputs.append({ was: null, volts: '', amps: '', kind: 'dc' })}>
          Another output
        </Button>
      </fieldset>
      <TextArea label="Complaint" error={errors.complaint?.message} {...register('complaint')} />
      <Controller
        control={control}
        name="symptoms"
        render={({ field }) => <Symptoms chosen={field.value} onChoose={field.onChange} />}
      />
      <TextArea label="History" error={errors.history?.message} {...register('history')} />
      <TextField label="Came with" error={errors.accessories?.message} {...register('accessories')} />
      <fieldset className="flex flex-col gap-2">
        <legend className="mb-1 text-sm font-semibold">Sources of energy</legend>
        {sources.fields.map((field, i) => (
          <div
            key={field.key}
            className="grid grid-cols-[14rem_9rem_auto] items-end justify-start gap-3 max-sm:grid-cols-2"
          >
            <TextField
              label={`Source ${i + 1}`}
              error={errors.sources?.[i]?.name?.message}
              {...register(`sources.${i}.name`)}
            />
            <FormSelect control={control} name={`sources.${i}.kind`} label="Kind" options={SOURCE_KINDS} />
            <Button disabled={sources.fields.length === 1} onClick={() => sources.remove(i)}>
              Take away
            </Button>
          </div>
        ))}
        <p className="max-w-xl text-sm text-faint">
          A source that is added is live until it is isolated. One that is taken away is still asked for in Make safe:
          that it was named is no proof that it is not there.
        </p>
        <Button
          className="self-start"
          disabled={sources.fields.length >= 8}
          onClick={() => sources.append({ id: next(), name: '', kind: 'battery' })}
        >
          Another source
        </Button>
      </fieldset>
      <div className="flex gap-3">
        <Button type="submit" kind="primary">
          Write the correction
        </Button>
        <Button kind="quiet" onClick={onDone}>
          Leave it
        </Button>
      </div>
    </form>
  );
}

const OUTPUT_KINDS = [
  { value: 'dc', words: 'DC' },
  { value: 'ac', words: 'AC' },
  { value: 'pulse', words: 'pulses' },
] as const;

const shown = (value: number | undefined): string => (value === undefined ? '' : withMark(String(value)));

function formOf({ unit, serial, nameplate, complaint, symptoms, history, accessories, sources }: JobFacts): Form {
  return {
    unit,
    serial,
    input: nameplate.input ?? '',
    source: nameplate.source ?? 'mains',
    inputMin: shown(nameplate.inputMin),
    inputNominal: shown(nameplate.inputNominal),
    inputMax: shown(nameplate.inputMax),
    outputs: (nameplate.outputs ?? []).map(({ volts, amps, kind }, was) => ({
      was,
      volts: shown(volts),
      amps: shown(amps),
      kind,
    })),
    complaint,
    symptoms: [...symptoms],
    history,
    accessories,
    sources: withIds(sources).map(({ id, name, kind }) => ({ id, name, kind })),
  };
}

type Plain = 'unit' | 'serial' | 'complaint' | 'symptoms' | 'history' | 'accessories';
const PLAIN: readonly Plain[] = ['unit', 'serial', 'complaint', 'symptoms', 'history', 'accessories'];
const PLATE = ['input', 'source', 'inputMin', 'inputNominal', 'inputMax', 'outputs'] as const;

/** What differs from what was there, and nothing else. */
function changes(job: JobFacts, first: Form, form: Form): LedgerBodies['correction'] {
  const differs = (key: keyof Form): boolean => JSON.stringify(first[key]) !== JSON.stringify(form[key]);
  const facts: Partial<Record<Plain, unknown>> = {};
  for (const key of PLAIN)
    if (differs(key))
      facts[key] = key === 'symptoms' ? COMPLAINT_CODES.filter((c) => form.symptoms.includes(c)) : form[key];
  const sources: readonly JobSource[] = form.sources;
  return {
    ...(facts as Pick<LedgerBodies['correction'], Plain>),
    ...(PLATE.some(differs) ? { nameplate: plateOf(job.nameplate, form) } : {}),
    ...(differs('sources') ? { sources } : {}),
  };
}

/** The nameplate as typed; what the form does not show stays, as do the nets of an output that was there before. */
function plateOf(before: Nameplate, form: Form): Nameplate {
  const volts = (text: string): number | undefined => typedFigure(text, 'V') ?? undefined;
  const outputs = form.outputs.map((o): NameplateOutput => ({
    ...(o.was === null ? {} : before.outputs?.[o.was]),
    volts: volts(o.volts) ?? 0,
    amps: typedFigure(o.amps, 'A', true) ?? 0,
    kind: o.kind,
  }));
  const plate = {
    ...before,
    input: form.input === '' ? undefined : form.input,
    source: form.source,
    inputMin: volts(form.inputMin),
    inputNominal: volts(form.inputNominal),
    inputMax: volts(form.inputMax),
    outputs: outputs.length > 0 ? outputs : undefined,
  };
  return JSON.parse(JSON.stringify(plate)) as Nameplate;
}
