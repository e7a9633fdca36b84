import { findPart } from '../circuit';
import type { Board } from '../circuit';
import { faultWords, parseFault } from '../fault';
import type { Fault } from '../fault';
import type { Part } from '../part';
import { ok, refuse } from '../problem';
import type { Problem, Result } from '../problem';
import { formatQuantity, parseQuantity } from '../quantity';

/** Something that is supposed of a board without being noted: another value of a part, or a fault. */
export interface Supposition {
  /** As it was typed. */
  readonly text: string;
  readonly words: string;
  readonly change: { readonly ref: string; readonly value: number } | null;
  readonly fault: Fault | null;
}

export type BadSupposition = Problem<'bad-supposition', { readonly text: string }>;

const UNITS = { resistor: 'ohm', capacitor: 'F', inductor: 'H' } as const;

/** Reads `R3 12k`, `C5 open`, `M1 short(d,s)` or a fault as the command line has it. Refuses with `bad-supposition`. */
export function parseSupposition(board: Board, typed: string): Result<Supposition, BadSupposition> {
  const text = typed.trim();
  const [ref = '', ...rest] = text.split(/[\s:]+/u);
  const part = findPart(board, ref);
  if (!part) return refuse(bad(text, `There is no ${ref === '' ? 'part named' : ref} on this board.`));
  const tail = rest.join(' ');
  if (tail === '') return refuse(bad(text, `What of ${part.ref}?`));
  const unit = part.kind in UNITS ? UNITS[part.kind as keyof typeof UNITS] : null;
  const figure = parseQuantity(tail);
  if (figure.ok && unit !== null) {
    const { value, unit: told } = figure.value;
    if (told !== null && told !== unit) return refuse(bad(text, `${part.ref} is not counted in ${told}.`));
    if (!(value > 0)) return refuse(bad(text, `${part.ref} needs a value above nothing.`));
    return ok({
      text,
      words: `${part.ref} ${formatQuantity(value, unit)}`,
      change: { ref: part.ref, value },
      fault: null,
    });
  }
  const fault = parseFault(board, `${part.ref}:${rest.join('')}`);
  if (!fault.ok) return refuse(bad(text, `${part.ref} cannot be “${tail}”.`));
  return ok({ text, words: faultWords(board, `${part.ref}:${rest.join('')}`), change: null, fault: fault.value });
}

function bad(text: string, sentence: string): BadSupposition {
  return {
    code: 'bad-supposition',
    sentence,
    remedy: 'Write a part with a value or a fault, such as R3 12k, C5 open, D4 short, C9 esr=2.',
    details: { text },
  };
}

/** The board with the values that are supposed, and the faults. Nothing of it is written anywhere. */
export function supposed(
  board: Board,
  all: readonly Supposition[],
): { readonly board: Board; readonly faults: readonly Fault[] } {
  const values = new Map(all.flatMap(({ change }) => (change ? [[change.ref, change.value] as const] : [])));
  const faults = all.flatMap(({ fault }) => fault ?? []);
  if (values.size === 0) return { board, faults };
  const withValue = (p: Part): Part => {
    const value = values.get(p.ref);
    return value !== undefined && 'value' in p ? { ...p, value, basis: 'seen' as const } : p;
  };
  return { board: { ...board, parts: board.parts.map(withValue) }, faults };
}
