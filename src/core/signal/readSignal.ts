import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { flatten } from '../device';
import type { PartDraw } from '../device';
import type { Fault } from '../fault';
import { ringAcross, shownCycles } from './ring';
import { shownOf } from './shown';
import { SmallSignal, impedance } from './smallSignal';
import { SIGNAL_HERTZ } from './tones';

/** Meters that send a small alternating signal into an unpowered board. */
export const SIGNAL_MODES = ['esr', 'cap', 'ring'] as const;
export type SignalMode = (typeof SIGNAL_MODES)[number];

/** Units of their readings. */
export const SIGNAL_UNITS = { esr: 'ohm', cap: 'F', ring: 'cycles' } as const satisfies Record<SignalMode, string>;

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
      case 'esr':
      case 'cap':
        return this.signal.joined(a, b) ? shownOf(mode, impedance(this.signal.system(a, b), SIGNAL_HERTZ[mode])) : null;
      case 'ring':
        return shownCycles(ringAcross(this.signal, red, black));
    }
  }
}
