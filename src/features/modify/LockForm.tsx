'use client';
import { useMemo, useState } from 'react';
import { boardNets } from '@/core/circuit';
import { planChange } from '@/core/modify';
import type { Change, LockPin } from '@/core/modify';
import { benchText } from '@/core/quantity';
import { useJob } from '@/features/job/JobContext';
import { typedFigure } from '@/features/frame/typedFigure';
import { FigureField } from '@/features/frame/FigureField';
import { Select } from '@/ui/Select';
import { PlanView } from './PlanView';

/** An under-voltage lock-out at an enable pin: where it starts, how much lower it stops. */
export function LockForm({ pins, onKept }: { pins: readonly LockPin[]; onKept(): void }) {
  const { active } = useJob();
  const [at, setAt] = useState(0);
  const pin = pins[at] ?? pins[0]!;
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>({ hyst: '0' });
  const [series, setSeries] = useState<'E24' | 'E96'>('E24');
  const [hystNet, setHystNet] = useState('');
  const lower = pin.bottom[0]?.kind === 'resistor' ? pin.bottom[0].value : 10e3;
  const text = (key: string, begin = ''): string => texts[key] ?? begin;
  const set = (key: string) => (e: { target: { value: string } }) =>
    setTexts((kept) => ({ ...kept, [key]: e.target.value }));
  const begin = pin.vTh === null ? '' : benchText(pin.vTh);
  const figures = {
    vTh: typedFigure(text('th', begin), 'V'),
    vRise: typedFigure(text('rise'), 'V'),
    vHyst: typedFigure(text('hyst'), 'V', true),
    vBrownOut: typedFigure(text('brown'), 'V', true),
    rBottom: typedFigure(text('bottom', benchText(lower)), 'ohm'),
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
        <FigureField
          unit="V"
          label="Starts at, V"
          className="w-28"
          autoFocus
          value={text('rise')}
          onChange={set('rise')}
        />
        <FigureField
          unit="V"
          zero
          label="Stops lower by, V"
          className="w-32"
          value={text('hyst')}
          onChange={set('hyst')}
        />
        <FigureField
          unit="V"
          zero
          label="Converter browns out at, V"
          className="w-44"
          value={text('brown')}
          onChange={set('brown')}
        />
        <Select
          label="Pin"
          className="w-32"
          value={String(at)}
          options={pins.map((p, i) => ({ value: String(i), words: `${p.ref} pin ${p.pin}` }))}
          onChoose={(i) => setAt(Number(i))}
        />
        <FigureField
          unit="V"
          label="Threshold of the pin, V"
          className="w-40"
          value={text('th', begin)}
          onChange={set('th')}
        />
        <FigureField
          unit="ohm"
          label="Lower resistor"
          className="w-28"
          value={text('bottom', benchText(lower))}
          onChange={set('bottom')}
        />
        <Select label="Values at hand" className="w-28" value={series} options={['E24', 'E96']} onChoose={setSeries} />
        <Select
          label="At the return until it starts"
          className="w-48"
          value={hystNet}
          options={[{ value: '', words: 'none' }, ...boardNets(active.board).map((n) => ({ value: n, words: n }))]}
          onChoose={setHystNet}
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
