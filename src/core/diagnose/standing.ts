import type { Evidence } from './evidence';
import type { PlannedReading } from './nextReading';
import type { TakenReading } from './posterior';
import type { DrawState } from './sharedDraws';

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
  readonly ledBy: Standing['ledBy'];
  /** What speaks for and against the first suspect that these readings can see. */
  readonly evidence: Evidence | null;
}

/**
 * How sure the leading suspect is.
 *
 * yes             it may be called.
 * unless-told     it may be called once no reading is left that would tell it from the others.
 * no              it may not.
 */
export type Surety = 'yes' | 'unless-told' | 'no';

/** What readings make of the hypotheses. */
export interface Standing {
  readonly readings: readonly TakenReading[];
  /** Odds of each hypothesis, and how much each is looked for; both add up to one. */
  readonly odds: Float64Array;
  readonly attention: Float64Array;
  /** What the readings tell of how the parts were drawn, under each hypothesis. */
  readonly states: readonly DrawState[];
  readonly suspects: readonly Suspect[];
  readonly surety: Surety;
  /** Whether the readings put the first suspect before the others, or how common it is; null where it is not visible. */
  readonly ledBy: 'readings' | 'prior' | null;
}
