import { findPart } from '../circuit';
import type { Board } from '../circuit';
import { parseFault } from '../fault';
import type { Predictor } from './experiment';
import { KIND_WORDS, failureKind } from './failureKind';
import { evidenceOf, witnessesOf, restsOnOnePoint } from './evidence';
import { groupHypotheses } from './groups';
import { binOutcomes, planReadings } from './nextReading';
import type { PointBins, PlannedReading } from './nextReading';
import { posterior, weighReadings } from './posterior';
import type { ProbePoint } from './probePoint';
import type { TakenReading, Weighed } from './posterior';
import type { Diagnosis, Standing, Surety, Suspect, UnseenKind } from './standing';

/** A hunt gives up after this many readings. */
export const MOST_READINGS = 60;

/**
 * A leading group with this probability is named; where it leads by how common it is and not by the readings, and some
 * reading would still tell, only with the second; where a reading speaks against it, only with the third.
 */
export const NAMED_FROM = 0.95;
const BY_PRIOR_FROM = 0.99;
const CONTESTED_FROM = 0.998;
/** A suspect leads by the readings when they are this many times likelier under it than under any other in play. */
const BY_READINGS = 20;
/** Odds from which another suspect must be told from the first by more than one point. */
const RIVAL_FROM = 0.005;
/** Odds from which another suspect is in play. */
const IN_PLAY = 0.001;
/** Natural log of how much likelier a healthy board makes a reading that speaks against a suspect. */
const CONTRADICTED = -Math.log(30);

/**
 * The plan looks for what can be seen: what these readings cannot see has this share of its attention, however likely it
 * is, or the hunt would end on "cannot tell" before the rest has been looked at. The odds are not touched by it.
 */
const SILENT_SHARE = 0.002;
/** No visible fault has less than this share of an even one of the plan's attention: a rare fault must still be findable. */
const LEAST_SHARE = 0.15;

