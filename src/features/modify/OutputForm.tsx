'use client';
import { useMemo } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { planChange } from '@/core/modify';
import type { Change } from '@/core/modify';
import type { Divider } from '@/core/operate';
import { formatQuantity, withMark } from '@/core/quantity';
import { useJob } from '@/features/job/JobContext';
import { typedFigure } from '@/features/frame/typedFigure';
import { FormFigure } from '@/features/frame/FormFigure';
import { FormSelect } from '@/features/frame/FormSelect';
import { Select } from '@/ui/Select';
import { PlanView } from './PlanView';

/** As typed; `at`: which of the dividers, `modify`: the leg that was chosen, if any. */
interface Typed {
  readonly at: string;
  readonly target: string;
  readonly reference: string;
  readonly modify: '' | 'top' | 'bottom';
  readonly series: 'E12' | 'E24' | 'E96';
  readonly load: string;
}

const ownReference = ({ vRef }: Divider): string =>
  vRef === null ? '' : withMark(String(Number(vRef.toPrecision(4))));

/** Another output voltage: the divider that sets it, the volts wanted, which leg is changed. */
export function OutputForm({ dividers, onKept }: { dividers: readonly Divider[]; onKept(): void }) {
  const { active } = useJob();
  const { control, setValue } = useForm<Typed>({
    defaultValues: { at: '0', target: '', reference: ownReference(dividers[0]!), modify: '', series: 'E24', load: '' },
  });
  const { at, target, reference, modify, series, load } = useWatch({ control }) as Typed;
  const divider = dividers[Number(at)] ?? dividers[0]!;
  const own = ownReference(divider);
  // As printed it is exact; what is shown of it is rounded.
  const vRef = reference === own ? divider.vRef : typedFigure(reference, 'V');
  const vTarget = typedFigure(target, 'V');
  const now = vRef === null ? null : vRef * (1 + divider.rTop / divider.rBottom);
  // In parallel is the lesser work: raising is done at the lower leg, lowering at the upper one.
  const leg = modify || (vTarget !== null && now !== null && vTarget < now ? 'top' : 'bottom');
  const loadVolts = load === '' ? undefined : (typedFigure(load, 'V') ?? undefined);
  const change = useMemo(
    (): Change | null =>
      vRef === null || vTarget === null
        ? null
        : {
            kind: 'output-voltage',
            rail: divider.rail,
            return: divider.return,
            tap: divider.tap,
            vRef,
            vTarget,
            modify: leg,
            series,
            ...(loadVolts === undefined ? {} : { loadVolts }),
          },
    [divider, vRef, vTarget, leg, series, loadVolts],
  );
  const plan = useMemo(() => (change ? planChange(active.board, change) : null), [active.board, change]);
  const legs = (parts: Divider['top']): string => parts.map((p) => p.ref).join(' and ');
  return (
    <div className="flex flex-col gap-4">
      <div className="flex flex-wrap items-end gap-3">
        <FormFigure control={control} name="target" unit="V" label="Wanted output, V" className="w-36" autoFocus />
        {dividers.length > 1 && (
          <FormSelect
            control={control}
            name="at"
            label="Output"
            className="w-40"
            options={dividers.map((d, i) => ({ value: String(i), words: `${d.rail} by ${d.ref}` }))}
            onChosen={(i) => setValue('reference', ownReference(dividers[Number(i)] ?? dividers[0]!))}
          />
        )}
        <FormFigure control={control} name="reference" unit="V" label="Reference, V" className="w-32" />
        <Select
          label="Change at"
          className="w-44"
          value={leg}
          options={[
            { value: 'bottom', words: `lower, ${legs(divider.bottom)}` },
            { value: 'top', words: `upper, ${legs(divider.top)}` },
          ]}
          onChoose={(l) => setValue('modify', l)}
        />
        <FormSelect
          control={control}
          name="series"
          label="Values at hand"
          className="w-28"
          options={['E12', 'E24', 'E96']}
        />
        <FormFigure
          control={control}
          name="load"
          unit="V"
          label="Load bears up to, V"
          className="w-36"
          placeholder="unknown"
        />
      </div>
      <p className="text-sm text-faint">
        {divider.rail} stands at{' '}
        <span className="figure">{now === null ? 'unknown' : formatQuantity(now, 'V', 4)}</span> now:{' '}
        {legs(divider.top)} {formatQuantity(divider.rTop, 'ohm')} over {legs(divider.bottom)}{' '}
        {formatQuantity(divider.rBottom, 'ohm')}, reference {reference === own ? divider.vRefFrom : 'as typed'}.
      </p>
      <PlanView plan={plan} change={change} onKept={onKept} />
    </div>
  );
}
