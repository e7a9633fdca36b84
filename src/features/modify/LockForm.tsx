'use client';
import { useMemo } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { boardNets } from '@/core/circuit';
import { planChange } from '@/core/modify';
import type { Change, LockPin } from '@/core/modify';
import { benchText } from '@/core/quantity';
import { useJob } from '@/features/job/JobContext';
import { typedFigure } from '@/features/frame/typedFigure';
import { FormFigure } from '@/features/frame/FormFigure';
import { FormSelect } from '@/features/frame/FormSelect';
import { PlanView } from './PlanView';

/** As typed; `at`: which of the pins. */
interface Typed extends Readonly<Record<'at' | 'rise' | 'hyst' | 'brown' | 'th' | 'bottom' | 'hystNet', string>> {
  readonly series: 'E24' | 'E96';
}

/** What a pin and what hangs on it say to begin with. */
function ofPin({ vTh, bottom: [lower] }: LockPin): { readonly th: string; readonly bottom: string } {
  return {
    th: vTh === null ? '' : benchText(vTh),
    bottom: benchText(lower?.kind === 'resistor' ? lower.value : 10e3),
  };
}

/** An under-voltage lock-out at an enable pin: where it starts, how much lower it stops. */
export function LockForm({ pins, onKept }: { pins: readonly LockPin[]; onKept(): void }) {
  const { active } = useJob();
  const { control, setValue } = useForm<Typed>({
    defaultValues: { at: '0', rise: '', hyst: '0', brown: '', series: 'E24', hystNet: '', ...ofPin(pins[0]!) },
  });
  const typed = useWatch({ control }) as Typed;
  const { at, series, hystNet } = typed;
  const pin = pins[Number(at)] ?? pins[0]!;
  const figures = {
    vTh: typedFigure(typed.th, 'V'),
    vRise: typedFigure(typed.rise, 'V'),
    vHyst: typedFigure(typed.hyst, 'V', true),
    vBrownOut: typedFigure(typed.brown, 'V', true),
    rBottom: typedFigure(typed.bottom, 'ohm'),
  };
  const key = JSON.stringify([figures, series, hystNet, at]);
  const change = useMemo((): Change | null => {
    const { vTh, vRise, vHyst, vBrownOut, rBottom } = figures;
    if (vTh === null || vRise === null || vHyst === null || vBrownOut === null || rBottom === null) return null;
    const more = hystNet === '' ? {} : { hystNet };
    return {
      kind: 'lock-out',
      ref: pin.ref,
      pin: pin.pin,
      rail: pin.rail,
      return: pin.return,
      vTh,
      vRise,
      vHyst,
      vBrownOut,
      rBottom,
      series,
      ...more,
    };
    // The figures are what the key is made of.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  const plan = useMemo(() => (change ? planChange(active.board, change) : null), [active.board, change]);
  return (
    <div className="flex flex-col gap-4">
      <div className="flex flex-wrap items-end gap-3">
        <FormFigure control={control} name="rise" unit="V" label="Starts at, V" className="w-28" autoFocus />
        <FormFigure control={control} name="hyst" unit="V" zero label="Stops lower by, V" className="w-32" />
        <FormFigure control={control} name="brown" unit="V" zero label="Converter browns out at, V" className="w-44" />
        <FormSelect
          control={control}
          name="at"
          label="Pin"
          className="w-32"
          options={pins.map((p, i) => ({ value: String(i), words: `${p.ref} pin ${p.pin}` }))}
          onChosen={(i) => {
            const { th, bottom } = ofPin(pins[Number(i)] ?? pins[0]!);
            setValue('th', th);
            setValue('bottom', bottom);
          }}
        />
        <FormFigure control={control} name="th" unit="V" label="Threshold of the pin, V" className="w-40" />
        <FormFigure control={control} name="bottom" unit="ohm" label="Lower resistor" className="w-28" />
        <FormSelect control={control} name="series" label="Values at hand" className="w-28" options={['E24', 'E96']} />
        <FormSelect
          control={control}
          name="hystNet"
          label="At the return until it starts"
          className="w-48"
          options={[{ value: '', words: 'none' }, ...boardNets(active.board).map((n) => ({ value: n, words: n }))]}
        />
      </div>
      <p className="text-sm text-faint">
        {pin.top.length + pin.bottom.length > 0
          ? `A divider is there: ${[...pin.top, ...pin.bottom].map((p) => p.ref).join(', ')}. It is moved.`
          : `Nothing divides ${pin.rail} for this pin yet: a divider is added.`}
      </p>
      <PlanView plan={plan} change={change} onKept={onKept} />
    </div>
  );
}
