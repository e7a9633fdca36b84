'use client';
import { useMemo, useState } from 'react';
import { planChange } from '@/core/modify';
import type { Change } from '@/core/modify';
import type { Divider } from '@/core/operate';
import { formatQuantity } from '@/core/quantity';
import { useJob } from '@/features/job/JobContext';
import { typedFigure } from '@/features/frame/typedFigure';
import { FigureField } from '@/features/frame/FigureField';
import { Select } from '@/ui/Select';
import { PlanView } from './PlanView';

/** Another output voltage: the divider that sets it, the volts wanted, which leg is changed. */
export function OutputForm({ dividers, onKept }: { dividers: readonly Divider[]; onKept(): void }) {
  const { active } = useJob();
  const [at, setAt] = useState(0);
  const divider = dividers[at] ?? dividers[0]!;
  const [target, setTarget] = useState('');
  const [reference, setReference] = useState<string | null>(null);
  const [modify, setModify] = useState<'top' | 'bottom' | null>(null);
  const [series, setSeries] = useState<'E12' | 'E24' | 'E96'>('E24');
  const [load, setLoad] = useState('');
  const vRef = reference === null ? divider.vRef : typedFigure(reference, 'V');
  const vTarget = typedFigure(target, 'V');
  const now = vRef === null ? null : vRef * (1 + divider.rTop / divider.rBottom);
  // In parallel is the lesser work: raising is done at the lower leg, lowering at the upper one.
  const leg = modify ?? (vTarget !== null && now !== null && vTarget < now ? 'top' : 'bottom');
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
        <FigureField
          unit="V"
          label="Wanted output, V"
          className="w-36"
          autoFocus
          value={target}
          onChange={(e) => setTarget(e.target.value)}
        />
        {dividers.length > 1 && (
          <Select
            label="Output"
            className="w-40"
            value={String(at)}
            options={dividers.map((d, i) => ({ value: String(i), words: `${d.rail} by ${d.ref}` }))}
            onChoose={(i) => setAt(Number(i))}
          />
        )}
        <FigureField
          unit="V"
          label="Reference, V"
          className="w-32"
          value={reference ?? (divider.vRef === null ? '' : String(Number(divider.vRef.toPrecision(4))))}
          onChange={(e) => setReference(e.target.value)}
        />
        <Select
          label="Change at"
          className="w-44"
          value={leg}
          options={[
            { value: 'bottom', words: `lower, ${legs(divider.bottom)}` },
            { value: 'top', words: `upper, ${legs(divider.top)}` },
          ]}
          onChoose={setModify}
        />
        <Select
          label="Values at hand"
          className="w-28"
          value={series}
          options={['E12', 'E24', 'E96']}
          onChoose={setSeries}
        />
        <FigureField
          unit="V"
          label="Load bears up to, V"
          className="w-36"
          value={load}
          onChange={(e) => setLoad(e.target.value)}
          placeholder="unknown"
        />
      </div>
      <p className="text-sm text-faint">
        {divider.rail} stands at{' '}
        <span className="figure">{now === null ? 'unknown' : formatQuantity(now, 'V', 4)}</span> now:{' '}
        {legs(divider.top)} {formatQuantity(divider.rTop, 'ohm')} over {legs(divider.bottom)}{' '}
        {formatQuantity(divider.rBottom, 'ohm')}, reference {reference === null ? divider.vRefFrom : 'as typed'}.
      </p>
      <PlanView plan={plan} change={change} onKept={onKept} />
    </div>
  );
}
