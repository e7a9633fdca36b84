'use client';
import { useState } from 'react';
import { formatQuantity } from '@/core/quantity';
import type { StressRow } from '@/core/stress';
import { VERDICT_LOOKS } from '@/features/frame/verdictLooks';
import { Button } from '@/ui/Button';

/** What parts bear against what they are rated for, the worst first; what is ok only when asked for. */
export function StressTable({ rows: given, label }: { rows: readonly StressRow[]; label: string }) {
  const [all, setAll] = useState(false);
  const worst = given.filter((r) => r.verdict !== 'ok');
  const fine = given.length - worst.length;
  const rows = all || worst.length === 0 ? given : worst;
  return (
    <>
      <table className="w-full border-collapse text-left" aria-label={label}>
        <thead className="text-sm text-faint">
          <tr className="border-b border-line">
            <th className="w-24 font-normal">Verdict</th>
            <th className="w-20 font-normal">Part</th>
            <th className="w-20 pr-3 text-right font-normal">Bears</th>
            <th className="w-20 pr-3 text-right font-normal">Rated</th>
            <th className="font-normal">Why</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => {
            const [sign, look] = VERDICT_LOOKS[r.verdict];
            return (
              <tr
                key={`${r.ref} ${r.quantity} ${r.why}`}
                data-verdict={r.verdict}
                className="border-b border-line/40 align-baseline"
              >
                <td className={`py-1 ${look}`}>
                  <span aria-hidden className="inline-block w-5">
                    {sign}
                  </span>
                  {r.verdict}
                </td>
                <td className="figure">{r.ref}</td>
                <td className="figure pr-3 text-right whitespace-nowrap">
                  {r.stress === null ? '' : formatQuantity(r.stress, r.unit)}
                </td>
                <td className="figure pr-3 text-right whitespace-nowrap">
                  {r.rating === null ? '' : formatQuantity(r.rating, r.unit)}
                </td>
                <td className="text-sm">{r.why}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {worst.length > 0 && fine > 0 && (
        <Button kind="quiet" className="self-start text-sm" aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? 'only what is not ok' : `and ${fine} within their derated limits`}
        </Button>
      )}
    </>
  );
}
