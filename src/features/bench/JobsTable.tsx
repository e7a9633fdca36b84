'use client';
import { createColumnHelper } from '@tanstack/react-table';
import type { ColumnDef } from '@tanstack/react-table';
import Link from 'next/link';
import { useMemo } from 'react';
import { HazardWord } from '@/features/frame/HazardWord';
import { DataTable } from '@/ui/DataTable';
import type { BenchRow } from './benchRow';

const column = createColumnHelper<BenchRow>();

/** The jobs as a table: sorted by its headings, narrowed by words. lostSince: moment since when nothing new is known. */
export function JobsTable({
  rows,
  wanted,
  lostSince,
}: {
  rows: readonly BenchRow[];
  wanted: string;
  lostSince: number | null;
}) {
  const columns = useMemo(
    () => [
      column.accessor('tag', {
        header: 'Tag',
        cell: ({ row: { original: row } }) => (
          <>
            <Link
              href={`/jobs/${row.tag}/${row.stepPath}`}
              className="figure text-lg font-bold whitespace-nowrap underline decoration-line underline-offset-4"
            >
              {row.tag}
            </Link>
            <span className="hidden text-sm max-sm:block">{row.unit}</span>
          </>
        ),
      }),
      column.accessor('unit', { header: 'Unit', meta: { look: 'max-sm:hidden' } }),
      column.accessor('hazard', {
        header: 'Hazard',
        cell: ({ row: { original: row } }) => (
          <HazardWord state={lostSince === null || row.hazard === 'LIVE' ? row.hazard : 'UNKNOWN'} since={lostSince} />
        ),
      }),
      column.accessor((row) => `${row.step} ${row.next}`, {
        id: 'next',
        header: 'Next thing to do',
        cell: ({ row: { original: row } }) => (
          <>
            <span className="text-brass">{row.step}</span>
            <span className="block">{row.next}</span>
          </>
        ),
      }),
      column.accessor('waitingFor', {
        header: 'Waiting for',
        meta: { look: 'max-md:hidden' },
        cell: ({ getValue }) => getValue() || <span className="text-faint">nothing</span>,
      }),
      column.accessor('last', {
        header: 'Last activity',
        meta: { look: 'figure text-sm whitespace-nowrap text-faint max-md:hidden' },
      }),
      column.display({
        id: 'more',
        header: () => <span className="sr-only">Start another like it</span>,
        meta: { look: 'text-right whitespace-nowrap max-sm:hidden' },
        cell: ({ row: { original: row } }) => (
          <>
            {row.damaged && (
              <a href={`/api/jobs/${row.tag}/export?as=raw`} className="text-slate underline underline-offset-4">
                export it
              </a>
            )}
            {row.done && (
              <Link href={`/jobs/new?from=${row.tag}`} className="text-slate underline underline-offset-4">
                same as this
              </Link>
            )}
          </>
        ),
      }),
    ],
    [lostSince],
  );
  return (
    <DataTable
      label="Jobs on the bench"
      rows={rows}
      columns={columns as ColumnDef<BenchRow>[]}
      keyOf={(row) => row.tag}
      filter={wanted}
      empty={`No job matches “${wanted}”. Clear the search, or take in a new job.`}
    />
  );
}
