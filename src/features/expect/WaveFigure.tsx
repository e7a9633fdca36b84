'use client';
import { CartesianGrid, Line, LineChart, ReferenceLine, Tooltip, XAxis, YAxis } from 'recharts';
import { formatQuantity } from '@/core/quantity';
import type { Waveform } from '@/core/work';
import { AXIS, TOOLTIP } from '@/features/frame/plotLooks';
import { useWidth } from '@/ui/useWidth';

/** A probe for a scope is chosen above this, V; the usual one bears so much at its tip. */
const USUAL_PROBE = 300;

/** One period as a scope would show it, and its figures in words. */
export function WaveFigure({ wave, name }: { wave: Waveform; name: string }) {
  const [ref, width] = useWidth<HTMLDivElement>(640);
  const { hertz, duty, high, low, mean, rms, points } = wave;
  const period = 1 / hertz;
  // Two periods, so that the eye sees it repeat.
  const data = [0, period].flatMap((more) => points.map(([t, v]) => ({ t: t + more, v })));
  const figures = [
    ['Frequency', formatQuantity(hertz, 'Hz')],
    ['Period', formatQuantity(period, 's')],
    ['On', `${Math.round(100 * duty)} %`],
    ['Highest', formatQuantity(high, 'V')],
    ['Lowest', formatQuantity(low, 'V')],
    ['Peak to peak', formatQuantity(high - low, 'V')],
    ['Mean', formatQuantity(mean, 'V')],
    ['RMS', formatQuantity(rms, 'V')],
  ] as const;
  const peak = Math.max(Math.abs(high), Math.abs(low));
  return (
    <figure ref={ref} aria-label={`Waveform of ${name}`} className="flex flex-col gap-1">
      <dl className="flex flex-wrap gap-x-5">
        {figures.map(([words, value]) => (
          <div key={words} className="flex gap-2">
            <dt className="text-sm text-faint">{words}</dt>
            <dd className="figure">{value}</dd>
          </div>
        ))}
      </dl>
      <div aria-hidden>
        <LineChart
          accessibilityLayer={false}
          width={width}
          height={150}
          data={data}
          margin={{ top: 6, right: 12, bottom: 2, left: 0 }}
        >
          <CartesianGrid stroke="var(--line)" strokeOpacity={0.5} />
          <XAxis
            dataKey="t"
            type="number"
            domain={[0, 2 * period]}
            tickCount={5}
            tickFormatter={(t: number) => formatQuantity(t, 's', 2)}
            {...AXIS}
          />
          <YAxis
            width={64}
            domain={['auto', 'auto']}
            tickFormatter={(v: number) => formatQuantity(v, 'V', 3)}
            {...AXIS}
          />
          <Tooltip
            isAnimationActive={false}
            cursor={{ stroke: 'var(--brass)' }}
            contentStyle={TOOLTIP}
            formatter={(v) => [formatQuantity(Number(v), 'V', 4), 'volts']}
            labelFormatter={(t) => formatQuantity(Number(t), 's', 3)}
          />
          <ReferenceLine y={0} stroke="var(--faint)" />
          <Line dataKey="v" type="linear" dot={false} stroke="var(--slate)" strokeWidth={2} isAnimationActive={false} />
        </LineChart>
      </div>
      <p className="text-sm text-faint">
        {peak > USUAL_PROBE
          ? `A probe rated for more than ${formatQuantity(peak, 'V')}: a usual 10:1 tip bears about ${USUAL_PROBE} V.`
          : `A usual 10:1 probe bears its ${formatQuantity(peak, 'V')}.`}{' '}
        Computed without ringing: leakage and stray capacitance come on top.
      </p>
    </figure>
  );
}
