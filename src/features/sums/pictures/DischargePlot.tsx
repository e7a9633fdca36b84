'use client';
import { Area, AreaChart, ReferenceLine, XAxis, YAxis } from 'recharts';
import { formatQuantity } from '@/core/quantity';
import { dischargeCurve } from '@/core/sums';
import type { SumDone } from '@/core/sums';
import { AXIS } from '@/features/frame/plotLooks';
import { Plot, figureIn } from './plot';

/** Volts over time with the line that is to be reached. */
export function DischargePlot({ done, width }: { done: SumDone; width: number }) {
  const [safe, time] = [figureIn(done, 'vSafe'), figureIn(done, 'time')];
  const title = `Volts on the capacitor: below ${formatQuantity(safe, 'V')} after ${formatQuantity(time, 's')}`;
  return (
    <Plot title={title}>
      <AreaChart
        accessibilityLayer={false}
        width={width}
        height={170}
        data={[...dischargeCurve(done)]}
        margin={{ top: 16, right: 60, bottom: 4, left: 4 }}
      >
        <XAxis
          dataKey="x"
          type="number"
          domain={[0, 'dataMax']}
          tickFormatter={(x: number) => formatQuantity(x, 's', 2)}
          {...AXIS}
        />
        <YAxis width={56} tickFormatter={(y: number) => formatQuantity(y, 'V', 3)} {...AXIS} />
        <Area
          dataKey="y"
          stroke="var(--ink)"
          strokeWidth={2}
          fill="var(--line)"
          fillOpacity={0.4}
          isAnimationActive={false}
        />
        <ReferenceLine
          y={safe}
          stroke="var(--verdigris)"
          strokeDasharray="6 3"
          label={{ value: formatQuantity(safe, 'V'), position: 'right', fill: 'var(--verdigris)', fontSize: 12 }}
        />
        {time > 0 && (
          <ReferenceLine
            x={time}
            stroke="var(--verdigris)"
            label={{ value: formatQuantity(time, 's'), position: 'top', fill: 'var(--verdigris)', fontSize: 12 }}
          />
        )}
      </AreaChart>
    </Plot>
  );
}
