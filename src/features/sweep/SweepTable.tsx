'use client';
import { useMemo, useState } from 'react';
import { engineeringParts, withMark } from '@/core/quantity';
import type { Unit } from '@/core/quantity';
import { COLUMN_KEYS, DERIVED_COLUMNS, DERIVED_KEYS, SWEEP_COLUMNS, deriveRow, lightestRow } from '@/core/sweep';
import type { SweepColumn, SweepRow } from '@/core/sweep';

const ROW = 32;
const HEIGHT = 352;
/** Rows drawn beyond the ones in sight, on either side. */
const SPARE = 8;

/** The rows with what follows from them; only those in sight are drawn, however many there are. */
export function SweepTable({
  rows,
  setBy,
  marked,
}: {
  rows: readonly SweepRow[];
  setBy: SweepColumn;
  marked: readonly number[];
}) {
  const [top, setTop] = useState(0);
  const light = useMemo(() => lightestRow(rows), [rows]);
  const used = useMemo(() => COLUMN_KEYS.filter((k) => k === setBy || rows.some((r) => r[k] !== null)), [rows, setBy]);
  const derived = useMemo(
    () =>
      DERIVED_KEYS.filter((k) =>
        rows.length < 200
          ? rows.some((r) => deriveRow(r, light)[k] !== null)
          : deriveRow(rows.at(-1)!, light)[k] !== null,
      ),
    [rows, light],
  );
  const notes = useMemo(() => rows.some((r) => r.note !== ''), [rows]);
  const from = Math.max(0, Math.floor(top / ROW) - SPARE);
  const to = Math.min(rows.length, Math.ceil((top + HEIGHT) / ROW) + SPARE);
  const wanted = new Set(marked);
  return (
    <div
      className="overflow-auto border border-line"
      style={{ maxHeight: HEIGHT }}
      tabIndex={0}
      role="region"
      aria-label="Rows of the sweep"
      onScroll={(e) => setTop(e.currentTarget.scrollTop)}
    >
      <table className="w-full border-collapse text-sm" aria-rowcount={rows.length + 1}>
        <thead className="sticky top-0 bg-raised text-sm leading-tight text-faint">
          <tr className="h-8">
            <th className="w-9 pr-1 text-right font-normal">row</th>
            {used.map((k) => (
              <th key={k} className="pr-2 text-right font-normal">
                {SWEEP_COLUMNS[k].words}
              </th>
            ))}
            {derived.map((k) => (
              <th key={k} className="pr-2 text-right font-normal text-slate">
                {DERIVED_COLUMNS[k].words}
              </th>
            ))}
            {notes && <th className="text-left font-normal">note</th>}
          </tr>
        </thead>
        <tbody>
          {from > 0 && <tr style={{ height: from * ROW }} />}
          {rows.slice(from, to).map((row, i) => {
            const more = deriveRow(row, light);
            return (
              <tr
                key={from + i}
                aria-rowindex={from + i + 2}
                className={`h-8 border-b border-line/40 ${wanted.has(from + i) ? 'bg-oxide-ground' : ''}`}
              >
                <td className="figure pr-2 text-right text-faint">
                  {wanted.has(from + i) && <span aria-label="named above">▨ </span>}
                  {from + i + 1}
                </td>
                {used.map((k) => (
                  <Figure key={k} value={row[k]} unit={SWEEP_COLUMNS[k].unit} />
                ))}
                {derived.map((k) => (
                  <Figure
                    key={k}
                    value={more[k]}
                    unit={DERIVED_COLUMNS[k].unit}
                    share={k === 'efficiency' || k === 'regulation'}
                  />
                ))}
                {notes && <td className="max-w-40 truncate text-sm">{row.note}</td>}
              </tr>
            );
          })}
          {to < rows.length && <tr style={{ height: (rows.length - to) * ROW }} />}
        </tbody>
      </table>
    </div>
  );
}

function Figure({ value, unit, share = false }: { value: number | null; unit: Unit; share?: boolean }) {
  if (value === null) return <td />;
  const parts = share
    ? { figure: withMark((100 * value).toFixed(1)), unit: '%' }
    : engineeringParts(value, unit, 4, true);
  return (
    <td className="figure pr-2 text-right whitespace-nowrap">
      {parts.figure}
      <span className="inline-block w-6 pl-0.5 text-left text-faint">{parts.unit}</span>
    </td>
  );
}
