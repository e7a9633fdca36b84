import type { Complex } from '../linear';
import type { DrawEffect } from './signalNetwork';
import { CAP_LIMIT_OHMS, ESR_LIMIT_OHMS, LEAST_REACTIVE, SIGNAL_HERTZ, SIGNAL_NOISE } from './tones';

/** Instruments with one frequency: series resistance and capacitance. */
export type OneTone = keyof typeof SIGNAL_HERTZ;

/** The figure that an impedance makes, ohm or farads, whatever the instrument's limits; Infinity where it has none. */
export function figureOf(mode: OneTone, z: Complex | null): number {
  if (z === null) return Infinity;
  if (mode === 'esr') return z.re;
  return z.im < 0 ? -1 / (2 * Math.PI * SIGNAL_HERTZ.cap * z.im) : Infinity;
}

/** What the instrument shows of it: null where that is overload. */
export function shownOf(mode: OneTone, z: Complex): number | null {
  if (mode === 'esr') return z.re > ESR_LIMIT_OHMS ? null : z.re;
  const size = Math.hypot(z.re, z.im);
  return z.im > -LEAST_REACTIVE * size || size > CAP_LIMIT_OHMS ? null : figureOf(mode, z);
}

/** One sigma of what the instrument adds to a figure. */
export function signalSigma(mode: keyof typeof SIGNAL_NOISE, figure: number): number {
  const { share, floor } = SIGNAL_NOISE[mode];
  return Math.hypot(share * figure, floor);
}

/** What a change of an impedance, ohm, does to that figure. */
export function figureChange(mode: OneTone, z: Complex, { effect }: Pick<DrawEffect, 'effect'>): number {
  return mode === 'esr' ? effect.re : (-effect.im / z.im) * figureOf(mode, z);
}
