import { ok, ownValue, refuse } from '../problem';
import type { Problem, Result } from '../problem';
import { PREFIX_SPELLINGS, UNIT_SPELLINGS } from './prefixes';
import type { Unit } from './prefixes';

export type UnreadableQuantity = Problem<'unreadable-quantity', { readonly text: string }>;

export interface ParsedQuantity {
  readonly value: number;
  /** The unit as written, or null when the figure stood alone. */
  readonly unit: Unit | null;
  /** How many significant figures were written. */
  readonly figures: number;
}

/** No figure written at a bench is that long, and a pattern must not be tried on everything. */
const MOST_CHARACTERS = 60;

const PLAIN =
  /^([+-]?)(\d+(?:[.,]\d*)?|[.,]\d+)(?:[eE]([+-]?\d+))?\s*([TGMkKRrmuU\u00b5\u03bcnNpPf]?)\s*([A-Za-z\u2126\u03a9]*)$/u;
const INFIX = /^([+-]?)(\d+)([TGMkKRrmuU\u00b5\u03bcnNpPfV])(\d+)\s*([A-Za-z\u2126\u03a9]*)$/u;

/**
 * Reads a figure as it is written at the bench: `4k7`, `2M2`, `3R3`, `0.47u`, `4.7 kΩ`, `470 µF`, `5V1`, `1e3`.
 *
 * text  may hold spaces, thin spaces and a decimal comma. `M` is mega and `m` is milli, always.
 * Gives the value in SI units, the unit if one was written, and the number of significant figures.
 * Refuses with `unreadable-quantity`.
 * Source: IEC 60062 for the letter in place of the point.
 */
export function parseQuantity(text: string): Result<ParsedQuantity, UnreadableQuantity> {
  if (text.length > MOST_CHARACTERS) return refuse(unreadable(`${text.slice(0, MOST_CHARACTERS)} …`));
  const clean = text.replace(/[\u2009\u202f\u00a0]/gu, ' ').trim();
  return parseInfix(clean) ?? parsePlain(clean) ?? refuse(unreadable(text));
}

function parseInfix(clean: string): Result<ParsedQuantity, never> | undefined {
  const match = INFIX.exec(clean);
  if (!match) return undefined;
  const [, sign = '', whole = '', letter = '', fraction = '', unitText = ''] = match;
  const factor = letter === 'V' ? 1 : ownValue(PREFIX_SPELLINGS, letter);
  const unit = letter === 'V' && unitText === '' ? 'V' : readUnit(unitText);
  if (factor === undefined || unit === undefined) return undefined;
  const value = scaled(`${sign}${whole}.${fraction}`, factor);
  if (!Number.isFinite(value)) return undefined;
  return ok({ value, unit, figures: significantFigures(`${whole}${fraction}`) });
}

function parsePlain(clean: string): Result<ParsedQuantity, never> | undefined {
  const match = PLAIN.exec(clean);
  if (!match) return undefined;
  const [, sign = '', digits = '', exponent = '', prefix = '', unitText = ''] = match;
  // A prefix letter may really be the first letter of the unit (`5 mohm` against `5 ohm`): longest unit wins.
  const whole = readUnit(prefix + unitText);
  const unit = whole ?? readUnit(unitText);
  const factor = whole !== undefined ? 1 : prefix === '' ? 1 : ownValue(PREFIX_SPELLINGS, prefix);
  if (factor === undefined || unit === undefined) return undefined;
  const mantissa = digits.replace(',', '.');
  const value = scaled(`${sign}${mantissa}e${exponent === '' ? '0' : exponent}`, factor);
  if (!Number.isFinite(value)) return undefined;
  return ok({ value, unit, figures: significantFigures(mantissa.replace('.', '')) });
}

function readUnit(text: string): Unit | null | undefined {
  if (text === '') return null;
  return ownValue(UNIT_SPELLINGS, text);
}

/** Multiplies by way of the decimal exponent, so that `4.7 k` is exactly 4700 and not 4700.000000000001. */
function scaled(mantissa: string, factor: number): number {
  const exponent = Math.round(Math.log10(factor));
  const [digits = '0', own = '0'] = mantissa.split('e');
  return Number(`${digits}e${Number(own) + exponent}`);
}

function significantFigures(digits: string): number {
  return Math.max(1, digits.replace(/^0+/u, '').length);
}

function unreadable(text: string): UnreadableQuantity {
  return {
    code: 'unreadable-quantity',
    sentence: `“${text}” is not a figure I can read.`,
    remedy: 'Write it like 4k7, 0.512, 470 µF or 2M2.',
    details: { text },
  };
}
