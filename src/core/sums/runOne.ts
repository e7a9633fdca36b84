import { ok, refuse } from '../problem';
import type { Result } from '../problem';
import { badInput } from './sumDefinition';
import type { BadInput, InputRule, SumDefinition, SumInput, SumResults } from './sumDefinition';

/** A sum that was done. */
export interface SumDone {
  readonly name: string;
  readonly inputs: Readonly<Record<string, number | string | readonly number[]>>;
  readonly results: SumResults;
  readonly cautions: readonly string[];
}

/**
 * Runs one sum. inputs are what a person or a file gave: each must be a finite number within its rule.
 * Refuses with `bad-input` naming the input: missing, unknown, not a number, outside its rule.
 */
export function runOne(sum: SumDefinition, inputs: Readonly<Record<string, unknown>>): Result<SumDone, BadInput> {
  const { name } = sum;
  const values: Record<string, number> = {};
  const words: Record<string, string> = {};
  const lists: Record<string, readonly number[]> = {};
  for (const key of Object.keys(inputs)) {
    if (!sum.inputs.some((i) => i.key === key)) return refuse(badInput(key, `${name} has no such input`));
  }
  for (const input of sum.inputs) {
    const given = inputs[input.key] ?? (input.words && input.preset !== undefined ? input.words[0] : input.preset);
    if (given === undefined || given === null) {
      if (input.optional) continue;
      return refuse(badInput(input.key, 'is missing'));
    }
    const wrong = wrongWith(input, given);
    if (wrong !== null) return refuse(badInput(input.key, wrong));
    if (input.words) words[input.key] = String(given);
    else if (input.list) lists[input.key] = given as readonly number[];
    else values[input.key] = given as number;
  }
  const done = sum.compute(values, { words, lists });
  if (!done.ok) return done;
  return ok({ name, inputs: { ...values, ...words, ...lists }, ...done.value });
}

function wrongWith(input: SumInput, given: unknown): string | null {
  if (input.words) return input.words.includes(String(given)) ? null : `must be one of ${input.words.join(', ')}`;
  if (input.list) {
    if (!Array.isArray(given) || given.length < 3) return 'needs at least three numbers';
    return given.map((one: unknown) => wrongWith({ ...input, list: false }, one)).find((w) => w !== null) ?? null;
  }
  if (typeof given !== 'number' || !Number.isFinite(given)) return 'is not a number';
  if (input.numbers && !input.numbers.includes(given)) return `must be one of ${input.numbers.join(', ')}`;
  return withinRule(input.rule, given);
}

function withinRule(rule: InputRule, value: number): string | null {
  switch (rule) {
    case 'positive':
      return value > 0 ? null : 'must be above zero';
    case 'non-negative':
      return value >= 0 ? null : 'must not be negative';
    case 'any':
      return null;
    case 'fraction-below-one':
      return value >= 0 && value < 1 ? null : 'must be from 0 to below 1';
    case 'fraction-above-zero':
      return value > 0 && value <= 1 ? null : 'must be above 0 and at most 1';
  }
}
