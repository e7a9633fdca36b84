import type { FaultDictionary } from './dictionary';
import { groupHypotheses } from './groups';
import { binOutcomes, planReadings } from './nextReading';
import type { OutcomeBins, PlannedReading } from './nextReading';
import { Predictions, posterior, weighReadings } from './posterior';
import type { ProbePoint } from './probePoint';
import type { TakenReading } from './posterior';

/**
 * A suspect: a group of faults that no reading can tell apart, led by its likeliest.
 *
 * probability  of the whole group.
 * group        labels of all its members, likeliest first.
 * invisible    the group holds `none`: the readings at hand cannot tell it from a healthy board.
 */
export interface Suspect {
  readonly fault: string;
  readonly faults: readonly string[];
  readonly probability: number;
  readonly group: readonly string[];
  readonly why: string;
  readonly invisible: boolean;
}

/** What the readings so far say. */
export interface Diagnosis {
  readonly suspects: readonly Suspect[];
  readonly plan: readonly PlannedReading[];
  /**
   * `named`: one visible group holds the conviction limit. `cannot-tell`: what is left cannot be told from a healthy
   * board by these readings. `open`: go on reading.
   */
  readonly verdict: 'named' | 'cannot-tell' | 'open';
  readonly probabilities: Float64Array;
}

/** A hunt gives up after this many readings. */
export const MOST_READINGS = 60;

/** A leading group with this probability is named. */
export const NAMED_FROM = 0.95;

/**
 * What these readings cannot see starts the hunt with this share, however likely it is otherwise; or the hunt would
 * end on "cannot tell" before the rest has been looked at.
 */
const SILENT_SHARE = 0.002;
/** No visible fault starts with less than this share of an even start: a rare fault must still be findable. */
const LEAST_SHARE = 0.5;

function huntingPriors(dictionary: FaultDictionary, groups: Int32Array): Float64Array {
  const { hypotheses } = dictionary;
  let silent = 0;
  let visible = 0;
  let count = 0;
  hypotheses.forEach((h, i) => {
    if (groups[i] === groups[0]) silent += h.weight;
    else [visible, count] = [visible + h.weight, count + 1];
  });
  const scale = visible > 0 ? (visible * SILENT_SHARE) / ((1 - SILENT_SHARE) * silent) : 1;
  const least = (LEAST_SHARE * visible) / Math.max(1, count);
  return Float64Array.from(hypotheses, (h, i) =>
    groups[i] === groups[0] ? h.weight * scale : Math.max(h.weight, least),
  );
}

/** When a healthy-looking board leads, readings that would tell less than this are not worth taking. Bits. */
const LITTLE_BITS = 0.02;

/** Whether nothing in the plan is worth a probe any more, on a board that reads healthy so far. */
export function littleLeft(plan: readonly PlannedReading[]): boolean {
  return plan.every((p) => p.gainBits < LITTLE_BITS);
}

/** Named, when a visible group holds the limit; cannot tell, when a healthy-looking board leads and little is left to read. */
function verdictOf(leader: Suspect | undefined, plan: readonly PlannedReading[], taken: number): Diagnosis['verdict'] {
  if (!leader) return 'open';
  const sure = leader.probability >= NAMED_FROM;
  if (!leader.invisible) return sure ? 'named' : 'open';
  return sure || littleLeft(plan) || taken >= MOST_READINGS ? 'cannot-tell' : 'open';
}

/** Diagnosis of one board: the dictionary with everything derived from it once. Add readings, ask again. */
export class Diagnoser {
  readonly predictions: Predictions;
  readonly groups: Int32Array;
  /** Prior weights for the hunt. */
  private readonly priors: Float64Array;
  private readonly bins: readonly OutcomeBins[];

  constructor(readonly dictionary: FaultDictionary) {
    this.predictions = new Predictions(dictionary);
    this.groups = groupHypotheses(dictionary);
    this.bins = binOutcomes(dictionary);
    this.priors = huntingPriors(dictionary, this.groups);
  }

  /** Probabilities of all hypotheses after readings; `factors` (one for each hypothesis) are what was seen. */
  weigh(readings: readonly TakenReading[], factors?: Float64Array): Float64Array {
    const priors = factors ? this.priors.map((p, i) => p * factors[i]!) : this.priors;
    const weights = weighReadings(this.predictions, readings, priors);
    const probabilities = new Float64Array(weights.length);
    posterior(weights, probabilities);
    return probabilities;
  }

  /** Readings worth taking next, best first. `skipped` points are left out of the plan. */
  plan(
    readings: readonly TakenReading[],
    probabilities: Float64Array,
    most: number,
    skipped: readonly ProbePoint[] = [],
  ): readonly PlannedReading[] {
    const taken = [...skipped, ...readings];
    return planReadings(this.dictionary, this.bins, this.groups, probabilities, taken, most);
  }

  /** Suspects, plan and verdict after readings, in the order taken. */
  diagnose(
    readings: readonly TakenReading[],
    most = 8,
    skipped: readonly ProbePoint[] = [],
    factors?: Float64Array,
  ): Diagnosis {
    const probabilities = this.weigh(readings, factors);
    const suspects = this.suspects(probabilities);
    const plan = this.plan(readings, probabilities, most, skipped);
    const leader = suspects[0];
    return {
      suspects,
      plan,
      verdict: verdictOf(leader, plan, readings.length),
      probabilities,
    };
  }

  /** Groups by falling probability; those below a tenth of a promille are left out, the first always stays. */
  suspects(probabilities: Float64Array): readonly Suspect[] {
    const { hypotheses } = this.dictionary;
    const members = new Map<number, number[]>();
    this.groups.forEach((group, h) => members.set(group, [...(members.get(group) ?? []), h]));
    const made = [...members.values()].map((list): Suspect => {
      const sorted = [...list].sort((a, b) => probabilities[b]! - probabilities[a]!);
      const invisible = list.includes(0);
      const leader = hypotheses[invisible ? 0 : sorted[0]!]!;
      const group = sorted.map((h) => hypotheses[h]!.label);
      return {
        fault: leader.label,
        faults: leader.label === 'none' ? [] : leader.label.split('+'),
        probability: list.reduce((sum, h) => sum + probabilities[h]!, 0),
        group: invisible ? ['none', ...group.filter((l) => l !== 'none')] : group,
        why: invisible ? 'these readings cannot tell it from a healthy board' : leader.why,
        invisible,
      };
    });
    made.sort((a, b) => b.probability - a.probability);
    return made.filter((s, i) => i === 0 || s.probability > 1e-4);
  }
}
