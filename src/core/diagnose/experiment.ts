import type { Board } from '../circuit';
import type { Hypothesis } from './hypotheses';
import type { OutcomeSpread } from './outcome';
import type { ProbePoint } from './probePoint';
import type { OutcomeScale } from './scale';

/**
 * An experiment with what every hypothesis predicts for it. Hypotheses that predict the same share a class; class 0 is
 * the healthy board's.
 *
 * raws     computed figure per class; `spreads` the whole outcome.
 * classOf  per hypothesis the number of its class.
 * settle   seconds until the outcome stands.
 */
export interface Predicted extends ProbePoint {
  readonly scale: OutcomeScale;
  readonly raws: readonly number[];
  readonly spreads: readonly OutcomeSpread[];
  readonly classOf: Uint16Array;
  readonly settle: number;
}

/**
 * What says how an experiment comes out under each hypothesis: cold readings by the dictionary of a board. The diagnosis,
 * its plan and its groups know nothing else of what is measured.
 *
 * points  the experiments worth planning; at: any other, worked out when it is asked for.
 * left    hypotheses that are still to be worked out.
 */
export interface Predictor {
  readonly board: Board;
  readonly hypotheses: readonly Hypothesis[];
  readonly left: number;
  readonly points: readonly Predicted[];
  at(point: ProbePoint): Predicted;
  /** What an experiment costs after the last one, in seconds; `settle`: the wait for it, where that is cut short. */
  seconds(point: Predicted, last: ProbePoint | null, settle?: number): number;
}
