import type { Board } from '@/core/circuit';
import { figureOf, isPending } from '@/core/figures';
import type { Figure } from '@/core/figures';
import { benchText, formatQuantity, parseQuantity, splitFigures } from '@/core/quantity';
import { SUMS, runSum } from '@/core/sums';
import type { SumDefinition, SumDone, SumGiven, SumInput } from '@/core/sums';

/** A sheet as it stands: what was typed, and which inputs follow a figure of the board (with its value when last seen). */
export interface SheetState {
  readonly name: string;
  readonly texts: Readonly<Record<string, string>>;
  readonly bound: Readonly<Record<string, { readonly figure: string; readonly value: number }>>;
}

/** One input of the sheet with what it holds now. `moved`: the value that its figure had when it was last seen. */
export interface SheetField {
  readonly input: SumInput;
  readonly text: string;
  readonly figure: Figure | null;
  readonly lost: string | null;
  readonly moved: number | null;
  readonly example: boolean;
  readonly shown: string;
  readonly error: string | null;
}

/** A sheet worked out. */
export interface Sheet {
  readonly sum: SumDefinition;
  readonly fields: readonly SheetField[];
  readonly given: Readonly<Record<string, SumGiven>>;
  /** Inputs that still hold the made-up figure to begin with. */
  readonly examples: readonly string[];
  readonly missing: readonly string[];
  readonly done: SumDone | null;
}

/** An untouched sheet of a sum; the first sum for a name that is none. */
export function emptySheet(name: string): SheetState {
  return { name: SUMS.find((s) => s.name === name)?.name ?? SUMS[0]!.name, texts: {}, bound: {} };
}

/** Works a sheet out on a board (null: no job). Everything untouched holds its example. */
export function readSheet(state: SheetState, board: Board | null): Sheet {
  const sum = SUMS.find((s) => s.name === state.name) ?? SUMS[0]!;
  const touched = (key: string): boolean => state.texts[key] !== undefined || state.bound[key] !== undefined;
  const optionalTouched = sum.inputs.some((i) => i.optional && touched(i.key));
  const given: Record<string, SumGiven> = {};
  const read = sum.inputs.map((input): SheetField & { readonly value: SumGiven | undefined } => {
    const binding = state.bound[input.key];
    const figure = binding && board ? (figureOf(board, binding.figure) ?? null) : null;
    const blank = { input, text: '', figure: null, lost: null, moved: null, example: false, shown: '', error: null };
    if (binding && figure) {
      const moved = figure.value === binding.value || Number.isNaN(binding.value) ? null : binding.value;
      return { ...blank, figure, moved, shown: formatQuantity(figure.value, input.unit, 4), value: figure.value };
    }
    if (binding && board && isPending(board, binding.figure))
      return Number.isNaN(binding.value)
        ? { ...blank, shown: '…', value: undefined }
        : { ...blank, shown: formatQuantity(binding.value, input.unit, 4), value: binding.value };
    if (binding) return { ...blank, lost: binding.figure, text: benchText(binding.value), value: binding.value };
    const typed = state.texts[input.key];
    if (typed === undefined) {
      const begin = input.optional && optionalTouched ? undefined : sum.example[input.key];
      if (begin === undefined) return { ...blank, value: undefined };
      return { ...blank, example: true, shown: givenText(begin), value: begin };
    }
    const value = readGiven(input, typed);
    if (typeof value === 'object' && 'error' in value)
      return { ...blank, text: typed, error: value.error, value: undefined };
    return { ...blank, text: typed, shown: shownOf(input, value), value };
  });
  for (const { input, value } of read) if (value !== undefined) given[input.key] = value;
  const missing = read
    .filter((f) => f.value === undefined && !f.input.optional && f.input.preset === undefined && f.error === null)
    .map((f) => f.input.key);
  const broken = read.some((f) => f.error !== null);
  const run = broken || missing.length > 0 ? null : runSum(sum.name, given);
  const problem = run && !run.ok ? run.problem : null;
  const at = problem?.code === 'bad-input' ? problem.details!.key : null;
  const fields = read.map(({ value: _value, ...field }) =>
    field.input.key === at ? { ...field, error: problem!.sentence.replace(/^[^:]+: /u, '') } : field,
  );
  // A choice of words stands as it is shown; it is no made-up figure.
  const examples = fields.filter((f) => f.example && f.input.preset === undefined && f.input.words === undefined);
  return { sum, fields, given, examples: examples.map((f) => f.input.key), missing, done: run?.ok ? run.value : null };
}

/** What was typed into one input: a figure in the input's unit, one of its words, a list; undefined for nothing. */
export function readGiven(input: SumInput, typed: string): SumGiven | undefined | { readonly error: string } {
  const text = typed.trim();
  if (text === '') return undefined;
  if (input.words) return text;
  if (!input.list) return readFigure(input, text);
  const values: number[] = [];
  for (const one of splitFigures(text)) {
    const value = readFigure(input, one);
    if (typeof value !== 'number') return value;
    values.push(value);
  }
  return values;
}

function readFigure(input: SumInput, text: string): number | { readonly error: string } {
  const read = parseQuantity(text);
  if (!read.ok) return { error: `${read.problem.sentence} ${read.problem.remedy}` };
  const { unit, value } = read.value;
  if (unit !== null && unit !== input.unit)
    return { error: `This wants ${input.unit === '1' ? 'a bare figure' : input.unit}.` };
  return value;
}

function shownOf(input: SumInput, value: SumGiven | undefined): string {
  if (typeof value === 'number') return formatQuantity(value, input.unit, 4);
  return Array.isArray(value) ? `${value.length} figures` : '';
}

function givenText(value: SumGiven): string {
  if (typeof value === 'string') return value;
  if (typeof value === 'number') return benchText(value);
  return value.map(benchText).join(', ');
}

/** The sheet as the query of a link: typed inputs as typed, bound ones as `@figure`. */
export function sheetQuery(state: SheetState): string {
  const query = new URLSearchParams({ sum: state.name });
  for (const [key, text] of Object.entries(state.texts)) query.set(key, text);
  for (const [key, { figure }] of Object.entries(state.bound)) query.set(key, `@${figure}`);
  return query.toString();
}

/** Reads a link's query; null where it names no sum. A bound figure that the board has not is taken as not touched. */
export function sheetFromQuery(query: URLSearchParams, board: Board | null): SheetState | null {
  const sum = SUMS.find((s) => s.name === query.get('sum'));
  if (!sum) return null;
  const texts: Record<string, string> = {};
  const bound: Record<string, { figure: string; value: number }> = {};
  for (const { key } of sum.inputs) {
    const text = query.get(key);
    if (text === null) continue;
    if (!text.startsWith('@')) texts[key] = text.slice(0, 2000);
    else {
      const figure = board ? figureOf(board, text.slice(1)) : undefined;
      if (figure) bound[key] = { figure: figure.key, value: figure.value };
      // What the unit at work will tell is awaited.
      else if (board && isPending(board, text.slice(1))) bound[key] = { figure: text.slice(1), value: NaN };
    }
  }
  return { name: sum.name, texts, bound };
}

/** A record without one of its keys. */
export function without<T>(record: Readonly<Record<string, T>>, key: string): Readonly<Record<string, T>> {
  return Object.fromEntries(Object.entries(record).filter(([k]) => k !== key));
}
