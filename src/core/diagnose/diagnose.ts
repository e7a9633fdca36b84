import { findPart } from '../circuit';
import type { FaultDictionary } from './dictionary';
import { KIND_WORDS, failureKind } from './failureKind';
import { groupHypotheses } from './groups';
import { binOutcomes, planReadings } from './nextReading';
import type { OutcomeBins, PlannedReading } from './nextReading';
import { logLikelihood } from './outcome';
import { Predictions, posterior, weighReadings } from './posterior';
import type { ProbePoint } from './probePoint';
import type { TakenReading } from './posterior';

/**
 * A suspect: a group of faults that no reading can tell apart, led by its likeliest.
 *
 * probability  of the whole group.
 * group        labels of all its members, likeliest first.
 * invisible    the group holds `none`: the readings at hand cannot tell it from a healthy board.
 * unseen       of such a group what is in it, by kind of part, likeliest first; nothing broken among it.
 */
export interface Suspect {
  readonly fault: string;
  readonly faults: readonly string[];
  readonly probability: number;
  readonly group: readonly string[];
  readonly why: string;
  readonly invisible: boolean;
  readonly unseen: readonly UnseenKind[];
}

/** Odds of a kind of part, or of nothing broken, among what the readings cannot see. */
export interface UnseenKind {
  readonly words: string;
  readonly probability: number;
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

/** A leading group with this probability is named; where a reading speaks against it, only with this. */
export const NAMED_FROM = 0.95;
const CONTESTED_FROM = 0.998;
/** Natural log of how much likelier a healthy board makes a reading that speaks against a suspect. */
const CONTRADICTED = -Math.log(30);

/**
 * The plan looks for what can be seen: what these readings cannot see has this share of its attention, however likely it
 * is, or the hunt would end on "cannot tell" before the rest has been looked at. The odds are not touched by it.
 */
const SILENT_SHARE = 0.002;
/** No visible fault has less than this share of an even one of the plan's attention: a rare fault must still be findable. */
const LEAST_SHARE = 0.5;

/** Weights of the hypotheses as the plan looks for them. */
function searchWeights(dictionary: FaultDictionary, groups: Int32Array): Float64Array {
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

/**
 * Diagnosis of one board: the dictionary with everything derived from it once. Add readings, ask again.
 *
 * Odds are prior times likelihood and nothing else. Where to look next is another question: `attention` weighs the
 * hypotheses as the plan looks for them, common or rare, as far as these readings can see them.
 */
export class Diagnoser {
  readonly predictions: Predictions;
  readonly groups: Int32Array;
  private readonly search: Float64Array;
  private readonly bins: readonly OutcomeBins[];

  constructor(readonly dictionary: FaultDictionary) {
    this.predictions = new Predictions(dictionary);
    this.groups = groupHypotheses(dictionary);
    this.bins = binOutcomes(dictionary);
    this.search = searchWeights(dictionary, this.groups);
  }

  /** Odds of all hypotheses after readings; `factors` (one for each hypothesis) are what was seen. */
  weigh(readings: readonly TakenReading[], factors?: Float64Array): Float64Array {
    return this.after(
      Float64Array.from(this.dictionary.hypotheses, (h) => h.weight),
      readings,
      factors,
    );
  }

  /** How much each hypothesis is looked for after readings; adds up to one. */
  attention(readings: readonly TakenReading[], factors?: Float64Array): Float64Array {
    return this.after(this.search, readings, factors);
  }

  private after(before: Float64Array, readings: readonly TakenReading[], factors?: Float64Array): Float64Array {
    const priors = factors ? before.map((p, i) => p * factors[i]!) : before;
    const weights = weighReadings(this.predictions, readings, priors);
    const out = new Float64Array(weights.length);
    posterior(weights, out);
    return out;
  }

  /** Readings worth taking next, best first, by `attention`. `skipped` points are left out of the plan. */
  plan(
    readings: readonly TakenReading[],
    attention: Float64Array,
    most: number,
    skipped: readonly ProbePoint[] = [],
  ): readonly PlannedReading[] {
    const taken = [...skipped, ...readings];
    return planReadings(this.dictionary, this.bins, this.groups, attention, taken, most);
  }

  /** Whether everything that these readings can see has been looked for: nothing of it has attention left, or no reading tells more. */
  lookedThrough(attention: Float64Array, plan: readonly PlannedReading[]): boolean {
    const { groups } = this;
    const seen = attention.reduce((sum, p, h) => (groups[h] === groups[0] ? sum : sum + p), 0);
    return 1 - seen >= NAMED_FROM || (seen < 0.5 && littleLeft(plan));
  }

  /**
   * Whether the leading suspect may be called: these readings can see it, and it holds the limit; more, where a reading
   * speaks strongly against it and for a healthy board.
   */
  mayCall(leader: Suspect | undefined, readings: readonly TakenReading[]): boolean {
    if (!leader || leader.invisible || leader.probability < NAMED_FROM) return false;
    if (leader.probability >= CONTESTED_FROM) return true;
    const h = this.dictionary.hypotheses.findIndex((one) => one.label === leader.fault);
    return readings.every((r) => {
      const { spreads, classOf } = this.predictions.at(r);
      const healthy = spreads[0]!;
      const own = logLikelihood(r.mode, spreads[classOf[h]!]!, healthy, r.seen);
      return own - logLikelihood(r.mode, healthy, healthy, r.seen) > CONTRADICTED;
    });
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
    const attention = this.attention(readings, factors);
    const plan = this.plan(readings, attention, most, skipped);
    const leader = suspects[0];
    const through = this.lookedThrough(attention, plan) || readings.length >= MOST_READINGS;
    return {
      suspects,
      plan,
      verdict: this.mayCall(leader, readings) ? 'named' : leader?.invisible && through ? 'cannot-tell' : 'open',
      probabilities,
    };
  }

  private unseen(list: readonly number[], probabilities: Float64Array): readonly UnseenKind[] {
    const { board, hypotheses } = this.dictionary;
    const byWords = new Map<string, number>();
    for (const h of list) {
      const part = hypotheses[h]!.faults[0] && findPart(board, hypotheses[h]!.faults[0].ref);
      const kind = part ? failureKind(board, part) : null;
      const words = kind === null ? 'nothing broken' : KIND_WORDS[kind];
      byWords.set(words, (byWords.get(words) ?? 0) + probabilities[h]!);
    }
    return [...byWords]
      .map(([words, probability]) => ({ words, probability }))
      .sort((a, b) => b.probability - a.probability);
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
        unseen: invisible ? this.unseen(list, probabilities) : [],
      };
    });
    made.sort((a, b) => b.probability - a.probability);
    return made.filter((s, i) => i === 0 || s.probability > 1e-4);
  }
}
