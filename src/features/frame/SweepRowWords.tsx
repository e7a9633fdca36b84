'use client';
import { formatQuantity } from '@/core/quantity';
import { SWEEP_COLUMNS } from '@/core/sweep';
import type { SweepColumn } from '@/core/sweep';
import { readSweepText } from '@/wire/csv';

/** One row of a sweep in words, from the text it was written as. */
export function SweepRowWords({ csv }: { csv: string }) {
  const [row] = readSweepText(csv, 'vin').rows;
  const told = (keys: readonly SweepColumn[]): string =>
    keys
      .flatMap((key) => {
        const value = row?.[key];
        return typeof value === 'number' ? [formatQuantity(value, SWEEP_COLUMNS[key].unit, 4)] : [];
      })
      .join(' ');
  const [into, out, hertz, celsius] = [
    told(['vin', 'iin']),
    told(['vout', 'iout']),
    told(['hertz']),
    told(['celsius']),
  ];
  const words = [into && `in ${into}`, out && `out ${out}`, hertz, celsius && `${celsius} °C`, row?.note];
  return <>{words.filter(Boolean).join(', ')}</>;
}
