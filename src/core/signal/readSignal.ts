import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { flatten } from '../device';
import type { PartDraw } from '../device';
import type { Fault } from '../fault';
import { ringingPole } from './ringdown';
import { SmallSignal, impedance } from './smallSignal';

/** Meters that send a small alternating signal into an unpowered board. */
export const SIGNAL_MODES = ['esr', 'cap', 'ring'] as const;
export type SignalMode = (typeof SIGNAL_MODES)[number];

/** Units of their readings. */
export const SIGNAL_UNITS = { esr: 'ohm', cap: 'F', ring: 'cycles' } as const satisfies Record<SignalMode, string>;

/** Frequencies of the instruments that have one. */
export const SIGNAL_HERTZ = { esr: 100e3, cap: 100 } as const;
/** One sigma of the instruments: shares of the figure, and what an ESR meter adds, ohm (contract, section 3). */
export const SIGNAL_NOISE = { esr: { share: 0.03, floor: 0.01 }, cap: { share: 0.02, floor: 0 } } as const;
/** Above this, ohm, an ESR meter shows overload. */
export const ESR_LIMIT_OHMS = 10e3;
/** A capacitance is shown where this share of the impedance is reactive, and no more than `CAP_LIMIT` ohm of it. */
export const LEAST_REACTIVE = 0.02;
const CAP_LIMIT = 10e6;
const RING_FARADS = 10e-9;
const RING_LEFT = 0.15;
const RING_LIMIT = 10_000;

/** A board with faults, ready for any number of small-signal readings. */
export class SignalReader {
  private readonly signal: SmallSignal;

  constructor(board: Board, faults: readonly Fault[], draw?: PartDraw) {
    this.signal = new SmallSignal(flatten(board, faults, draw));
  }

  /**
   * What the meter shows between two nets, about zero bias (contract, section 3): ohm at 100 kHz, farads at 100 Hz, cycles
   * of ringing down to 15 %. null: overload; undefined: a net is not on this board.
   */
  read(mode: SignalMode, red: string, black: string): number | null | undefined {
    const [a, b] = [this.signal.nodeOf(netKey(red)), this.signal.nodeOf(netKey(black))];
    if (a === undefined || b === undefined) return undefined;
    switch (mode) {
      case 'esr': {
        if (!this.signal.joined(a, b)) return null;
        const { re } = impedance(this.signal.system(a, b), SIGNAL_HERTZ.esr);
        return re > ESR_LIMIT_OHMS ? null : re;
      }
      case 'cap': {
        if (!this.signal.joined(a, b)) return null;
        const { re, im } = impedance(this.signal.system(a, b), SIGNAL_HERTZ.cap);
        const size = Math.hypot(re, im);
        return im > -LEAST_REACTIVE * size || size > CAP_LIMIT ? null : -1 / (2 * Math.PI * SIGNAL_HERTZ.cap * im);
      }
      case 'ring': {
        if (a === b) return 0;
        const found = ringingPole(this.signal.system(a, b, RING_FARADS), RING_FARADS);
        if (!found || 2 * found.residue < RING_LEFT) return 0;
        const { re, im } = found.pole;
        const cycles = Math.floor((Math.log(1 / RING_LEFT) * im) / (2 * Math.PI * Math.abs(re)));
        return cycles >= RING_LIMIT ? null : cycles;
      }
    }
  }
}
