'use client';
import { zodResolver } from '@hookform/resolvers/zod';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Controller, useFieldArray, useForm, useWatch } from 'react-hook-form';
import type { Problem } from '@/core/problem';
import { formatQuantity } from '@/core/quantity';
import { applyChoices } from '@/wire/choices';
import { sendJson } from '@/features/job/postJson';
import { FormSelect } from '@/features/frame/FormSelect';
import { Button } from '@/ui/Button';
import { TextArea, TextField } from '@/ui/Field';
import { Notice } from '@/ui/Notice';
import { Segments } from '@/ui/Segments';
import { Tick } from '@/ui/Tick';
import { timeWords } from '@/ui/when';
import { BrowserPart } from './BrowserPart';
import { CloseOutPart, CostsPart, DeratingPart, InstrumentsPart } from './EnginePart';
import { MeterPart } from './MeterPart';
import { MAINS, Settings, mainsFigures } from '@/wire/settings';

const UNREAD: Problem = {
  code: 'bad-input',
  sentence: 'A figure above cannot be taken.',
  remedy: 'Nothing was kept yet. It is said at its field, behind “The rest of it” or “Each kind of stress” perhaps.',
};

/** What the workshop sets once, for every bench. */
export function SettingsScreen({ settings, now, version }: { settings: Settings; now: number; version: string }) {
  const router = useRouter();
  const { register, control, handleSubmit, formState, reset, setValue } = useForm<Settings>({
    resolver: zodResolver(Settings),
    defaultValues: settings,
  });
  const benches = useFieldArray({ control, name: 'benches' });
  const [said, setSaid] = useState<Problem | 'kept' | null>(null);
  const { errors, isSubmitting, isDirty } = formState;
  const send = handleSubmit(
    async (wanted) => {
      const answer = await sendJson<Settings>('PUT', '/api/settings', wanted);
      if (!answer.ok) return setSaid(answer.problem);
      setSaid('kept');
      reset(wanted);
      applyChoices(wanted);
      router.refresh();
    },
    () => setSaid(UNREAD),
  );
  const zone = useWatch({ control, name: 'zone' });
  return (
    <form onSubmit={(e) => void send(e)} className="grid gap-x-12 gap-y-8 lg:grid-cols-2" noValidate>
      <Part title="Workshop" note="Stands at the head of every report.">
        <TextField label="Name" error={errors.workshop?.name?.message} {...register('workshop.name')} />
        <TextArea label="Address" error={errors.workshop?.address?.message} {...register('workshop.address')} />
      </Part>
      <Part title="Benches" note="Every line in a log says which bench wrote it.">
        <ul className="flex flex-col gap-2">
          {benches.fields.map((field, i) => (
            <li key={field.id} className="grid grid-cols-[1fr_1fr_auto] items-end gap-3">
              <TextField
                label={`Bench ${i + 1}`}
                error={errors.benches?.[i]?.name?.message}
                {...register(`benches.${i}.name`)}
              />
              <TextField
                label="Who works there"
                error={errors.benches?.[i]?.who?.message}
                {...register(`benches.${i}.who`)}
              />
              <Button disabled={benches.fields.length === 1} onClick={() => benches.remove(i)}>
                Take away
              </Button>
            </li>
          ))}
        </ul>
        {errors.benches?.root && (
          <p role="alert" className="text-sm text-oxide">
            {errors.benches.root.message}
          </p>
        )}
        <Button className="self-start" onClick={() => benches.append({ name: '', who: '' })}>
          Another bench
        </Button>
      </Part>
      <Part title="How it is written" note="What is typed may have a point or a comma, whatever is set here.">
        <div className="flex flex-wrap items-end gap-6">
          <Controller
            control={control}
            name="decimal"
            render={({ field }) => (
              <div>
                <p id="decimals" className="mb-1 text-sm text-faint">
                  Decimals
                </p>
                <Segments
                  labelledBy="decimals"
                  figures
                  value={field.value}
                  choices={{ point: '4.7\u2009kΩ', comma: '4,7\u2009kΩ' }}
                  onChoose={field.onChange}
                />
              </div>
            )}
          />
          <FormSelect control={control} name="zone" label="Time zone" className="w-64" options={zones(zone)} />
          <p className="pb-1.5 text-sm text-faint">
            now <span className="figure">{timeWords(now, zone)}</span>
          </p>
        </div>
      </Part>
      <Part title="Here" note="Mains of the country: a new job on the mains begins with it.">
        <FormSelect
          control={control}
          name="mains"
          label="Mains"
          className="w-44"
          options={MAINS.map((m) => ({ value: m, words: mainsWords(m) }))}
        />
        <Controller
          control={control}
          name="sound"
          render={({ field }) => (
            <Tick label="Tones of readings in Probe" checked={field.value} onTick={field.onChange} />
          )}
        />
      </Part>
      <Part title="Meter" note="What a reading should show and how sure it is goes by the meter that is on the bench.">
        <MeterPart control={control} setValue={setValue} />
      </Part>
      <Part
        title="Instruments"
        note="Besides the meter: readings with an ESR meter, a capacitance meter or a ring tester are planned; what nothing sees is told with what would show it."
      >
        <InstrumentsPart control={control} />
      </Part>
      <Part title="What a reading costs" note="The next reading is the one that tells most for its seconds.">
        <CostsPart control={control} />
      </Part>
      <Part
        title="Before it is handed over"
        note="Limits of the electrical safety tests. Local codes and the licensed tester come first."
      >
        <CloseOutPart control={control} />
      </Part>
      <Part title="Deratings" note="How much of a printed rating is used before it is called tight.">
        <DeratingPart control={control} />
      </Part>
      <Part title="This browser" note="Set here alone, at once.">
        <BrowserPart version={version} />
      </Part>
      <div className="sticky bottom-0 col-span-full flex items-center gap-4 border-t border-line bg-ground py-3">
        <Button type="submit" kind="primary" disabled={isSubmitting}>
          Keep the settings
        </Button>
        <p role="status" className="text-verdigris">
          {said === 'kept' && !isDirty && `✓ kept: figures are written like ${formatQuantity(4700, 'ohm')}`}
        </p>
      </div>
      {said !== null && said !== 'kept' && (
        <Notice kind="trouble" className="col-span-full">
          <strong>{said.sentence}</strong> {said.remedy}
        </Notice>
      )}
    </form>
  );
}

function mainsWords(mains: Settings['mains']): string {
  const { volts, hertz } = mainsFigures(mains);
  return `${formatQuantity(volts, 'V')} ${formatQuantity(hertz, 'Hz')}`;
}

/** Every zone that is known here, and the one that is set. */
function zones(own: string): readonly string[] {
  return [...new Set([own, 'UTC', ...Intl.supportedValuesOf('timeZone')])];
}

function Part({ title, note, children }: { title: string; note: string; children: React.ReactNode }) {
  return (
    <section aria-label={title} className="flex flex-col gap-3">
      <div>
        <h2 className="font-semibold">{title}</h2>
        <p className="text-sm text-faint">{note}</p>
      </div>
      {children}
    </section>
  );
}
