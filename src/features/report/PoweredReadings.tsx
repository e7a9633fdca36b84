'use client';
import { useMemo } from 'react';
import { easiestPlace } from '@/core/circuit';
import { judgePowered } from '@/core/expect';
import { linesOf } from '@/core/ledger';
import type { PoweredReadingBody } from '@/core/ledger';
import { formatQuantity } from '@/core/quantity';
import type { PoweredReading } from '@/core/work';
import { OUTCOME_INKS, OUTCOME_SIGNS } from '@/features/frame/outcomeSigns';
import { LOAD_WORDS, POWERED_NAMES, poweredWords } from '@/features/frame/lineWords';
import type { TracedJobBoard } from '@/core/job';
import { useJob } from '@/features/job/JobContext';
import { OnBoard } from './OnBoard';
import { usePoweredExpected } from './usePoweredExpected';

/** What was read on the unit under power, with how it was fed and loaded. */
export function PoweredReadings({ home }: { home: TracedJobBoard }) {
  const { lines } = useJob();
  const rows = useMemo(
    () => linesOf(lines, 'powered-reading').filter(({ line }) => line.boardId === home.id),
    [lines, home.id],
  );
  const bodies = useMemo(() => rows.map(({ body }) => body), [rows]);
  const expected = usePoweredExpected(home.board, bodies);
  if (rows.length === 0) return null;
  const place = (net: string): string => easiestPlace(home.board, net);
  return (
    <section className="mb-4">
      <h2 className="mb-1 font-semibold">
        <OnBoard id={home.id} />
        Read under power
      </h2>
      <table className="w-full border-collapse text-left text-sm">
        <thead className="text-faint">
          <tr className="border-b border-line">
            <th className="py-1 font-normal">Red</th>
            <th className="font-normal">Black</th>
            <th className="font-normal">Mode</th>
            <th className="pr-3 text-right font-normal">Read</th>
            <th className="pr-3 text-right font-normal">A sound unit shows</th>
            <th className="font-normal">Fed and loaded</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ line, body }, i) => (
            <tr key={line.id} className="border-b border-line/40 align-baseline">
              <td className="py-1 pr-2">{place(body.red)}</td>
              <td className="pr-2">{place(body.black)}</td>
              <td className="pr-2">{POWERED_NAMES[body.mode]}</td>
              <td className="figure pr-3 text-right whitespace-nowrap">
                {body.unsteady && '~'}
                {poweredWords(body.mode, body.value)}
              </td>
              <Expected body={body} reading={expected[i]} />
              <td>
                {formatQuantity(body.source, 'V')}, {LOAD_WORDS[body.load]}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** The band of a sound unit and whether the figure lies in it. */
function Expected({ body, reading }: { body: PoweredReadingBody; reading: PoweredReading | null | undefined }) {
  if (reading === undefined) return <td className="pr-3 text-right text-faint">…</td>;
  if (reading === null || reading.low === null || reading.high === null)
    return <td className="pr-3 text-right text-faint">not to be said</td>;
  const outcome = judgePowered(reading, body, true);
  return (
    <td className="figure pr-3 text-right whitespace-nowrap">
      {poweredWords(body.mode, reading.low)} to {poweredWords(body.mode, reading.high)}{' '}
      <span className={OUTCOME_INKS[outcome]} aria-label={outcome}>
        {OUTCOME_SIGNS[outcome]}
      </span>
    </td>
  );
}
