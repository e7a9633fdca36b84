import type { Unit } from '../quantity';
import type { Problem, Result } from '../problem';

/** What an input must be. Rules as in the tables of `sums.md`. */
export type InputRule = 'positive' | 'non-negative' | 'any' | 'fraction-below-one' | 'fraction-above-zero';

/**
 * One input of a sum.
 *
 * words   instead of a number: one of these.
 * numbers only these figures are allowed.
 * preset  value taken when it is left out. optional: may be left out, no preset.
 */
export interface SumInput {
  readonly key: string;
  readonly unit: Unit;
  readonly meaning: string;
  readonly rule: InputRule;
  readonly numbers?: readonly number[];
  readonly preset?: number;
  readonly optional?: boolean;
  /** Instead of a number: one of these words; the first is taken where `preset` is 0. */
  readonly words?: readonly string[];
  /** A list of numbers, each within the rule. */
  readonly list?: boolean;
}

export type BadInput = Problem<'bad-input', { readonly key: string }>;
export type UnknownSum = Problem<'unknown-sum', { readonly name: string }>;

/** Values by key; a left-out optional input is absent. */
export type SumValues = Readonly<Record<string, number>>;
/** A result that does not exist is null, never NaN or Infinity. */
export type SumResult = number | string | boolean | null;
export type SumResults = Readonly<Record<string, SumResult | readonly number[] | Readonly<Record<string, SumResult>>>>;
/** Inputs that are no single number: words and lists by key. */
export interface SumTexts {
  readonly words: Readonly<Record<string, string>>;
  readonly lists: Readonly<Record<string, readonly number[]>>;
}

/** What the technician is about to do when reaching for a sum. */
export const SUM_TASKS = {
  'make-safe': 'Make safe',
  'power-up': 'Power up',
  'read-a-rail': 'Read a rail',
  'change-a-voltage': 'Change a voltage',
  'judge-a-part': 'Judge a part',
  'build-a-rig': 'Build a rig',
} as const;
export type SumTask = keyof typeof SUM_TASKS;

/**
 * One line of the derivation, `result = expression`: the expression uses the keys of inputs and results, `·` `/` `+`
 * `-` `²` `^`, brackets, `√( )`, `ln( )`, `max( ; )`, `min( ; )` and `π`. A result of the same key goes before an input.
 * when  only where these words (inputs or results) hold. A line with a key that has no value is left out.
 */
export type SumStep = string | { readonly when: Readonly<Record<string, string>>; readonly step: string };

/** A value as it may be given to a sum. */
export type SumGiven = number | string | readonly number[];

/**
 * One bench sum: everything the command line, the screens and the documentation need.
 *
 * lead         the results that answer the question, most wanted first. resultWords: what each result is.
 * words        plain words that people look for it by. example: values to begin with, made up.
 * compute      gets checked inputs; may still refuse, naming the input.
 */
export interface SumDefinition {
  readonly name: string;
  readonly title: string;
  readonly formula: string;
  readonly source: string;
  readonly inputs: readonly SumInput[];
  readonly resultUnits: Readonly<Record<string, Unit>>;
  readonly task: SumTask;
  readonly words: string;
  readonly lead: readonly string[];
  readonly resultWords: Readonly<Record<string, string>>;
  readonly steps: readonly SumStep[];
  /** Results that a real part is to be fitted for: on which side of the figure it may lie. */
  readonly fit?: Readonly<Record<string, 'near' | 'above' | 'below'>>;
  readonly example: Readonly<Record<string, SumGiven>>;
  compute(
    values: SumValues,
    texts: SumTexts,
  ): Result<{ readonly results: SumResults; readonly cautions: readonly string[] }, BadInput>;
}

/** Refusal of an input, naming it. */
export function badInput(key: string, sentence: string): BadInput {
  return {
    code: 'bad-input',
    sentence: `${key}: ${sentence}`,
    remedy: 'Change this input and compute again.',
    details: { key },
  };
}
