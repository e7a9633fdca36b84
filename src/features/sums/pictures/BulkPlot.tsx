'use client';
import { Line, LineChart, ReferenceLine, XAxis, YAxis } from 'recharts';
import { formatQuantity } from '@/core/quantity';
import { bulkWave } from '@/core/sums';
import type { SumDone } from '@/core/sums';
import { AXIS } from '@/features/frame/plotLooks';
import { Plot, figureIn } from './plot';

/** The bulk capacitor over two half-waves, the rectified mains behind it. */
export function BulkPlot({ done, width }: { done: SumDone; width: number }) {
  const wave = bulkWave(done);
  if (wave.length === 0) return null;
  const [low, high, mean] = ['vMin', 'vMax', 'vAvg'].map((k) => figureIn(done, k)) as [number, number, number];
  const title = `Two half-waves: between ${formatQuantity(low, 'V')} and ${formatQuantity(high, 'V')}, the meter shows ${formatQuantity(mean, 'V')}`;
  return (
    <Plot title={title}>
      <LineChart
        accessibilityLayer={false}
        width={width}
        height={170}
        data={[...wave]}
        margin={{ top: 8, right: 60, bottom: 4, left: 4 }}
      >
        <XAxis
          dataKey="x"
          type="number"
          domain={[0, 'dataMax']}
          tickFormatter={(x: number) => formatQuantity(x, 's', 2)}
          {...AXIS}
        />
        <YAxis
          width={56}
          domain={[Math.max(0, low - 4 * (high - low)), 'auto']}
          allowDataOverflow
          tickFormatter={(y: number) => formatQuantity(y, 'V', 3)}
          {...AXIS}
        />
        <Line dataKey="source" stroke="var(--faint)" strokeDasharray="2 4" dot={false} isAnimationActive={false} />
        <Line dataKey="y" stroke="var(--ink)" strokeWidth={2.5} dot={false} isAnimationActive={false} />
        <ReferenceLine
          y={mean}
          stroke="var(--slate)"
          strokeDasharray="6 3"
          label={{ value: formatQuantity(mean, 'V'), position: 'right', fill: 'var(--slate)', fontSize: 12 }}
        />
      </LineChart>
    </Plot>
  );
}
