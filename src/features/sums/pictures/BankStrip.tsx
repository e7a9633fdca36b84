'use client';
import { formatQuantity } from '@/core/quantity';
import type { SumDone } from '@/core/sums';
import { Plot, figureIn } from './plot';

/** A bank of capacitors as a strip of dots over their reading; the ones unlike the others are named. */
export function BankStrip({ done, width }: { done: SumDone; width: number }) {
  const readings = (done.inputs['readings'] ?? []) as readonly number[];
  const odd = new Set([
    ...((done.results['outliers'] ?? []) as readonly number[]),
    ...((done.results['outOfTolerance'] ?? []) as readonly number[]),
  ]);
  const [nominal, tol, median] = ['nominal', 'tol', 'median'].map((k) => figureIn(done, k)) as [number, number, number];
  const [low, high] = [Math.min(nominal * (1 - tol), ...readings), Math.max(nominal * (1 + tol), ...readings)];
  const pad = 0.08 * (high - low);
  const x = (c: number): number => 14 + ((c - low + pad) / (high - low + 2 * pad)) * (width - 28);
  const left = x(nominal * (1 - tol));
  const right = x(nominal * (1 + tol));
  return (
    <Plot title={`${readings.length} readings over their capacitance; the band is the printed tolerance`}>
      <svg width={width} height={96} aria-hidden>
        <rect x={left} y={24} width={right - left} height={36} fill="var(--line)" opacity={0.5} />
        <line x1={x(median)} x2={x(median)} y1={20} y2={64} stroke="var(--slate)" strokeWidth={2} />
        <text x={x(median)} y={16} textAnchor="middle" fontSize={12} fill="var(--slate)">
          median {formatQuantity(median, 'F')}
        </text>
        {readings.map((c, i) => (
          <g key={i}>
            {odd.has(i) ? (
              <rect
                x={x(c) - 6}
                y={36}
                width={12}
                height={12}
                fill="var(--oxide)"
                transform={`rotate(45 ${x(c)} 42)`}
              />
            ) : (
              <circle cx={x(c)} cy={42} r={6} fill="none" stroke="var(--ink)" strokeWidth={2} />
            )}
            {odd.has(i) && (
              <text
                x={x(c)}
                y={80}
                textAnchor={x(c) < 60 ? 'start' : x(c) > width - 60 ? 'end' : 'middle'}
                fontSize={13}
                fill="var(--oxide)"
              >
                no. {i + 1}: {formatQuantity(c, 'F')}
              </text>
            )}
          </g>
        ))}
      </svg>
    </Plot>
  );
}
