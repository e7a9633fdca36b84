'use client';
import { formatQuantity } from '@/core/quantity';
import type { SumDone } from '@/core/sums';
import { Plot, figureIn } from './plot';

/** Input volts as a ruler: off, the window in which it stays as it was, on; the brown-out below. */
export function LockWindow({ done, width }: { done: SumDone; width: number }) {
  const [rise, fall, brown] = ['vRise', 'vFall', 'vBrownOut'].map((k) => figureIn(done, k)) as [number, number, number];
  const from = Math.max(0, Math.min(fall, brown > 0 ? brown : fall) - 0.35 * rise);
  const to = rise * 1.25;
  const x = (volts: number): number => 10 + ((volts - from) / (to - from)) * (width - 20);
  const mark = (volts: number, words: string, y: number, colour: string, side: 'start' | 'end') => (
    <g>
      <line x1={x(volts)} x2={x(volts)} y1={28} y2={y} stroke={colour} strokeWidth={2} />
      <text x={x(volts) + (side === 'end' ? -5 : 5)} y={y} textAnchor={side} fontSize={13} fill={colour}>
        {words} {formatQuantity(volts, 'V', 3)}
      </text>
    </g>
  );
  return (
    <Plot title={`Stays off up to ${formatQuantity(rise, 'V', 3)}, lets go below ${formatQuantity(fall, 'V', 3)}`}>
      <svg width={width} height={112} aria-hidden>
        <rect
          x={x(from)}
          y={28}
          width={x(fall) - x(from)}
          height={20}
          fill="none"
          stroke="var(--faint)"
          strokeDasharray="3 3"
        />
        <rect x={x(fall)} y={28} width={Math.max(1, x(rise) - x(fall))} height={20} fill="var(--slate)" opacity={0.5} />
        <rect x={x(rise)} y={28} width={x(to) - x(rise)} height={20} fill="var(--verdigris)" opacity={0.6} />
        <text x={x((from + fall) / 2)} y={22} textAnchor="middle" fontSize={13} fill="var(--faint)">
          off
        </text>
        <text x={x((rise + to) / 2)} y={22} textAnchor="middle" fontSize={13} fill="var(--verdigris)">
          on
        </text>
        {brown > from && mark(brown, 'browns out', 72, 'var(--oxide)', 'end')}
        {mark(fall, 'stops', 90, 'var(--ink)', 'end')}
        {mark(rise, 'starts', 106, 'var(--ink)', x(rise) > width - 110 ? 'end' : 'start')}
      </svg>
    </Plot>
  );
}
