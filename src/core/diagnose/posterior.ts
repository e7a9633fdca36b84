import { netKey } from '../circuit';
import { invariant, ok, refuse } from '../problem';
import type { Problem, Result } from '../problem';
import { placeOn } from './scale';
import type { Predicted, Predictor } from './experiment';
import type { ProbePoint } from './probePoint';
import { pointLikelihood, sameReadings } from './likelihood';
import type { Observation, SameReadings } from './likelihood';
import { NOTHING_TOLD, conditioned, told } from './sharedDraws';
import type { DrawState } from './sharedDraws';

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

/** The readings of one point, in the order taken. */
export interface ReadPoint {
  readonly point: ProbePoint;
  readonly readings: readonly TakenReading[];
  readonly groups: readonly SameReadings[];
}

/** Readings by point, in the order first taken, each with all that was read there. */
export function readPoints(predictor: Predictor, readings: readonly TakenReading[]): readonly ReadPoint[] {
  const at = new Map<string, TakenReading[]>();
  for (const r of readings) {
    const known = at.get(pointKey(r));
    if (known) known.push(r);
    else at.set(pointKey(r), [r]);
  }
  return [...at.values()].map((list) => ({
    point: list[0]!,
    readings: list,
    groups: sameReadings(
      predictor.at(list[0]!).scale,
      list.map((r) => r.seen),
    ),
  }));
}

/** Hypotheses after readings: the log weight of each, and what the readings tell under it of how the parts were drawn. */
export interface Weighed {
  readonly weights: Float64Array;
  readonly states: readonly DrawState[];
}

/** Hypotheses that predict the same at every point read so far go together: which company each is in, and what is known of it. */
interface Stage {
  readonly read: ReadPoint | null;
  readonly company: Int32Array;
  readonly ends: readonly { readonly log: number; readonly state: DrawState }[];
}

/** Stages of the last weighing, by dictionary: readings are mostly added to those before. */
const trails = new WeakMap<Predictor, readonly Stage[]>();

/**
 * Log weights of all hypotheses after readings: prior times likelihood of what was read at each point, given what was
 * read at those before.
 *
 * priors  weights before any reading; by default those of the hypotheses.
 */
export function weighReadings(
  predictor: Predictor,
  readings: readonly TakenReading[],
  priors: Float64Array = Float64Array.from(predictor.hypotheses, (h) => h.weight),
): Weighed {
  const old = trails.get(predictor) ?? [];
  const first: Stage = {
    read: null,
    company: new Int32Array(priors.length),
    ends: [{ log: 0, state: NOTHING_TOLD }],
  };
  const trail: Stage[] = [old[0] ?? first];
  let same = true;
  for (const read of readPoints(predictor, readings)) {
    const known = old[trail.length];
    same &&= known !== undefined && sameRead(known.read, read);
    trail.push(same ? known! : nextStage(trail.at(-1)!, predictor.at(read.point), read));
  }
  trails.set(predictor, trail);
  const { company, ends } = trail.at(-1)!;
  return {
    weights: priors.map((p, h) => Math.log(p) + ends[company[h]!]!.log),
    states: Array.from(company, (c) => ends[c]!.state),
  };
}

function sameRead(a: ReadPoint | null, b: ReadPoint): boolean {
  return a !== null && a.readings.length === b.readings.length && a.readings.every((r, i) => r === b.readings[i]);
}

function nextStage({ company, ends }: Stage, point: Predicted, read: ReadPoint): Stage {
  const { scale, spreads, classOf } = point;
  const numbers = new Map<number, number>();
  const made: { readonly log: number; readonly state: DrawState }[] = [];
  const next = new Int32Array(company.length);
  for (let h = 0; h < next.length; h++) {
    const key = company[h]! * spreads.length + classOf[h]!;
    let number = numbers.get(key);
    if (number === undefined) {
      const { log, state } = ends[company[h]!]!;
      const spread = spreads[classOf[h]!]!;
      const { total, meant } = pointLikelihood(scale, conditioned(scale, spread, state), spreads[0]!, read.groups);
      const known = meant === null ? state : told(scale, spread, state, placeOn(scale, meant));
      number = made.push({ log: log + Math.log(total), state: known }) - 1;
      numbers.set(key, number);
    }
    next[h] = number;
  }
  return { read, company: next, ends: made };
}
