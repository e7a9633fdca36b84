'use client';
import {
  flexRender,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
} from '@tanstack/react-table';
import type { ColumnDef, SortingState } from '@tanstack/react-table';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { Suspense, lazy, useEffect, useRef, useState } from 'react';
import type { KeyboardEvent, ReactNode, Ref } from 'react';
import { Scroll } from './Scroll';

declare module '@tanstack/react-table' {
  // eslint-disable-next-line @typescript-eslint/no-unused-vars -- as the package declares it
  interface ColumnMeta<TData, TValue> {
    /** Looks of the heading and of every cell. */
    readonly look?: string;
  }
}

/** Fetched with the first table that is too long to be drawn whole. */
const RowsInSight = lazy(async () => ({ default: (await import('./RowsInSight')).RowsInSight }));

/** So many are all drawn, in sight or not: they are found by the browser’s own search. */
const DRAWN = 200;

/**
 * A table of any length: sorted by its headings, narrowed by words, walked by arrow keys; only what is in sight is drawn.
 * height: of the pane it scrolls in, pixels; null: it stands in the page, all of it.
 */
export function DataTable<T>({
  label,
  rows,
  columns,
  keyOf,
  filter = '',
  height = null,
  picked,
  onPick,
  look = () => '',
  empty,
}: {
  label: string;
  rows: readonly T[];
  columns: readonly ColumnDef<T>[];
  keyOf(row: T): string;
  /** Words that all must stand in a row's sorted or searched columns. */
  filter?: string;
  height?: number | null;
  picked?: string | undefined;
  /** Enter or a click on a row. */
  onPick?: ((row: T) => void) | undefined;
  look?: (row: T) => string;
  empty?: string;
}) {
  const [sorting, setSorting] = useState<SortingState>([]);
  const frame = useRef<HTMLDivElement>(null);

  // eslint-disable-next-line react-hooks/incompatible-library -- what it gives changes with its state: this component is not memoised
  const table = useReactTable<T>({
    data: rows as T[],
    columns: columns as ColumnDef<T>[],
    state: { sorting, globalFilter: filter },
    onSortingChange: setSorting,
    getRowId: keyOf,
    globalFilterFn: (row, _, wanted: string) => {
      const text = row
        .getAllCells()
        .map((cell) => String(cell.getValue() ?? ''))
        .join(' ')
        .toLowerCase();
      return wanted
        .toLowerCase()
        .split(/\s+/u)
        .every((word) => text.includes(word));
    },
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  });
  const shown = table.getRowModel().rows;
  const whole = height === null || shown.length <= DRAWN;
  const current = shown.findIndex((row) => row.id === picked);
  // What is picked elsewhere comes into sight.
  useEffect(() => {
    if (current < 0 || height === null || !whole) return;
    frame.current?.querySelector(`[data-index="${current}"]`)?.scrollIntoView({ block: 'nearest' });
  }, [current, whole, height]);
  const onKey = (event: KeyboardEvent): void => {
    const step = { ArrowDown: 1, ArrowUp: -1, PageDown: 10, PageUp: -10 }[event.key];
    if (!onPick || step === undefined || shown.length === 0) return;
    event.preventDefault();
    const next = Math.min(shown.length - 1, Math.max(0, current + step));
    onPick(shown[next]!.original);
  };
  const rowAt = (index: number, measure?: Ref<HTMLTableRowElement>): ReactNode => {
    const row = shown[index]!;
    return (
      <tr
        key={row.id}
        data-index={index}
        ref={measure}
        aria-rowindex={index + 2}
        aria-current={row.id === picked ? 'true' : undefined}
        onClick={onPick && (() => onPick(row.original))}
        className={`border-b border-line/50 align-baseline hover:bg-raised aria-[current]:bg-raised ${onPick ? 'cursor-pointer' : ''} ${look(row.original)}`}
      >
        {row.getVisibleCells().map((cell) => (
          <td key={cell.id} className={`py-1.5 pr-3 ${cell.column.columnDef.meta?.look ?? ''}`}>
            {flexRender(cell.column.columnDef.cell, cell.getContext())}
          </td>
        ))}
      </tr>
    );
  };
  return (
    <Frame ref={frame} label={`${label}: arrow keys go through it`} height={height} onKey={onKey}>
      <table className="w-full border-collapse text-left" aria-rowcount={shown.length + 1}>
        <caption className="sr-only">{label}</caption>
        <thead className="sticky top-0 z-10 bg-ground text-sm text-faint">
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id} className="border-b border-line">
              {group.headers.map((header) => {
                const way = header.column.getIsSorted();
                const words = flexRender(header.column.columnDef.header, header.getContext());
                return (
                  <th
                    key={header.id}
                    scope="col"
                    aria-sort={way === 'asc' ? 'ascending' : way === 'desc' ? 'descending' : undefined}
                    className={`py-1.5 pr-3 font-normal ${(header.column.columnDef.meta?.look ?? '').replace('figure ', '')}`}
                  >
                    {header.column.getCanSort() ? (
                      <button
                        type="button"
                        onClick={header.column.getToggleSortingHandler()}
                        className="inline-flex items-center gap-1 hover:text-ink"
                      >
                        {words}
                        {way === 'asc' && <ArrowUp aria-hidden className="size-3.5" />}
                        {way === 'desc' && <ArrowDown aria-hidden className="size-3.5" />}
                      </button>
                    ) : (
                      words
                    )}
                  </th>
                );
              })}
            </tr>
          ))}
        </thead>
        <tbody>
          {whole ? (
            shown.map((_, index) => rowAt(index))
          ) : (
            <Suspense fallback={shown.slice(0, DRAWN).map((_, index) => rowAt(index))}>
              <RowsInSight frame={frame} count={shown.length} current={current} rowAt={rowAt} />
            </Suspense>
          )}
        </tbody>
      </table>
      {shown.length === 0 && empty && <p className="py-4 text-lg">{empty}</p>}
    </Frame>
  );
}

/** The pane a table scrolls in, or the page itself where it has no height of its own. */
function Frame({
  ref,
  label,
  height,
  onKey,
  children,
}: {
  ref: Ref<HTMLDivElement>;
  label: string;
  height: number | null;
  onKey(event: KeyboardEvent): void;
  children: ReactNode;
}) {
  return height === null ? (
    <div ref={ref} role="region" aria-label={label} className="overflow-x-auto">
      {children}
    </div>
  ) : (
    <Scroll ref={ref} role="region" label={label} most={height} onKey={onKey}>
      {children}
    </Scroll>
  );
}
