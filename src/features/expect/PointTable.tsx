'use client';
import { Fragment, useRef, useState } from 'react';
import type { KeyboardEvent } from 'react';
import { judgePowered } from '@/core/expect';
import { poweredPlace } from '@/core/job';
import type { Waveform } from '@/core/work';
import { expectedWords, poweredWords } from '@/features/frame/lineWords';
import { Bolt } from '@/features/frame/Bolt';
import { OUTCOME_INKS, OUTCOME_SIGNS } from '@/features/frame/outcomeSigns';
import { bandWords } from '@/features/frame/pointWords';
import { useJob } from '@/features/job/JobContext';
import { Schematic } from '@/features/schematic/Schematic';
import type { WorkingPoint, WorkingUnit } from '@/workers/workingMessages';
import { PointDetail } from './PointDetail';
import { WavePanel } from './WavePanel';

type Taken = Parameters<typeof poweredPlace>[0] & { readonly value: number; readonly unsteady?: boolean | undefined };

/** The points in the order in which a unit comes alive: cold, under power, measured; one of them opened. */
export function PointTable({
  unit,
  taken,
  supposes,
  wave,
}: {
  unit: WorkingUnit | null;
  taken: readonly Taken[];
  supposes: boolean;
  wave(red: string, black: string): Promise<Waveform | null>;
}) {
  const { active } = useJob();
  const [open, setOpen] = useState<string | null>(null);
  const [part, setPart] = useState<string | undefined>(undefined);
  const body = useRef<HTMLTableSectionElement>(null);
  if (!unit) return null;
  const { points } = unit;
  const seen = new Map(taken.map((t) => [poweredPlace(t), t] as const));
  const atRest = unit.warnings.length === 0;
  const moved = new Set((unit.moved ?? []).map((m) => poweredPlace(m.point)));
  const walk = (e: KeyboardEvent): void => {
    const by = e.key === 'ArrowDown' ? 1 : e.key === 'ArrowUp' ? -1 : 0;
    if (by === 0) return;
    const all = [...(body.current?.querySelectorAll<HTMLButtonElement>('button[data-point]') ?? [])];
    const at = all.indexOf(e.target as HTMLButtonElement);
    if (at < 0) return;
    e.preventDefault();
    all[(at + by + all.length) % all.length]?.focus();
  };
  const current = points.find((p) => poweredPlace(p) === open);
  return (
    <div className="flex flex-col gap-3">
      <table className="w-full" aria-label="What every point should show">
        <thead className="text-left text-sm text-faint">
          <tr>
            <th className="font-normal">In the order it comes alive</th>
            <th className="font-normal">Red / black</th>
            <th className="pr-4 text-right font-normal">Cold, ohms</th>
            <th className="text-right font-normal">{supposes ? 'Powered, supposed' : 'Powered'}</th>
            <th className="w-32 text-right font-normal">Measured</th>
          </tr>
        </thead>
        <tbody ref={body}>
          {points.map((p) => {
            const key = poweredPlace(p);
            const here = key === open;
            return (
              <Fragment key={key}>
                <tr data-here={here ? 'yes' : undefined} className="border-t border-line data-[here=yes]:bg-raised">
                  <td>
                    <button
                      type="button"
                      data-point={key}
                      onKeyDown={walk}
                      aria-expanded={here}
                      onClick={() => {
                        setOpen(here ? null : key);
                        setPart(undefined);
                      }}
                      className={`w-full border-l-2 px-2 py-1 text-left ${here ? 'border-brass font-semibold' : 'border-transparent'}`}
                    >
                      <HazardMark point={p} />
                      {p.what}
                    </button>
                  </td>
                  <td className="figure text-sm whitespace-nowrap">
                    {p.red} / {p.black}
                  </td>
                  <td className="figure pr-4 text-right text-sm text-faint">{p.cold ? expectedWords(p.cold) : '—'}</td>
                  <td
                    className={`figure text-right whitespace-nowrap ${moved.has(key) ? 'font-semibold text-slate' : ''}`}
                  >
                    {moved.has(key) && <span aria-label="moved">≠ </span>}
                    {bandWords(p)}
                  </td>
                  <Measured point={p} seen={seen.get(key)} atRest={atRest} />
                </tr>
                {here && (
                  <tr className="bg-raised">
                    <td colSpan={5} className="border-l-2 border-brass px-4 pb-3">
                      <PointDetail board={active.board} point={p} wave={wave} onPart={setPart} />
                    </td>
                  </tr>
                )}
              </Fragment>
            );
          })}
        </tbody>
      </table>
      <WavePanel places={unit.waves} wave={wave} of={unit} />
      <Schematic
        board={active.board}
        selection={{ part, nets: current ? [current.red, current.black] : [] }}
        volts={unit.rails}
        height={300}
        onPickPart={setPart}
      />
    </div>
  );
}

const MARK_WORDS = { mains: 'mains side', hv: 'high voltage', battery: 'battery', elv: '' } as const;

function HazardMark({ point: { hazard } }: { point: WorkingPoint }) {
  const words = hazard ? MARK_WORDS[hazard] : '';
  return (
    <span className="inline-block w-6 text-oxide">
      {hazard === 'battery' ? (
        <span role="img" aria-label={words}>
          ⎓
        </span>
      ) : (
        words !== '' && <Bolt words={words} />
      )}
    </span>
  );
}

function Measured({ point, seen, atRest }: { point: WorkingPoint; seen: Taken | undefined; atRest: boolean }) {
  if (!seen) return <td className="figure text-right text-faint">—</td>;
  const outcome = judgePowered(point.reading, { value: seen.value, unsteady: seen.unsteady === true }, atRest);
  return (
    <td className={`figure text-right ${OUTCOME_INKS[outcome]}`}>
      {poweredWords(point.mode, seen.value)} <span aria-label={outcome}>{OUTCOME_SIGNS[outcome]}</span>
    </td>
  );
}
