'use client';
import { placesOnNet } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import type { Weighed } from '@/features/frame/SuspectsContext';
import { Notice } from '@/ui/Notice';
import { MODE_NAMES } from './PointPanel';

/** The power gate: whether the readings so far forbid power, why, and the readings that would clear it. */
export function GateLine({ gate, board }: { gate: Weighed['gate']; board: Board }) {
  if (gate.allowed) {
    return (
      <p data-gate="open" className="mt-2 text-sm text-verdigris">
        ✓ No short in the supply path is left above 5 %. Not a statement that it is safe to touch.
      </p>
    );
  }
  const place = (net: string): string => placesOnNet(board, net)[0]?.words ?? net;
  return (
    <Notice kind="caution" className="mt-2 text-sm">
      <strong data-gate="closed">Do not power this.</strong> {gate.reasons.join(' ')}
      {gate.mass < 0.5 && gate.clearing.length > 0 && (
        <span className="block text-faint">
          Cleared by {gate.clearing.length === 1 ? 'one reading' : `${gate.clearing.length} readings`}, if healthy:{' '}
          {gate.clearing
            .slice(0, 3)
            .map((p) => `${MODE_NAMES[p.mode].toLowerCase()} ${place(p.red)} from ${place(p.black)}`)
            .join('; ')}
          {gate.clearing.length > 3 && ' …'}
        </span>
      )}
    </Notice>
  );
}
