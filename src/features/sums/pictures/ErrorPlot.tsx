'use client';
import { Bar, BarChart, LabelList, ReferenceLine, XAxis, YAxis } from 'recharts';
import { formatQuantity, withMark } from '@/core/quantity';
import type { SumDone } from '@/core/sums';
import { AXIS } from '@/features/frame/plotLooks';
import { Plot } from './plot';

/** How far each series of preferred values misses the wanted output. */
export function ErrorPlot({ done, width }: { done: SumDone; width: number }) {
  const data = (['e12', 'e24', 'e96'] as const).flatMap((key) => {
    const found = done.results[key] as { value: number | null; error: number } | undefined;
    if (!found || found.value === null) return [];
    return [
      {
        name: `${key.toUpperCase()}  ${formatQuantity(found.value, 'ohm')}`,
        percent: 100 * found.error,
        words: `${withMark((100 * found.error).toFixed(2))} %`,
      },
    ];
  });
  if (data.length === 0) return null;
  const most = Math.max(0.1, ...data.map((d) => Math.abs(d.percent))) * 1.35;
  return (
    <Plot title="How far each series misses the wanted output, in per cent">
      <BarChart
        accessibilityLayer={false}
        layout="vertical"
        width={width}
        height={120}
        data={data}
        margin={{ top: 4, right: 16, bottom: 4, left: 4 }}
      >
        <XAxis type="number" domain={[-most, most]} hide />
        <YAxis type="category" dataKey="name" width={120} {...AXIS} tick={{ fill: 'var(--ink)', fontSize: 13 }} />
        <ReferenceLine x={0} stroke="var(--faint)" />
        <Bar dataKey="percent" fill="var(--slate)" barSize={16} isAnimationActive={false}>
          <LabelList dataKey="words" position="right" fill="var(--ink)" fontSize={13} />
        </Bar>
      </BarChart>
    </Plot>
  );
}
