'use client';
import { useMemo, useState } from 'react';
import { netKey } from '@/core/circuit';
import { judgePowered } from '@/core/expect';
import { poweredPlace, readUnderPower } from '@/core/job';
import { linesOf } from '@/core/ledger';
import { formatQuantity, parseQuantity } from '@/core/quantity';
import { supplyOf } from '@/core/operate';
import { recogniseStages } from '@/core/stages';
import type { AlivePoint, OperatingCondition } from '@/core/work';
import { LOAD_CHOICES, poweredWords } from '@/features/frame/lineWords';
import { OUTCOME_INKS, OUTCOME_SIGNS } from '@/features/frame/outcomeSigns';
import { bandWords } from '@/features/frame/pointWords';
import { useJob } from '@/features/job/JobContext';
import { useSuspects } from '@/features/job/SuspectsContext';
import { useReadVolts } from '@/features/job/useReadVolts';
import { Schematic } from '@/features/schematic/Schematic';
import { TextField } from '@/ui/Field';
import { Button } from '@/ui/Button';
import { Notice } from '@/ui/Notice';
import { Progress } from '@/ui/Progress';
import { Segments } from '@/ui/Segments';
import { OutcomeLine } from './OutcomeLine';
import type { LastOutcome } from './OutcomeLine';
import { PermitShut } from './PermitList';
import { PoweredPoint } from './PoweredPoint';
import { PoweredState } from '@/features/frame/PoweredState';
import { usePowered } from './usePowered';

/** More than this many times the highest that is printed is a slip of the finger, or not that source. */
const CREDIBLE = 1.5;

