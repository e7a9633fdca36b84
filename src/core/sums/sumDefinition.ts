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

/**
 * One bench sum: everything the command line, the screens and the documentation need.
 *
 * compute  gets checked inputs; may still refuse, naming the input.
 */
export interface SumDefinition {
  readonly name: string;
  readonly title: string;
  readonly formula: string;
  readonly source: string;
  readonly inputs: readonly SumInput[];
  readonly resultUnits: Readonly<Record<string, Unit>>;
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
