import type { Complex } from '../linear';
import type { DrawEffect } from './signalNetwork';
import { SIGNAL_HERTZ } from './readSignal';

/** Instruments with one frequency: series resistance and capacitance. */
export type OneTone = keyof typeof SIGNAL_HERTZ;

/** The figure that an impedance makes, ohm or farads, whatever the instrument's limits; Infinity where it has none. */
export function figureOf(mode: OneTone, z: Complex | null): number {
  if (z === null) return Infinity;
  if (mode === 'esr') return z.re;
  return z.im < 0 ? -1 / (2 * Math.PI * SIGNAL_HERTZ.cap * z.im) : Infinity;
}

/** What a change of an impedance, ohm, does to that figure. */
export function figureChange(mode: OneTone, z: Complex, { effect }: Pick<DrawEffect, 'effect'>): number {
  return mode === 'esr' ? effect.re : (-effect.im / z.im) * figureOf(mode, z);
}