/** Weights of the hypotheses as the plan looks for them. */
function searchWeights(predictor: Predictor, groups: Int32Array): Float64Array {
  const { hypotheses } = predictor;
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

/** Readings that would tell less than this are not worth taking where little speaks for a fault any more. Bits. */
const LITTLE_BITS = 0.02;

function littleLeft(plan: readonly PlannedReading[]): boolean {
  return plan.every((p) => p.gainBits < LITTLE_BITS);
}

/** Whether of two faults of one part, by label, one is a resistor open and the other it drifted up. */
function openAndUp(board: Board, one: string, other: string): boolean {
  const [a, b] = [parseFault(board, one), parseFault(board, other)];
  if (!a.ok || !b.ok) return false;
  const [open, drift] = a.value.kind === 'open' ? [a.value, b.value] : [b.value, a.value];
  if (open.kind !== 'open' || drift.kind !== 'value') return false;
  const part = findPart(board, open.ref);
  return part?.kind === 'resistor' && drift.value > part.value;
}

function normalised(logWeights: Float64Array): Float64Array {
  const out = new Float64Array(logWeights.length);
  posterior(logWeights, out);
  return out;
}

/**
 * Diagnosis of one board: what is predicted for it with everything derived from it once. Add readings, ask again.
 *
 * Odds are prior times likelihood and nothing else. Where to look next is another question: `attention` weighs the
 * hypotheses as the plan looks for them, common or rare, as far as these readings can see them.
 */
export class Diagnoser {
  readonly groups: Int32Array;
  private readonly search: Float64Array;
  private readonly bins: readonly PointBins[];

  constructor(readonly predictor: Predictor) {
    this.groups = groupHypotheses(predictor);
    this.bins = binOutcomes(predictor);
    this.search = searchWeights(predictor, this.groups);
  }

  /** Odds of all hypotheses after readings; `factors` (one for each hypothesis) are what was seen. */
  weigh(readings: readonly TakenReading[], factors?: Float64Array): Float64Array {
    const priors = Float64Array.from(this.predictor.hypotheses, (h) => h.weight);
    return normalised(this.after(priors, readings, factors).weights);
  }

  /** How much each hypothesis is looked for after readings; adds up to one. */
  attention(readings: readonly TakenReading[], factors?: Float64Array): Float64Array {
    return normalised(this.after(this.search, readings, factors).weights);
  }

  private after(before: Float64Array, readings: readonly TakenReading[], factors?: Float64Array): Weighed {
    return weighReadings(this.predictor, readings, factors ? before.map((p, i) => p * factors[i]!) : before);
  }

  /** Suspects after readings, and how sure the first of them is. */
  standing(readings: readonly TakenReading[], factors?: Float64Array): Standing {
    const odds = this.weigh(readings, factors);
    const suspects = this.suspects(odds);
    const { weights, states } = this.after(this.search, readings, factors);
    const [leader] = suspects;
    const surety = this.surety(leader, readings, odds, suspects.slice(1));
    const ledBy = !leader || leader.invisible ? null : this.leadsByReadings(leader, odds) ? 'readings' : 'prior';
    return { readings, odds, attention: normalised(weights), states, suspects, surety, ledBy };
  }

  /** Readings worth taking next, best first. `skipped` points are left out of the plan. */
  plan(standing: Standing, most: number, skipped: readonly ProbePoint[] = []): readonly PlannedReading[] {
    const aim = this.looksSettled(standing.attention) ? standing.odds : standing.attention;
    return planReadings(this.predictor, this.bins, this.groups, aim, standing, skipped, most);
  }

  /** Whether attention has come to rest on one visible group: then readings are planned for its odds. */
  private looksSettled(attention: Float64Array): boolean {
    const held = new Float64Array(attention.length);
    this.groups.forEach((group, h) => (held[group] = held[group]! + attention[h]!));
    return held.some((share, group) => group !== this.groups[0] && share >= NAMED_FROM);
  }

  /** Whether no reading is worth taking any more, with a plan for this standing. */
  through({ attention, readings }: Standing, plan: readonly PlannedReading[]): boolean {
    if (readings.length >= MOST_READINGS || plan.length === 0) return true;
    if (this.looksSettled(attention)) return littleLeft(plan);
    const { groups } = this;
    const seen = attention.reduce((sum, p, h) => (groups[h] === groups[0] ? sum : sum + p), 0);
    return 1 - seen >= NAMED_FROM || (seen < 0.5 && littleLeft(plan));
  }

  /** Whether the leading suspect may be called, with a plan for this standing where that has been made. */
  mayCall({ surety }: Standing, plan?: readonly PlannedReading[]): boolean {
    // What is not worked out yet may explain it better.
    if (this.predictor.left > 0) return false;
    return surety === 'yes' || (surety === 'unless-told' && plan !== undefined && littleLeft(plan));
  }

  /**
   * How sure a leading suspect is: these readings must be able to see it, and it must hold the limit for its case; where one
   * point alone puts it before another, what else would tell is read first.
   */
  surety(
    leader: Suspect | undefined,
    readings: readonly TakenReading[],
    odds: Float64Array,
    others: readonly Suspect[] = [],
  ): Surety {
    if (!leader || leader.invisible) return 'no';
    if (leader.probability < NAMED_FROM) return this.oneFinding(leader, readings, others) ? 'unless-told' : 'no';
    if (leader.probability >= CONTESTED_FROM) return 'yes';
    if (this.contradicted(leader, readings)) return 'no';
    if (leader.probability >= BY_PRIOR_FROM) return 'yes';
    const rivals = others.filter((s) => s.probability >= RIVAL_FROM);
    if (rivals.some((s) => restsOnOnePoint(this.predictor, readings, leader.fault, s.fault))) return 'unless-told';
    return this.leadsByReadings(leader, odds) ? 'yes' : 'unless-told';
  }

  /**
   * Whether a suspect below the limit holds it together with another: an open resistor and the same one drifted up beyond what
   * any meter shows are one finding.
   */
  private oneFinding(leader: Suspect, readings: readonly TakenReading[], others: readonly Suspect[]): boolean {
    const own = leader.fault.slice(0, leader.fault.indexOf(':') + 1);
    const same = others.filter(
      ({ fault }) => fault.startsWith(own) && openAndUp(this.predictor.board, leader.fault, fault),
    );
    const held = same.reduce((sum, s) => sum + s.probability, leader.probability);
    return same.length > 0 && held >= BY_PRIOR_FROM && !this.contradicted(leader, readings);
  }

  /** Whether some point was read that speaks strongly against a suspect and for a healthy board. */
  private contradicted(leader: Suspect, readings: readonly TakenReading[]): boolean {
    return witnessesOf(this.predictor, readings, leader.fault).some((w) => w.weight <= CONTRADICTED);
  }

  /** Whether the readings, and not how common it is, put a suspect before every other one in play. */
  private leadsByReadings(leader: Suspect, odds: Float64Array): boolean {
    const { hypotheses } = this.predictor;
    const held = new Map<number, { odds: number; prior: number }>();
    this.groups.forEach((group, h) => {
      const one = held.get(group) ?? { odds: 0, prior: 0 };
      held.set(group, { odds: one.odds + odds[h]!, prior: one.prior + hypotheses[h]!.weight });
    });
    const own = held.get(this.groups[hypotheses.findIndex((h) => h.label === leader.fault)]!)!;
    return [...held.values()].every(
      (other) =>
        other === own || other.odds < IN_PLAY || own.odds / own.prior >= (BY_READINGS * other.odds) / other.prior,
    );
  }

  /** Suspects, plan and verdict after readings, in the order taken. */
  diagnose(
    readings: readonly TakenReading[],
    most = 8,
    skipped: readonly ProbePoint[] = [],
    factors?: Float64Array,
  ): Diagnosis {
    const standing = this.standing(readings, factors);
    const plan = this.plan(standing, most, skipped);
    const { suspects, odds, ledBy } = standing;
    const through = suspects[0]?.invisible && this.predictor.left === 0 && this.through(standing, plan);
    const verdict = this.mayCall(standing, plan) ? 'named' : through ? 'cannot-tell' : 'open';
    const visible = suspects.find((s) => !s.invisible);
    const evidence = visible ? evidenceOf(this.predictor, readings, suspects, visible) : null;
    return { suspects, plan, verdict, probabilities: odds, ledBy, evidence };
  }

  private unseen(list: readonly number[], probabilities: Float64Array): readonly UnseenKind[] {
    const { board, hypotheses } = this.predictor;
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
    const { hypotheses } = this.predictor;
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
