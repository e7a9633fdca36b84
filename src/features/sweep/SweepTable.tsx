'use client';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useRef } from 'react';
import { Scroll } from '@/ui/Scroll';
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
  const frame = useRef<HTMLDivElement>(null);

  // eslint-disable-next-line react-hooks/incompatible-library -- what it gives changes as it scrolls: this component is not memoised
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW,
    overscan: SPARE,
  });
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
  const inSight = virtual.getVirtualItems();
  const [above, below] = [inSight[0]?.start ?? 0, virtual.getTotalSize() - (inSight.at(-1)?.end ?? 0)];
  const wanted = new Set(marked);
  return (
    <Scroll ref={frame} label="Rows of the sweep" role="region" look="border border-line" most={HEIGHT}>
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
          {above > 0 && <tr aria-hidden style={{ height: above }} />}
          {inSight.map(({ index }) => {
            const row = rows[index]!;
            const more = deriveRow(row, light);
            return (
              <tr
                key={index}
                aria-rowindex={index + 2}
                className={`h-8 border-b border-line/40 ${wanted.has(index) ? 'bg-oxide-ground' : ''}`}
              >
                <td className="figure pr-2 text-right text-faint">
                  {wanted.has(index) && <span aria-label="named above">▨ </span>}
                  {index + 1}
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
          {below > 0 && <tr aria-hidden style={{ height: below }} />}
        </tbody>
      </table>
    </Scroll>
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
