import { formatQuantity, withMark } from '../quantity';
import type { SumDone } from './runOne';
import type { SumDefinition, SumResults } from './sumDefinition';

/** One line of a derivation: `key` is the result, `formula` in keys, `numbers` the same with the figures in it. */
export interface DerivedLine {
  readonly key: string;
  readonly formula: string;
  readonly numbers: string;
  readonly value: string;
}

const NAME = /[a-zA-Z][a-zA-Z0-9]*/gu;
const FUNCTIONS = new Set(['ln', 'max', 'min']);

/** How a done sum came about, with the numbers in it: can be checked by hand. */
export function derivation(sum: SumDefinition, done: SumDone): readonly DerivedLine[] {
  const known = { ...done.inputs, ...done.results };
  const unitOf = (key: string): Parameters<typeof formatQuantity>[1] =>
    sum.resultUnits[key] ?? sum.inputs.find((i) => i.key === key)?.unit ?? '1';
  const figure = (key: string): string | null => {
    const value = known[key];
    return typeof value === 'number' ? formatQuantity(value, unitOf(key), 4) : null;
  };
  return sum.steps.flatMap((one) => {
    const step = typeof one === 'string' ? one : one.step;
    if (typeof one !== 'string' && Object.entries(one.when).some(([key, word]) => known[key] !== word)) return [];
    const at = step.indexOf('=');
    const [key, formula] = [step.slice(0, at).trim(), step.slice(at + 1).trim()];
    const value = figure(key);
    const names = formula.match(NAME)?.filter((n) => !FUNCTIONS.has(n)) ?? [];
    if (value === null || names.some((n) => figure(n) === null)) return [];
    // What only holds the result at zero is left out where the result is above it.
    const inner = /^max\(0; (.+)\)$/u.exec(formula)?.[1];
    const shown = inner !== undefined && (known[key] as number) > 0 ? inner : formula;
    const numbers = shown.replace(NAME, (n, at: number) => {
      if (FUNCTIONS.has(n)) return n;
      return shown[at + n.length] === '²' ? `(${figure(n)!})` : figure(n)!;
    });
    return [{ key, formula, numbers: numbers.replaceAll(' - ', ' − '), value }];
  });
}

/** One result as a person reads it: engineering notation, words for yes and no, positions counted from one. */
export function resultText(sum: SumDefinition, key: string, value: SumResults[string] | undefined): string {
  const unit = sum.resultUnits[key] ?? '1';
  if (value === null || value === undefined) return 'none';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') return formatQuantity(value, unit, 4);
  if (typeof value === 'string') return value;
  if (Array.isArray(value)) return value.length === 0 ? 'none' : value.map((i: number) => `no. ${i + 1}`).join(', ');
  const { value: ohms, vOut, error } = value as { value?: number | null; vOut?: number; error?: number };
  if (ohms === null || ohms === undefined) return 'nothing to fit';
  const percent = withMark(((error ?? 0) * 100).toFixed(2));
  return `${formatQuantity(ohms, 'ohm', 3)} gives ${formatQuantity(vOut ?? 0, 'V', 4)} (${percent} %)`;
}

/** A done sum as text to paste: inputs, results, derivation, cautions. */
export function sumText(sum: SumDefinition, done: SumDone): string {
  const inputs = sum.inputs.flatMap((i) => {
    const value = done.inputs[i.key];
    if (value === undefined) return [];
    const text =
      typeof value === 'number'
        ? formatQuantity(value, i.unit, 4)
        : typeof value === 'string'
          ? value
          : value.map((one) => formatQuantity(one, i.unit, 4)).join(', ');
    return [`  ${i.meaning}: ${text}`];
  });
  const results = Object.entries(done.results).map(
    ([key, value]) => `  ${sum.resultWords[key] ?? key}: ${resultText(sum, key, value)}`,
  );
  const steps = derivation(sum, done).map((l) => `  ${l.key} = ${l.numbers} = ${l.value}`);
  return [
    sum.title,
    ...inputs,
    'gives',
    ...results,
    ...(steps.length > 0 ? ['by', ...steps] : []),
    ...done.cautions.map((c) => `Caution: ${c}`),
  ].join('\n');
}
