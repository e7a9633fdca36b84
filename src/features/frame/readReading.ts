import type { SeenReading } from '@/core/expect';
import { MODE_UNITS } from '@/core/meter';
import type { UnpoweredMode } from '@/core/meter';
import { parseQuantity } from '@/core/quantity';
import { figureWords } from './lineWords';

/** One figure as typed in Probe, or what is wrong with it. */
export type TypedReading =
  { readonly ok: true; readonly seen: SeenReading } | { readonly ok: false; readonly why: string };

const UNIT_WORDS = { V: 'volts', ohm: 'ohm', F: 'farads', cycles: 'cycles' } as const;

/** No meter's diode test shows more than this. */
const MOST_DIODE_VOLTS = 10;

/**
 * Reads what was typed: figures separated by spaces, `o` for overload, `~` before a figure that creeps or jumps.
 * In diode test a figure of 5 or more is millivolts.
 *
 * modes  what each of the figures is read with, in their order; there are no more places than that.
 */
export function readTyped(text: string, modes: readonly UnpoweredMode[]): readonly TypedReading[] {
  // A space between figure and prefix belongs to the figure: `4.7 k` is one.
  const joined = text
    .trim()
    .replace(/(\d)\s+([TGMkKmuµnp]?(?:Ω|ohm|V|F)?)(?=\s|$)/gu, (_all, digit: string, unit: string) =>
      unit === '' ? `${digit} ` : digit + unit,
    );
  return joined
    .split(/\s+/u)
    .filter((t) => t !== '')
    .map((token, i): TypedReading => {
      const mode = modes[i];
      if (mode === undefined) return { ok: false, why: `${token} has no place: ${placesWords(modes.length)}.` };
      const unsteady = token.startsWith('~');
      const body = unsteady ? token.slice(1) : token;
      if (/^o(?:l|pen)?$/iu.test(body)) return { ok: true, seen: { kind: 'overload' } };
      const read = parseQuantity(body);
      if (!read.ok) return { ok: false, why: read.problem.sentence };
      let { value } = read.value;
      if (read.value.unit !== null && read.value.unit !== MODE_UNITS[mode])
        return { ok: false, why: `${body} is not in ${UNIT_WORDS[MODE_UNITS[mode]]}.` };
      if (mode === 'cap' && value >= 1) return { ok: false, why: `${body} farads: say 470u, 22n or 100p.` };
      if (mode === 'ring' && !(Number.isInteger(value) && value >= 0))
        return { ok: false, why: `${body} cycles: a ring tester counts whole ones.` };
      if (mode === 'diode' && Math.abs(value) >= 5) value /= 1000;
      if (mode === 'diode' && Math.abs(value) > MOST_DIODE_VOLTS)
        return { ok: false, why: `${body} is no figure of a diode test.` };
      return { ok: true, seen: { kind: 'figure', value, ...(unsteady ? { unsteady } : {}) } };
    });
}

function placesWords(count: number): string {
  return count === 1 ? 'one figure is asked for' : `${count} points are shown`;
}

/** How a typed reading will be taken, shown before Enter. */
export function interpreted(typed: TypedReading, mode: UnpoweredMode): string {
  if (!typed.ok) return typed.why;
  const { seen } = typed;
  if (seen.kind === 'overload') return 'OL';
  if (seen.kind === 'agrees') return 'agrees';
  return `${seen.unsteady ? 'creeping, ' : ''}${figureWords(mode, seen.value, 4)}`;
}
