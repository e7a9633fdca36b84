'use client';
import { useMemo, useState } from 'react';
import { parseQuantity } from '@/core/quantity';
import { nameplateSanity } from '@/core/safety';
import type { BoardChoice, NewJobInput } from '@/wire/jobForm';

/** The intake form as typed. Figures stay text until they are sent. */
export interface IntakeForm {
  readonly tag: string;
  readonly unit: string;
  readonly serial: string;
  readonly input: string;
  readonly sourceKind: 'mains' | 'dc' | 'battery';
  readonly inputMin: string;
  readonly inputMax: string;
  readonly outputVolts: string;
  readonly outputAmps: string;
  readonly fuseAmps: string;
  readonly complaint: string;
  readonly symptoms: readonly string[];
  readonly history: string;
  readonly accessories: string;
  readonly otherSources: string;
  readonly disconnected: boolean;
}

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

function figure(text: string): number | undefined {
  const read = parseQuantity(text);
  return text.trim() !== '' && read.ok ? read.value.value : undefined;
}

/** What kind of source a name tells of. */
function sourceKind(name: string): 'battery' | 'solar' | 'back-feed' {
  if (/batter|cell|accu/iu.test(name)) return 'battery';
  return /solar|panel/iu.test(name) ? 'solar' : 'back-feed';
}

/** State of the intake form, its nameplate sanity, and the job it would make. */
export function useIntakeForm(first: Partial<IntakeForm>) {
  const [form, setForm] = useState<IntakeForm>({ ...EMPTY, ...first });
  const set = <K extends keyof IntakeForm>(key: K, value: IntakeForm[K]): void =>
    setForm((kept) => ({ ...kept, [key]: value }));
  const plate = useMemo(
    () => ({
      source: form.sourceKind,
      inputMin: figure(form.inputMin),
      inputMax: figure(form.inputMax) ?? figure(form.inputMin),
      outputVolts: figure(form.outputVolts),
      outputAmps: figure(form.outputAmps),
      fuseAmps: figure(form.fuseAmps),
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
  return { form, set, plate, sanity, toJob };
}
