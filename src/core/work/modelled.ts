import type { Device } from '../device';
import type { Swing } from './course';

/**
 * What a converter that is worked out by its power does to the parts around it, where no course of its switching is run: the
 * closed forms of its waveform.
 */
export interface Modelled {
  /** Nodes that go between two volts, low and high. */
  readonly states: ReadonlyMap<number, readonly [low: number, high: number]>;
  /** Volts between two nodes where the waveform itself is known; null elsewhere. */
  across(a: number, b: number): Swing | null;
  /** Amperes through a device, mean: what it carries in the mean network; null where it is not this converter's. */
  through(device: Device, mean: number): Swing | null;
  /** Amperes rms that a capacitor carries of it; 0 where none. */
  ripple(device: Device): number;
}

/** A sine of so many volts or amperes rms about nothing. */
export const sine = (rms: number): Swing => ({ mean: 0, rms, high: Math.SQRT2 * rms, low: -Math.SQRT2 * rms });

/** Something that passes in one direction only. */
export const oneWay = (mean: number, rms: number, high: number): Swing => ({ mean, rms, high, low: 0 });

/** Share of a capacitor's farads in all that lie between its nodes' rails. */
export const shareOf = (own: number, all: number): number => (all > 0 ? own / all : 0);
