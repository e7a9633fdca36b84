'use client';
import { createColumnHelper } from '@tanstack/react-table';
import type { ColumnDef } from '@tanstack/react-table';
import { useMemo } from 'react';
import { boardNets, pinsOnNet, placesOnNet } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { marking, partFigure } from '@/core/part';
import type { Part } from '@/core/part';
import { formatQuantity } from '@/core/quantity';
import { shortValue } from '@/core/part';
import { DataTable } from '@/ui/DataTable';
import { BasisMark } from './BasisMark';

const HEIGHT = 320;
const part = createColumnHelper<Part>();

const PART_COLUMNS = [
  part.accessor((p) => (p.fitted ? p.basis : 'not fitted'), {
    id: 'basis',
    header: () => <span className="sr-only">Basis</span>,
    meta: { look: 'w-8 text-center' },
    cell: ({ row: { original: p } }) => <BasisMark basis={p.basis} fitted={p.fitted} />,
  }),
  part.accessor('ref', {
    header: 'Part',
    sortingFn: 'alphanumeric',
    cell: ({ row: { original: p } }) => (
      <span className="whitespace-nowrap">
        <RowName>{p.ref}</RowName> <span className="text-sm text-faint">{p.fitted ? p.kind : 'not fitted'}</span>
      </span>
    ),
  }),
  part.accessor('kind', { header: 'Kind', meta: { look: 'hidden' } }),
  part.accessor((p) => ('value' in p ? p.value : (partFigure(p, 'ratedAmps') ?? 0)), {
    id: 'value',
    header: 'Value',
    meta: { look: 'figure text-right whitespace-nowrap' },
    cell: ({ row: { original: p } }) => {
      const [figure, unit] = shortValue(p).split('\u2009');
      return (
        <>
          {figure} <span className="inline-block w-7 text-left text-faint">{unit ?? ''}</span>
        </>
      );
    },
  }),
  part.accessor((p) => marking(p) ?? ratedVolts(p), {
    id: 'marking',
    header: 'Marking',
    meta: { look: 'max-w-40 truncate' },
  }),
  part.accessor((p) => p.nets.join(' '), {
    id: 'nets',
    header: 'Nets',
    meta: { look: 'figure max-w-56 truncate text-sm text-faint' },
  }),
] as ColumnDef<Part>[];

/** Every part of a board: basis, value, marking, nets. */
export function PartsTable({
  board,
  wanted,
  picked,
  onPick,
}: {
  board: Board;
  wanted: string;
  picked: string | undefined;
  onPick(ref: string): void;
}) {
  return (
    <DataTable
      label="Parts"
      rows={board.parts}
      columns={PART_COLUMNS}
      keyOf={(p) => p.ref}
      filter={wanted}
      height={HEIGHT}
      picked={picked}
      onPick={(p) => onPick(p.ref)}
      empty="No part with these words."
    />
  );
}

interface NetRow {
  readonly net: string;
  readonly pins: number;
  readonly easiest: string;
}
const net = createColumnHelper<NetRow>();
const NET_COLUMNS = [
  net.accessor('net', {
    header: 'Net',
    sortingFn: 'alphanumeric',
    cell: ({ getValue }) => <RowName>{getValue()}</RowName>,
  }),
  net.accessor('pins', { header: 'Pins', meta: { look: 'figure text-right' } }),
  net.accessor('easiest', { header: 'Easiest place', meta: { look: 'text-sm text-faint' } }),
] as ColumnDef<NetRow>[];

/** Every net of a board: how many pins, where it is touched most easily. */
export function NetsTable({
  board,
  wanted,
  picked,
  onPick,
}: {
  board: Board;
  wanted: string;
  picked: string | undefined;
  onPick(net: string): void;
}) {
  const rows = useMemo(
    () =>
      boardNets(board).map((name): NetRow => ({
        net: name,
        pins: pinsOnNet(board, name).length,
        easiest: placesOnNet(board, name)[0]?.words ?? '',
      })),
    [board],
  );
  return (
    <DataTable
      label="Nets"
      rows={rows}
      columns={NET_COLUMNS}
      keyOf={(row) => row.net}
      filter={wanted}
      height={HEIGHT}
      picked={picked}
      onPick={(row) => onPick(row.net)}
      empty="No net with these words."
    />
  );
}

function ratedVolts(p: Part): string {
  const volts = partFigure(p, 'ratedVolts');
  return volts === undefined ? '' : formatQuantity(volts, 'V');
}

/** What a row is called: the row is picked wherever it is clicked, by keys here. */
function RowName({ children }: { children: string }) {
  return (
    <button type="button" className="figure underline decoration-line underline-offset-4">
      {children}
    </button>
  );
}
