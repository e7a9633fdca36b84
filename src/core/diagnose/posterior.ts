import { netKey } from '../circuit';
import { invariant, ok, refuse } from '../problem';
import type { Problem, Result } from '../problem';
import { buildWholeDictionary } from './dictionary';
import type { FaultDictionary, PredictedPoint } from './dictionary';
import type { ProbePoint } from './probePoint';
import { pointLikelihood, sameReadings } from './likelihood';
import type { Observation, SameReadings } from './likelihood';

/** A reading taken at a point. `placeConfirmed` false: the net is only assumed to be where the probe was. */
export interface TakenReading extends ProbePoint {
  readonly seen: Observation;
  readonly placeConfirmed?: boolean;
}

export type ImpossibleEvidence = Problem<'impossible-evidence', { readonly suspects: number }>;

/**
 * Turns the log weight of each suspect into its probability.
 *
 * logWeights  n natural logs in suspect order; -Infinity = ruled out. Only read.
 * out         n probabilities, 0..1, sum 1. Overwritten; may be the same array as logWeights.
 *
 * Refuses with `impossible-evidence` when nothing is left. Unequal lengths, NaN and +Infinity are
 * bugs of the caller and throw.
 * Source: Blanchard, Higham & Higham, "Accurately computing the log-sum-exp and softmax functions",
 * IMA J. Numer. Anal. 41 (2021): shifting by the largest weight keeps exp() from overflowing.
 */
export function posterior(logWeights: Float64Array, out: Float64Array): Result<Float64Array, ImpossibleEvidence> {
  const n = logWeights.length;
  invariant(out.length === n, 'posterior: out and logWeights differ in length');
  let largest = -Infinity;
  for (let i = 0; i < n; i++) largest = Math.max(largest, logWeights[i]!);
  invariant(largest < Infinity, 'posterior: a weight is NaN or +Infinity');
  if (largest === -Infinity) {
    return refuse({
      code: 'impossible-evidence',
      sentence: 'No suspect is left that explains these readings.',
      remedy: 'Take the last readings again; all are kept.',
      details: { suspects: n },
    });
  }
  let total = 0;
  for (let i = 0; i < n; i++) total += out[i] = Math.exp(logWeights[i]! - largest);
  for (let i = 0; i < n; i++) out[i]! /= total;
  return ok(out);
}

/** Key of a point: same key, same reading. Continuity is its own mode. */
export function pointKey(point: ProbePoint): string {
  return `${point.mode} ${netKey(point.red)} ${netKey(point.black)}`;
}

/** Finds what is predicted at any point, from the dictionary or computed now and remembered. */
export class Predictions {
  private readonly known = new Map<string, PredictedPoint>();

  constructor(readonly dictionary: FaultDictionary) {
    for (const point of dictionary.points) this.known.set(pointKey(point), point);
  }

  /** The prediction at a point; nets must be on the board. */
  at(point: ProbePoint): PredictedPoint {
    const key = pointKey(point);
    const found = this.known.get(key);
    if (found) return found;
    const { board, hypotheses } = this.dictionary;
    const made = buildWholeDictionary(board, hypotheses, [point]).points[0]!;
    this.known.set(key, made);
    return made;
  }
}

/** The readings of one point, in the order taken. */
export interface ReadPoint {
  readonly point: ProbePoint;
  readonly groups: readonly SameReadings[];
}

/** Readings by point, each with all that was read there. */
export function readPoints(readings: readonly TakenReading[]): readonly ReadPoint[] {
  const at = new Map<string, TakenReading[]>();
  for (const r of readings) at.set(pointKey(r), [...(at.get(pointKey(r)) ?? []), r]);
  return [...at.values()].map((list) => ({
    point: list[0]!,
    groups: sameReadings(
      list[0]!.mode,
      list.map((r) => r.seen),
    ),
  }));
}

/**
 * Log weights of all hypotheses after readings: prior times likelihood of what was read at each point.
 *
 * priors  weights before any reading; by default those of the hypotheses.
 */
export function weighReadings(
  predictions: Predictions,
  readings: readonly TakenReading[],
  priors: Float64Array = Float64Array.from(predictions.dictionary.hypotheses, (h) => h.weight),
): Float64Array {
  const weights = priors.map(Math.log);
  for (const { point: asked, groups } of readPoints(readings)) {
    const point = predictions.at(asked);
    const healthy = point.spreads[0]!;
    const logs = point.spreads.map((s) => Math.log(pointLikelihood(point.mode, s, healthy, groups).total));
    for (let h = 0; h < weights.length; h++) weights[h] = weights[h]! + logs[point.classOf[h]!]!;
  }
  return weights;
}
