'use client';
import { formatQuantity } from '@/core/quantity';
import type { SequenceStep } from '@/core/work';
import { bandWords } from '@/features/frame/pointWords';
import type { WorkingUnit } from '@/workers/workingMessages';

/** Axis of the lanes, seconds: never shorter than this. */
const LEAST_SPAN = 0.2;
/** Most of the axis lies up to the last start; a little is left to run. */
const BEYOND = 1.15;

/** The start of the unit as lanes in time, each with its condition and what should read there, and where it stalls. */
export function SequenceView({ unit }: { unit: WorkingUnit | null }) {
  if (!unit) return null;
  const { steps, stalls } = unit.sequence;
  const span = Math.max(LEAST_SPAN, ...steps.map((s) => s.at)) * BEYOND;
  return (
    <div className="flex flex-col gap-4">
      {stalls.length > 0 && (
        <section aria-label="Where it stalls" className="border-l-4 border-oxide bg-raised px-4 py-3">
          <h2 className="font-bold text-oxide">As the unit is known now it stalls</h2>
          <ul>
            {stalls.map((s) => (
              <li key={`${s.lane} ${s.why}`}>
                <strong>{s.lane}</strong>: {s.why}
                {s.point && (
                  <span className="text-sm text-faint">
                    {' '}
                    (read {s.point.red} against {s.point.black})
                  </span>
                )}
                .
              </li>
            ))}
          </ul>
        </section>
      )}
      <table className="w-full table-fixed" aria-label="Start of the unit">
        <thead className="text-left text-sm text-faint">
          <tr>
            <th className="w-22 pr-3 text-right font-normal">After</th>
            <th className="w-34 font-normal">Comes alive</th>
            <th className="font-normal">
              <Axis span={span} />
            </th>
            <th className="w-52 pl-3 font-normal">When</th>
            <th className="w-46 text-right font-normal">Then shows</th>
          </tr>
        </thead>
        <tbody>
          {steps.map((s) => (
            <tr key={`${s.kind} ${s.lane} ${s.at}`} className="border-t border-line align-baseline">
              <td className="figure pr-3 text-right text-sm whitespace-nowrap">
                {s.at < 1e-3 ? 'at once' : formatQuantity(s.at, 's', 2)}
              </td>
              <td className={s.kind === 'output' ? 'font-semibold' : ''}>{s.lane}</td>
              <td>
                <Lane step={s} span={span} />
              </td>
              <td className="pl-3 text-sm">{s.condition}</td>
              <td className="figure text-right text-sm whitespace-nowrap">
                {s.point && (
                  <>
                    {bandWords(s.point)}
                    <span className="block text-faint">
                      {s.point.red} / {s.point.black}
                    </span>
                  </>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-sm text-faint">
        Times of charging pins follow from their resistors and capacitors; rectified rails take a few periods of the
        mains. What was read in this condition counts before what is computed.
      </p>
    </div>
  );
}

function Axis({ span }: { span: number }) {
  return (
    <span className="figure flex justify-between text-xs">
      <span>0 s</span>
      <span>{formatQuantity(span / 2, 's', 2)}</span>
      <span>{formatQuantity(span, 's', 2)}</span>
    </span>
  );
}

/** Hatched while it charges, solid from where it is alive. */
function Lane({ step: { at, takes, kind }, span }: { step: SequenceStep; span: number }) {
  const x = (t: number): string => `${(100 * t) / span}%`;
  const fill = kind === 'output' ? 'var(--verdigris)' : 'var(--slate)';
  return (
    <svg aria-hidden width="100%" height="18" className="block">
      <line x1="0" x2="100%" y1="9" y2="9" stroke="var(--line)" />
      {takes > 0 && (
        <line x1={x(at - takes)} x2={x(at)} y1="9" y2="9" stroke={fill} strokeWidth="6" strokeDasharray="2 4" />
      )}
      <rect x={x(at)} y="3" width={x(span - at)} height="12" fill={fill} />
    </svg>
  );
}
