'use client';
import { useMemo } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { boardNets } from '@/core/circuit';
import { findLockPins, planChange } from '@/core/modify';
import type { Change, LoadPlace } from '@/core/modify';
import { useJob } from '@/features/job/JobContext';
import { typedFigure } from '@/features/frame/typedFigure';
import { FormFigure } from '@/features/frame/FormFigure';
import { FormSelect } from '@/features/frame/FormSelect';
import { PlanView } from './PlanView';

/** As typed; `at`: which of the places. */
type Typed = Readonly<Record<'at' | 'min' | 'max' | 'drop' | 'be' | 'watts' | 'least' | 'wakes', string>>;

/** Start on load: the loads it must and may see, the drop they allow, the net that wakes the converter. */
export function LoadForm({ places, onKept }: { places: readonly LoadPlace[]; onKept(): void }) {
  const { active } = useJob();
  const { board } = active;
  const { control } = useForm<Typed>({
    defaultValues: {
      at: '0',
      min: '',
      max: '',
      drop: '',
      be: '0.6',
      watts: '5',
      least: '',
      wakes: findLockPins(board)[0]?.net ?? boardNets(board)[0] ?? '',
    },
  });
  const typed = useWatch({ control }) as Typed;
  const { at, wakes } = typed;
  const place = places[Number(at)] ?? places[0]!;
  const figures = {
    vBe: typedFigure(typed.be, 'V'),
    iMin: typedFigure(typed.min, 'A'),
    iMax: typedFigure(typed.max, 'A'),
    vDropMax: typedFigure(typed.drop, 'V'),
    ratedWatts: typedFigure(typed.watts, 'W'),
    least: typedFigure(typed.least, 'V'),
  };
  const key = JSON.stringify([figures, wakes, at]);
  const change = useMemo((): Change | null => {
    const { vBe, iMin, iMax, vDropMax, ratedWatts, least } = figures;
    if (vBe === null || iMin === null || iMax === null || vDropMax === null || ratedWatts === null) return null;
    const { rail, connector, pin } = place;
    const more = least === null ? {} : { loadVoltsMin: least };
    return {
      kind: 'start-on-load',
      rail,
      return: place.return,
      connector,
      pin,
      vBe,
      iMin,
      iMax,
      vDropMax,
      ratedWatts,
      wakes,
      ...more,
    };
    // The figures are what the key is made of.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  const plan = useMemo(() => (change ? planChange(board, change) : null), [board, change]);
  return (
    <div className="flex flex-col gap-4">
      <div className="flex flex-wrap items-end gap-3">
        <FormFigure control={control} name="min" unit="A" label="Smallest load, A" className="w-32" autoFocus />
        <FormFigure control={control} name="max" unit="A" label="Largest load, A" className="w-32" />
        <FormFigure control={control} name="drop" unit="V" label="Drop allowed, V" className="w-32" />
        <FormFigure control={control} name="be" unit="V" label="Transistor turns on at, V" className="w-44" />
        <FormFigure control={control} name="watts" unit="W" label="Resistor rated, W" className="w-32" />
        <FormSelect
          control={control}
          name="at"
          label="Connector"
          className="w-36"
          options={places.map((p, i) => ({ value: String(i), words: `${p.connector}, ${p.rail}` }))}
        />
        <FormSelect
          control={control}
          name="wakes"
          label="Wakes it when pulled to the return"
          className="w-56"
          options={boardNets(board)}
        />
        <FormFigure
          control={control}
          name="least"
          unit="V"
          label="Load needs at least, V"
          className="w-40"
          placeholder="unknown"
        />
      </div>
      <PlanView plan={plan} change={change} onKept={onKept} />
    </div>
  );
}
