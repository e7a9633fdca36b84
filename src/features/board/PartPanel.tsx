'use client';
import { linesOf } from '@/core/ledger';
import { useMemo, useState } from 'react';
import type { FormEvent } from 'react';
import { netKey, pinNames, pinsOnNet, placesOnNet } from '@/core/circuit';
import { marking, partText, PART_FIGURES, partFigure } from '@/core/part';
import type { Board } from '@/core/circuit';
import type { Part, PartFigure } from '@/core/part';
import { expectReading } from '@/core/expect';
import { sumsForPart } from '@/core/figures';
import { inferredValues } from '@/core/infer';
import { solverFor } from '@/core/meter';
import type { RankedReading } from '@/core/marking';
import { netlistText } from '@/core/netlist';
import { engineeringParts, formatQuantity, parseQuantity } from '@/core/quantity';
import { useCommands, useJob } from '@/features/job/JobContext';
import { SumLink } from '@/features/frame/SumLink';
import { expectedWords, seenWords } from '@/features/frame/lineWords';
import type { Selection } from '@/features/schematic/selection';
import { shortValue } from '@/core/part';
import { Button } from '@/ui/Button';
import { TextField } from '@/ui/Field';
import { BasisMark } from './BasisMark';
import { MarkReadings } from './MarkReadings';

/** Everything known about the picked part or net: ratings, places, what should be read across it and why, what was. */
export function PartPanel({
  board,
  boardId,
  part,
  net,
  onPick,
}: {
  board: Board;
  boardId: string;
  part: Part | undefined;
  net: string | undefined;
  onPick(selection: Selection): void;
}) {
  if (net !== undefined) return <NetPanel board={board} net={net} onPick={onPick} />;
  if (!part)
    return (
      <p className="text-faint">
        Pick a part or a net, here or on the schematic, to see what is known about it and what the meter should show
        across it.
      </p>
    );
  return (
    <section aria-label={`About ${part.ref}`} className="flex flex-col gap-2">
      <h2 className="text-lg font-bold">
        {part.ref} <span className="figure font-normal">{shortValue(part)}</span>
      </h2>
      <p>
        <BasisMark basis={part.basis} fitted={part.fitted} words />{' '}
        {marking(part) && <span className="figure">“{marking(part)}”</span>}
      </p>
      <p className="text-sm text-faint">{ratings(part)}</p>
      <ul className="text-sm">
        {pinNames(part).map((name, i) => (
          <li key={name}>
            {name}:{' '}
            <button
              type="button"
              className="figure text-slate underline underline-offset-4"
              onClick={() => onPick({ nets: [part.nets[i]!] })}
            >
              {part.nets[i]}
            </button>
          </li>
        ))}
      </ul>
      {part.fitted && <Expectations board={board} boardId={boardId} part={part} />}
      <PartSums board={board} part={part} />
      <OnMyBoard board={board} boardId={boardId} part={part} />
    </section>
  );
}

/** Sums that this part asks for, its figures in them already. */
function PartSums({ board, part }: { board: Board; part: Part }) {
  const sums = useMemo(() => sumsForPart(board, part), [board, part]);
  if (sums.length === 0) return null;
  return (
    <ul aria-label="Sums with this part" className="text-sm">
      {sums.map(({ sum, figures }) => (
        <li key={sum}>
          <SumLink sum={sum} figures={figures} />
        </li>
      ))}
    </ul>
  );
}

function ratings(part: Part): string {
  const said: string[] = [];
  const add = (figure: PartFigure, word: string): void => {
    const value = partFigure(part, figure);
    if (value !== undefined) said.push(`${formatQuantity(value, PART_FIGURES[figure].unit)} ${word}`);
  };
  add('ratedVolts', 'rated');
  add('ratedAmps', part.kind === 'capacitor' ? 'ripple' : 'rated');
  add('ratedWatts', 'rated');
  add('seriesOhms', 'ESR');
  add('windingOhms', 'winding');
  const tolerance = partText(part, 'tol');
  if (tolerance) said.push(`± ${tolerance}`);
  return said.join(', ') || 'no rating noted';
}

function NetPanel({ board, net, onPick }: { board: Board; net: string; onPick(selection: Selection): void }) {
  return (
    <section aria-label={`About net ${net}`}>
      <h2 className="mb-1 text-lg font-bold">
        Net <span className="figure">{net}</span>
      </h2>
      <p className="mb-1 text-sm text-faint">Where to touch it, easiest first</p>
      <ul className="mb-3">
        {placesOnNet(board, net).map((p) => (
          <li key={`${p.ref} ${p.pin}`}>
            <button
              type="button"
              className="text-left underline decoration-line underline-offset-4"
              onClick={() => onPick({ part: p.ref })}
            >
              {p.words}
            </button>
            {p.assumed && <span className="text-sm text-faint"> (assumed)</span>}
          </li>
        ))}
      </ul>
      <p className="text-sm text-faint">{pinsOnNet(board, net).length} pins in all.</p>
    </section>
  );
}

