'use client';
import { memo } from 'react';
import { CartesianGrid, Line, LineChart, ReferenceArea, ReferenceLine, Tooltip, XAxis, YAxis } from 'recharts';
import { formatQuantity } from '@/core/quantity';
import { SWEEP_COLUMNS, thinRows } from '@/core/sweep';
import type { SweepColumn, SweepRow, SweepSetup } from '@/core/sweep';
import { AXIS, TOOLTIP } from './plotLooks';

/** More points than the plot has places for are thinned to the highest and lowest of each stretch. */
const MOST_POINTS = 400;

/** A sweep drawn: what was set along, what is claimed (or the output volts) up, the claimed figure as a line. */
export const SweepChart = memo(function SweepChart({
  setup,
  rows,
  width,
  height = 220,
}: {
  setup: SweepSetup;
  rows: readonly SweepRow[];
  width: number;
  height?: number;
}) {
  const up: SweepColumn = setup.claimed?.column ?? (setup.setBy === 'vout' ? 'iout' : 'vout');
  const shown = thinRows(rows, up, MOST_POINTS);
  const bySet = shown.some((r) => r[setup.setBy] !== null);
  const data = shown.map((r, i) => ({ x: bySet ? r[setup.setBy] : i + 1, y: r[up] })).filter((d) => d.x !== null);
  const [along, above] = [SWEEP_COLUMNS[setup.setBy], SWEEP_COLUMNS[up]];
  const { claimed } = setup;
  const values = [
    ...data.map((d) => d.y!),
    ...(claimed ? [claimed.value * (1 + claimed.tolerance), claimed.value * (1 - claimed.tolerance)] : []),
  ];
  // The frame is there before the first row: what comes then only moves a line in it.
  const [low, high] = values.length === 0 ? [0, 1] : [Math.min(...values), Math.max(...values)];
  const pad = (high - low || Math.abs(high) || 1) * 0.1;
  const title = `${above.words} over ${bySet ? along.words : 'rows'}${claimed ? `; the line is the claimed ${formatQuantity(claimed.value, above.unit, 4)}, the band its tolerance` : ''}`;
  return (
    <figure aria-label={title}>
      <figcaption className="text-sm text-faint">
        {data.length === 0 ? 'Nothing to draw yet: the first row puts a point here.' : title}
      </figcaption>
      <LineChart width={width} height={height} data={data} margin={{ top: 8, right: 64, bottom: 4, left: 4 }}>
        <CartesianGrid stroke="var(--line)" strokeOpacity={0.5} vertical={false} />
        <XAxis
          dataKey="x"
          type="number"
          domain={['dataMin', 'dataMax']}
          padding={{ left: 12, right: 12 }}
          tickFormatter={(x: number) => (bySet ? formatQuantity(x, along.unit, 3) : String(x))}
          {...AXIS}
        />
        <YAxis
          width={64}
          domain={[low - pad, high + pad]}
          tickFormatter={(y: number) => formatQuantity(y, above.unit, 3)}
          {...AXIS}
        />
        <Tooltip
          isAnimationActive={false}
          cursor={{ stroke: 'var(--slate)' }}
          contentStyle={TOOLTIP}
          formatter={(y) => [formatQuantity(Number(y), above.unit, 4), above.words]}
          labelFormatter={(x) =>
            bySet ? `${along.words} ${formatQuantity(Number(x), along.unit, 4)}` : `row ${String(x)}`
          }
        />
        {claimed && (
          <ReferenceArea
            y1={claimed.value * (1 - claimed.tolerance)}
            y2={claimed.value * (1 + claimed.tolerance)}
            fill="var(--verdigris)"
            fillOpacity={0.12}
          />
        )}
        {claimed && (
          <ReferenceLine
            y={claimed.value}
            stroke="var(--verdigris)"
            strokeDasharray="6 3"
            label={{
              value: formatQuantity(claimed.value, above.unit, 3),
              position: 'right',
              fill: 'var(--verdigris)',
              fontSize: 12,
            }}
          />
        )}
        <Line
          dataKey="y"
          type="linear"
          stroke="var(--ink)"
          strokeWidth={2}
          dot={data.length <= 60 ? { r: 4, fill: 'var(--ground)', stroke: 'var(--ink)', strokeWidth: 2 } : false}
          isAnimationActive={false}
        />
      </LineChart>
    </figure>
  );
});
