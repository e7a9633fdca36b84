import type { Board } from '../circuit';
import { flatten } from '../device';
import type { Fault } from '../fault';
import { SignalNetwork, withFaults } from '../signal';
import type { SignalBoard } from '../signal';
import type { Hypothesis } from './hypotheses';

/** The boards of all hypotheses at one frequency, rad/s, worked out once each. */
export class SignalBoards {
  private readonly sound: SignalNetwork;
  private readonly faulty = new Map<string, SignalBoard>();

  constructor(
    private readonly board: Board,
    omega: number,
  ) {
    this.sound = new SignalNetwork(flatten(board), omega);
  }

  of({ label, faults }: Pick<Hypothesis, 'label' | 'faults'>): SignalBoard {
    const known = this.faulty.get(label) ?? this.with(faults);
    this.faulty.set(label, known);
    return known;
  }

  /** One with any faults, not kept. */
  with(faults: readonly Fault[]): SignalBoard {
    return withFaults(this.sound, flatten(this.board, faults));
  }
}