/** What the meter should show across each pair of a small part's pins, and what it did show. */
function Expectations({ board, boardId, part }: { board: Board; boardId: string; part: Part }) {
  const { lines } = useJob();
  const solver = useMemo(() => solverFor(board, []), [board]);
  const expected = useMemo(
    () =>
      pairsOf(part).flatMap(([a, b]) => [
        expectReading(board, solver, 'diode', a, b),
        expectReading(board, solver, 'diode', b, a),
        expectReading(board, solver, 'ohms', a, b),
      ]),
    [board, part, solver],
  );
  const taken = linesOf(lines, 'reading').filter(({ line }) => line.boardId === boardId);
  return (
    <ul className="flex flex-col gap-1.5 text-sm">
      {expected.map((e) => {
        const last = taken
          .filter(
            ({ body }) =>
              body.mode === e.mode && netKey(body.red) === netKey(e.red) && netKey(body.black) === netKey(e.black),
          )
          .at(-1);
        return (
          <li key={`${e.mode} ${e.red} ${e.black}`} className="border-l-2 border-line pl-2">
            <span className="figure">{e.mode === 'diode' ? 'diode test' : 'ohms'}</span>, red{' '}
            <span className="figure">{e.red}</span> black <span className="figure">{e.black}</span>:{' '}
            <strong className="figure">{expectedWords(e)}</strong>{' '}
            <span className="text-faint">
              {e.basis}; {e.why}
            </span>
            {last && <span className="block text-verdigris">read {seenWords(e.mode, last.body.seen)}</span>}
          </li>
        );
      })}
    </ul>
  );
}

function pairsOf(part: Part): readonly (readonly [string, string])[] {
  if (part.nets.length > 4) return [];
  const pairs = part.nets.flatMap((a, i) => part.nets.slice(i + 1).map((b) => [a, b] as const));
  return pairs.filter(([a, b]) => netKey(a) !== netKey(b) && netKey(a) !== 'nc' && netKey(b) !== 'nc').slice(0, 3);
}

/** "On my board it is …" and "not on my board": each makes a new version of the board and a line in the log. */
function OnMyBoard({ board, boardId, part }: { board: Board; boardId: string; part: Part }) {
  const { addLine } = useCommands();
  const [value, setValue] = useState('');
  const [mark, setMark] = useState('');
  const [ratedVolts, setRatedVolts] = useState<number | null>(null);
  const [error, setError] = useState('');
  const send = (text: string): void => void addLine({ kind: 'trace', body: { text } }, boardId);
  const take = (reading: RankedReading): void => {
    setRatedVolts(reading.voltage);
    if (
      reading.value === null ||
      reading.unit === null ||
      !('value' in part || part.kind === 'fuse' || part.kind === 'ntc')
    )
      return;
    const { figure, unit } = engineeringParts(reading.value, reading.unit, 4);
    setValue(`${figure} ${unit}`.trim());
  };
  const said = (event: FormEvent): void => {
    event.preventDefault();
    const read = value.trim() === '' ? null : parseQuantity(value);
    if (read && !read.ok) return setError(read.problem.remedy);
    setError('');
    const words = [
      part.ref,
      ...(mark.trim() === '' ? [] : [`"${mark.trim().replace(/"/gu, '″')}"`]),
      ...(read?.ok ? [`is=${netlistText(read.value.value)}`] : []),
      ...(ratedVolts === null ? [] : [`vr=${netlistText(ratedVolts)}`]),
      'basis=seen',
    ];
    send(words.join(' '));
  };
  return (
    <form onSubmit={said} className="mt-2 flex flex-col gap-2 border-t border-line pt-3">
      <p className="font-semibold">On my board it is …</p>
      <div className="grid grid-cols-2 gap-2">
        <TextField
          label="Value"
          value={value}
          onChange={(e) => setValue(e.target.value)}
          placeholder={shortValue(part) || '4k7'}
          error={error || undefined}
        />
        <TextField
          label="Printed on it"
          value={mark}
          onChange={(e) => {
            setMark(e.target.value);
            setRatedVolts(null);
          }}
          placeholder={marking(part) ?? ''}
        />
      </div>
      <MarkReadings board={board} part={part} mark={mark} onPick={take} />
      {mark === '' && part.basis === 'assumed' && (
        <Implied board={board} part={part} onPick={(text) => send(`${part.ref} is=${text} basis=assumed`)} />
      )}
      <div className="flex flex-wrap gap-2">
        <Button type="submit">{value === '' && mark === '' ? 'As shown, seen' : 'Keep as seen'}</Button>
        <Button onClick={() => send(`empty ${part.ref}`)}>Not on my board</Button>
      </div>
    </form>
  );
}

/** Nothing printed on it: what its twin or the circuit says it would be, offered as assumed. */
function Implied({ board, part, onPick }: { board: Board; part: Part; onPick(text: string): void }) {
  const found = useMemo(() => inferredValues(board, part.ref), [board, part.ref]);
  if (found.length === 0) return null;
  return (
    <ul aria-label="Nothing printed on it" className="flex flex-col gap-1 text-sm">
      {found.map((v) => (
        <li key={v.why}>
          <button
            type="button"
            onClick={() => onPick(netlistText(v.value))}
            className="w-full border border-dashed border-line px-2 py-1 text-left hover:border-ink"
          >
            nothing printed?{' '}
            <strong className="figure">{formatQuantity(v.value, part.kind === 'capacitor' ? 'F' : 'ohm')}</strong>{' '}
            <span className="text-faint">{v.why}; stays assumed</span>
          </button>
        </li>
      ))}
    </ul>
  );
}
