'use client';
import { Bar, BarChart, Legend, XAxis, YAxis } from 'recharts';
import { formatQuantity } from '@/core/quantity';
import type { SumDone } from '@/core/sums';
import { AXIS } from '@/features/frame/plotLooks';
import { Plot, figureIn } from './plot';

/** Where the loss goes with a lower diode and with a lower switch. */
export function LossPlot({ done, width }: { done: SumDone; width: number }) {
  const data = [
    { name: 'two switches', upper: figureIn(done, 'highSide'), lower: figureIn(done, 'lowSideSync') },
    { name: 'diode below', upper: figureIn(done, 'highSide'), lower: figureIn(done, 'lowSideDiode') },
  ];
  const title = `Loss: ${formatQuantity(figureIn(done, 'lossSync'), 'W')} with two switches, ${formatQuantity(figureIn(done, 'lossDiode'), 'W')} with a diode`;
  return (
    <Plot title={title}>
      <BarChart
        accessibilityLayer={false}
        layout="vertical"
        width={width}
        height={130}
        data={data}
        margin={{ top: 4, right: 24, bottom: 4, left: 4 }}
      >
        <XAxis type="number" tickFormatter={(x: number) => formatQuantity(x, 'W', 2)} {...AXIS} />
        <YAxis type="category" dataKey="name" width={96} {...AXIS} tick={{ fill: 'var(--ink)', fontSize: 13 }} />
        <Legend formatter={(name) => <span style={{ color: 'var(--ink)' }}>{String(name)}</span>} />
        <Bar
          dataKey="upper"
          name="upper switch"
          stackId="loss"
          fill="var(--slate)"
          barSize={18}
          isAnimationActive={false}
        />
        <Bar
          dataKey="lower"
          name="lower switch or diode"
          stackId="loss"
          fill="var(--brass)"
          barSize={18}
          isAnimationActive={false}
        />
      </BarChart>
    </Plot>
  );
}
