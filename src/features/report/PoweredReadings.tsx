'use client';
import { placesOnNet } from '@/core/circuit';
import { linesOf } from '@/core/ledger';
import { formatQuantity } from '@/core/quantity';
import { LOAD_WORDS, POWERED_NAMES, poweredWords } from '@/features/frame/lineWords';
import type { JobBoard } from '@/features/job/jobBoard';
import { useJob } from '@/features/job/JobContext';
import { OnBoard } from './OnBoard';

/** What was read on the unit under power, with how it was fed and loaded. */
export function PoweredReadings({ home }: { home: JobBoard }) {
  const { lines } = useJob();
  const rows = linesOf(lines, 'powered-reading').filter(({ line }) => line.boardId === home.id);
  if (rows.length === 0) return null;
  const place = (net: string): string => placesOnNet(home.board, net)[0]?.words ?? net;
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
            <th className="font-normal">Fed and loaded</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ line, body }) => (
            <tr key={line.id} className="border-b border-line/40 align-baseline">
              <td className="py-1 pr-2">{place(body.red)}</td>
              <td className="pr-2">{place(body.black)}</td>
              <td className="pr-2">{POWERED_NAMES[body.mode]}</td>
              <td className="figure pr-3 text-right whitespace-nowrap">
                {body.unsteady && '~'}
                {poweredWords(body.mode, body.value)}
              </td>
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
