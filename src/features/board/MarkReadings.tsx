'use client';
import { decodeMarking } from '@/core/marking';
import type { MarkKind, RankedReading } from '@/core/marking';
import type { Board } from '@/core/circuit';
import type { Part, PartKind } from '@/core/part';
import { readingsInPlace } from '@/core/infer';
import type { PlacedReading } from '@/core/infer';
import { formatQuantity, withMark } from '@/core/quantity';

/** What a part of each kind may turn out to be by its marking. */
const KINDS: Readonly<Partial<Record<PartKind, readonly MarkKind[]>>> = {
  resistor: ['resistor'],
  capacitor: ['capacitor'],
  inductor: ['inductor'],
  diode: ['diode', 'schottky', 'zener', 'tvs'],
  mosfet: ['mosfet', 'igbt'],
  bridge: ['bridge'],
  regulator: ['regulator'],
  ntc: ['ntc'],
  mov: ['mov'],
  fuse: ['fuse'],
};
const SHOWN = 3;

/** The readings of a marking that suit a part, most likely first. */
export function readingsFor(board: Board, part: Part, mark: string): readonly PlacedReading[] {
  const kinds = KINDS[part.kind];
  if (!kinds || mark.trim() === '') return [];
  const readings = decodeMarking(mark).filter((r) => kinds.includes(r.kind));
  return readingsInPlace(board, part.ref, readings).slice(0, SHOWN);
}

/** What is printed on the part, read as it is typed; picking a reading takes its value and rated volts over. */
export function MarkReadings({
  board,
  part,
  mark,
  onPick,
}: {
  board: Board;
  part: Part;
  mark: string;
  onPick(reading: RankedReading): void;
}) {
  const readings = readingsFor(board, part, mark);
  if (mark.trim() === '' || KINDS[part.kind] === undefined) return null;
  if (readings.length === 0)
    return <p className="text-sm text-faint">No marking I know of this kind of part; it is kept as typed.</p>;
  return (
    <ul aria-label="What the marking may mean" className="flex flex-col gap-1 text-sm">
      {readings.map((r) => (
        <li key={`${r.system} ${r.value} ${r.voltage} ${r.why}`}>
          <button
            type="button"
            onClick={() => onPick(r)}
            className="w-full border border-line px-2 py-1 text-left hover:border-ink"
          >
            <strong className="figure">{readingWords(r)}</strong>{' '}
            <span className="text-faint">
              {r.why}
              {r.place !== null && `; ${r.place}`}
              {r.convention && '; a habit of the trade: confirm against the data sheet'}
            </span>
          </button>
        </li>
      ))}
    </ul>
  );
}

/** Value, tolerance and ratings of a reading in one line. */
export function readingWords(r: RankedReading): string {
  const said = [
    r.value === null || r.unit === null ? '' : formatQuantity(r.value, r.unit),
    r.tolerance === null ? '' : `± ${withMark(String(Number((r.tolerance * 100).toPrecision(2))))} %`,
    r.voltage === null ? '' : formatQuantity(r.voltage, 'V'),
    r.current === null || r.unit === 'A' ? '' : formatQuantity(r.current, 'A'),
  ];
  return said.filter((s) => s !== '').join(', ') || r.kind;
}
