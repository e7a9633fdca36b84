import type { Board } from '@/core/circuit';
import { Diagnoser, buildWholeDictionary, listHypotheses, withAllInstruments } from '@/core/diagnose';
import { SIGNAL_EVIDENCE } from '@/core/meter';
import { timed } from './dictionaryBench';
import { heldInvisible } from './repairs';

/** Share of the odds before any reading that no reading can see: with the meter alone, with the other instruments too; what those cost. */
export function instrumentsSee(board: Board): {
  readonly byMeter: number;
  readonly byAll: number;
  readonly ms: number;
} {
  const dictionary = buildWholeDictionary(board, listHypotheses(board));
  const { value: all, ms } = timed(() => withAllInstruments(dictionary, SIGNAL_EVIDENCE));
  return { byMeter: unseenShare(new Diagnoser(dictionary)), byAll: unseenShare(new Diagnoser(all)), ms };
}

/** Share of the odds before any reading that is held invisible. */
export function unseenShare(diagnoser: Diagnoser): number {
  const held = new Set(heldInvisible(diagnoser));
  let [unseen, total] = [0, 0];
  for (const { label, weight } of diagnoser.predictor.hypotheses) {
    total += weight;
    if (held.has(label)) unseen += weight;
  }
  return unseen / total;
}
