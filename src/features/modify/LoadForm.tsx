'use client';
import { useMemo, useState } from 'react';
import { boardNets } from '@/core/circuit';
import { findLockPins, planChange } from '@/core/modify';
import type { Change, LoadPlace } from '@/core/modify';
import { useJob } from '@/features/job/JobContext';
import { typedFigure } from '@/features/frame/typedFigure';
import { FigureField } from '@/features/frame/FigureField';
import { Select } from '@/ui/Select';
import { PlanView } from './PlanView';

/** Start on load: the loads it must and may see, the drop they allow, the net that wakes the converter. */
export function LoadForm({ places, onKept }: { places: readonly LoadPlace[]; onKept(): void }) {
  const { active } = useJob();
  const { board } = active;
  const [at, setAt] = useState(0);
  const place = places[at] ?? places[0]!;
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>({ be: '0.6', watts: '5' });
  const [wakes, setWakes] = useState(() => findLockPins(board)[0]?.net ?? boardNets(board)[0] ?? '');
  const set = (key: string) => (e: { target: { value: string } }) =>
    setTexts((kept) => ({ ...kept, [key]: e.target.value }));
  const read = (key: string, unit: 'V' | 'A' | 'W'): number | null => typedFigure(texts[key] ?? '', unit);
  const figures = {
    vBe: read('be', 'V'),
    iMin: read('min', 'A'),
    iMax: read('max', 'A'),
    vDropMax: read('drop', 'V'),
    ratedWatts: read('watts', 'W'),
    least: read('least', 'V'),
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
        <FigureField
          unit="A"
          label="Smallest load, A"
          className="w-32"
          autoFocus
          value={texts['min'] ?? ''}
          onChange={set('min')}
        />
        <FigureField
          unit="A"
          label="Largest load, A"
          className="w-32"
          value={texts['max'] ?? ''}
          onChange={set('max')}
        />
        <FigureField
          unit="V"
          label="Drop allowed, V"
          className="w-32"
          value={texts['drop'] ?? ''}
          onChange={set('drop')}
        />
        <FigureField
          unit="V"
          label="Transistor turns on at, V"
          className="w-44"
          value={texts['be'] ?? ''}
          onChange={set('be')}
        />
        <FigureField
          unit="W"
          label="Resistor rated, W"
          className="w-32"
          value={texts['watts'] ?? ''}
          onChange={set('watts')}
        />
        <Select
          label="Connector"
          className="w-36"
          value={String(at)}
          options={places.map((p, i) => ({ value: String(i), words: `${p.connector}, ${p.rail}` }))}
          onChoose={(i) => setAt(Number(i))}
        />
        <Select
          label="Wakes it when pulled to the return"
          className="w-56"
          value={wakes}
          options={boardNets(board)}
          onChoose={setWakes}
        />
        <FigureField
          unit="V"
          label="Load needs at least, V"
          className="w-40"
          value={texts['least'] ?? ''}
          onChange={set('least')}
          placeholder="unknown"
        />
      </div>
      <PlanView plan={plan} change={change} onKept={onKept} />
    </div>
  );
}