/** Readings on the unit under power: what every point should show as it is fed and loaded now, what it showed. */
export function PoweredProbe() {
  const { active, lines, addLine } = useJob();
  const readVolts = useReadVolts();
  const { board, id } = active;
  const { weighed } = useSuspects();
  const supply = useMemo(() => supplyOf(board), [board]);
  const readings = useMemo(
    () => linesOf(lines, 'powered-reading').filter(({ line }) => line.boardId === id),
    [lines, id],
  );
  const [typed, setTyped] = useState<string | null>(null);
  const [load, setLoad] = useState<OperatingCondition['load']>('half');
  // The source as it was last measured stands before what is printed, as long as it can be that source.
  const measured = readings.findLast(
    ({ body }) =>
      supply.rail !== null &&
      netKey(body.red) === netKey(supply.rail) &&
      body.mode === (supply.kind === 'mains' ? 'acv' : 'dcv') &&
      Math.abs(body.value) <= CREDIBLE * (supply.highest ?? Infinity),
  )?.body.value;
  const usual = measured ?? supply.nominal;
  const source = typed ?? (usual === null ? '' : String(usual));
  const read = parseQuantity(source.trim());
  const volts = read.ok && (read.value.unit ?? 'V') === 'V' && read.value.value >= 0 ? read.value.value : null;
  const condition = useMemo(() => (volts === null ? null : { source: volts, load }), [volts, load]);
  const here = useMemo(() => (condition ? readUnderPower(lines, id, condition) : []), [lines, id, condition]);
  // What wandered is no figure.
  const standing = useMemo(() => here.filter((body) => !body.unsteady), [here]);
  const { unit, working, failed, stop, place } = usePowered(board, condition, standing);
  const [more, setMore] = useState<readonly AlivePoint[]>([]);
  const points = useMemo(() => [...(unit?.points ?? []), ...(unit ? more : [])], [unit, more]);
  const [chosen, setChosen] = useState<string | null>(null);
  const [asked, setAsked] = useState(0);
  const [last, setLast] = useState<LastOutcome | null>(null);
  const taken = useMemo(() => new Map(here.map((body) => [poweredPlace(body), body] as const)), [here]);
  const at = Math.max(
    chosen === null
      ? points.findIndex((p) => !taken.has(poweredPlace(p)))
      : points.findIndex((p) => poweredPlace(p) === chosen),
    0,
  );
  const current = points[at];
  const atRest = unit !== null && unit.warnings.length === 0;

  const keep = (value: number, unsteady: boolean): void => {
    if (!current || volts === null) return;
    const { mode, red, black, reading } = current;
    setLast({
      outcome: judgePowered(reading, { value, unsteady }, atRest),
      seen: poweredWords(mode, value),
      expected: bandWords(current),
      where: `${red} / ${black}`,
    });
    const body = { mode, red, black, value, source: volts, load, ...(unsteady ? { unsteady } : {}) };
    void addLine({ kind: 'powered-reading', body }, id);
    const next = points.findIndex((p, i) => i > at && !taken.has(poweredPlace(p)));
    setChosen(next < 0 ? null : poweredPlace(points[next]!));
  };
  const step = (by: 1 | -1): void => {
    const next = points[(at + by + points.length) % points.length];
    if (next) setChosen(poweredPlace(next));
  };
  const pick = (net: string): void => {
    const island = recogniseStages(board).islands.find((i) => i.nets.some((n) => netKey(n) === netKey(net)));
    const black = island?.reference;
    if (black === undefined || netKey(black) === netKey(net)) return;
    void place('dcv', net, black).then((point) => {
      if (!point) return;
      setMore((kept) => (kept.some((p) => poweredPlace(p) === poweredPlace(point)) ? kept : [...kept, point]));
      setChosen(poweredPlace(point));
    });
  };

  return (
    <div className="flex flex-col gap-2">
      <OutcomeLine last={last} />
      {weighed?.permit && !weighed.permit.allowed && (
        <div>
          <PermitShut reasons={weighed.permit.reasons} />
          <p className="text-sm text-faint">
            What is still to be read for a permit stands under Cold. First power only through a limiter.
          </p>
        </div>
      )}
      <div className="flex flex-wrap items-end gap-4">
        <TextField
          label={supply.kind === 'mains' ? 'Fed with, V rms' : 'Fed with, V'}
          value={source}
          onChange={(e) => {
            setTyped(e.target.value);
            setMore([]);
          }}
          inputMode="decimal"
          error={volts === null ? 'Volts, such as 230.' : undefined}
          className="w-40"
        />
        <div>
          <p className="mb-1 text-sm text-faint" id="load">
            Load on its outputs
          </p>
          <Segments
            value={load}
            labelledBy="load"
            choices={LOAD_CHOICES}
            onChoose={(v) => {
              setLoad(v);
              setMore([]);
            }}
          />
        </div>
        <div className="min-w-0 flex-1 max-sm:basis-full">
          {working ? (
            <p className="flex items-center gap-3" role="status">
              Working out the unit at {volts === null ? '' : formatQuantity(volts, 'V')} …
              <Progress value={null} label="Working out the unit" />
              <Button kind="quiet" onClick={stop}>
                Stop
              </Button>
            </p>
          ) : (
            unit && <PoweredState unit={unit} />
          )}
          {failed !== null && <Notice kind="trouble">It could not be worked out: {failed}</Notice>}
        </div>
      </div>
      {current && (
        <PoweredPoint
          key={poweredPlace(current)}
          board={board}
          point={current}
          asked={asked}
          onKeep={keep}
          onStep={step}
        />
      )}
      {unit && points.length > 0 && (
        <table className="w-full" aria-label="Points under power">
          <thead className="text-left text-sm text-faint">
            <tr>
              <th className="font-normal">In the order it comes alive</th>
              <th className="font-normal">Red / black</th>
              <th className="text-right font-normal">should show</th>
              <th className="w-40 text-right font-normal">showed</th>
            </tr>
          </thead>
          <tbody>
            {points.map((p) => {
              const seen = taken.get(poweredPlace(p));
              const outcome = seen && judgePowered(p.reading, seen, atRest);
              const here = current !== undefined && poweredPlace(p) === poweredPlace(current);
              return (
                <tr
                  key={poweredPlace(p)}
                  data-here={here ? 'yes' : undefined}
                  className="border-t border-line data-[here=yes]:bg-raised"
                >
                  <td>
                    <button
                      type="button"
                      aria-current={here ? 'true' : undefined}
                      onClick={() => {
                        setChosen(poweredPlace(p));
                        setAsked((n) => n + 1);
                      }}
                      className={`w-full border-l-2 px-2 py-0.5 text-left ${here ? 'border-brass' : 'border-transparent'}`}
                    >
                      {p.what}
                    </button>
                  </td>
                  <td className="figure text-sm">
                    {p.red} / {p.black}
                  </td>
                  <td className="figure text-right">{bandWords(p)}</td>
                  <td className={`figure text-right ${outcome ? OUTCOME_INKS[outcome] : 'text-faint'}`}>
                    {seen && outcome ? (
                      <>
                        {poweredWords(p.mode, seen.value)} <span aria-label={outcome}>{OUTCOME_SIGNS[outcome]}</span>
                      </>
                    ) : (
                      '—'
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      <Schematic
        board={board}
        selection={{ part: undefined, nets: current ? [current.red, current.black] : [] }}
        volts={unit?.rails}
        read={readVolts}
        height={260}
        onPickPart={() => undefined}
        onPickNet={pick}
      />
      <p className="text-sm text-faint">
        A net picked on the drawing becomes a point: red there, black at its reference.
      </p>
    </div>
  );
}
