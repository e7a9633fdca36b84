import { markReading, scaled } from './markReading';
import type { MarkReading, MarkSystem } from './markReading';
import {
  SMALL_CAPACITOR_PF,
  TANTALUM_VOLTS,
  TOLERANCE_LETTERS,
  TWO_CHARACTER_FIGURES,
  VOLTAGE_LETTERS,
} from './tables';

type More = Partial<Pick<MarkReading, 'voltage' | 'safetyClass' | 'convention'>>;

/** A capacitor reading with its tolerance letter worked out for its size. */
function farads(
  system: string,
  weight: number,
  value: number,
  why: string,
  grade: string | undefined,
  more: More = {},
) {
  return markReading('capacitor', system, weight, why, { value, unit: 'F', ...gradeOf(value, grade), ...more });
}

function gradeOf(value: number, grade: string | undefined): Partial<MarkReading> {
  if (grade === undefined || grade === '') return {};
  if (grade === 'Z') return { toleranceBand: [-0.2, 0.8] };
  const small = SMALL_CAPACITOR_PF[grade];
  if (small !== undefined && value < 10e-12) return { tolerance: (small * 1e-12) / value };
  return { tolerance: TOLERANCE_LETTERS[grade] ?? null };
}

/** Two figures and an exponent in picofarad; 9 is a tenth, 8 a hundredth. Null where it is no such code. */
function picofarads(code: string): { readonly value: number; readonly why: string } | null {
  const [, figures, digit] = /^(\d\d)(\d)$/u.exec(code) ?? [];
  if (figures === undefined || figures === '00') return null;
  const exponent = digit === '9' ? -1 : digit === '8' ? -2 : Number(digit);
  return { value: scaled(figures, exponent - 12), why: `${figures} x 10^${exponent} pF` };
}

/** The three-digit code with a tolerance letter, or `R` as the point. Source: IEC 60062. */
const codes: MarkSystem = (mark) => {
  const [, code = '', grade] = /^(\d{3})([BCDFGHJKMNZ])?$/u.exec(mark) ?? [];
  const read = picofarads(code);
  if (read) {
    const odd = grade !== undefined && grade in SMALL_CAPACITOR_PF && read.value >= 10e-12;
    const weight = (grade === undefined ? 0.4 : 0.7) * (odd ? 0.2 : 1) * (read.value > 1e-5 ? 0.5 : 1);
    return [farads('three-digit pF code', weight, read.value, read.why, grade)];
  }
  const [, whole = '', part = '', letter] = /^(\d?)R(\d{1,2})([BCDFGJKM])?$/u.exec(mark) ?? [];
  if (part === '') return [];
  const value = scaled(`${whole || '0'}.${part}`, -12);
  const weight = letter === undefined ? 0.15 : 0.4;
  return [
    farads('R as decimal point, pF', weight, value, `R stands for the point: ${whole || '0'}.${part} pF`, letter),
  ];
};

/** Digit and letter of the rated voltage before the code. Source: EIA-198, by habit of film and ceramic makers. */
const voltagePrefix: MarkSystem = (mark) => {
  const [, decade = '', letter = '', code = '', grade] = /^([0-4])([A-Z])(\d{3})([BCDFGHJKMNZ])?$/u.exec(mark) ?? [];
  const read = picofarads(code);
  const factor = VOLTAGE_LETTERS[letter];
  if (!read || factor === undefined) return [];
  const voltage = scaled(factor, Number(decade));
  const why = `${decade}${letter} is 10^${decade} x ${factor} V; ${read.why}`;
  return [farads('voltage-prefix pF code', 0.9, read.value, why, grade, { voltage, convention: true })];
};

const PREFIXES: Readonly<Record<string, number>> = { p: -12, n: -9, u: -6, U: -6, µ: -6 };

/** A prefix in place of the point. Source: IEC 60062. */
const letterPoint: MarkSystem = (mark) => {
  const [, whole = '', prefix = '', part = '', grade] = /^(\d*)([pnuUµ])(\d*)([BCDFGHJKMNZ])?$/u.exec(mark) ?? [];
  const exponent = PREFIXES[prefix];
  if (exponent === undefined || whole + part === '') return [];
  const value = scaled(`${whole || '0'}.${part || '0'}`, exponent);
  return [
    farads('p/n/u notation', 0.9, value, `${prefix} stands for the point: ${whole || '0'}.${part || '0'}`, grade),
  ];
};

const UNITS: Readonly<Record<string, number>> = { UF: -6, MFD: -6, MF: -6, NF: -9, PF: -12, F: 0 };

/** A figure with or without a unit, as farads: a whole number of three digits is µF on a can when it ends in 0, else the code. */
function printedFarads(figure: string, unit: string): { readonly value: number; readonly why: string } | null {
  if (unit !== '')
    return { value: scaled(figure, UNITS[unit]!), why: `${figure} ${unit.replace('U', 'µ')} as printed` };
  const code = /^\d{3}$/u.test(figure) && !figure.endsWith('0') ? picofarads(figure) : null;
  if (code) return code;
  return { value: scaled(figure, -6), why: `${figure} without a unit on a can is µF` };
}

/** What is printed in full: figure, unit, tolerance, volts, in that order; a temperature behind it is left alone. */
const printed: MarkSystem = (mark) => {
  const text = mark
    .toUpperCase()
    .replace(/[µΜ]/gu, 'U')
    .replace(/,/gu, '.')
    .replace(/\s+\d{2,3}°?C$/u, '');
  const match =
    /^(\d*\.?\d+)(?:\s*(UF|MFD|MF|NF|PF))?(?:\s*([JKMZ]))?([\s/]*)(?:(\d*\.?\d+)\s*(KV|V)?(?:DC|AC|~|=)?)?$/u.exec(
      text,
    );
  if (!match) return [];
  const [, figure = '', unit = '', grade, gap = '', volts, kilo] = match;
  // Without a unit something must stand between figure and volts, and one of them must say what it is.
  const apart = grade !== undefined || gap !== '';
  const said = unit !== '' || (volts !== undefined && apart && (kilo !== undefined || figure.startsWith('.')));
  const read = said ? printedFarads(figure, unit) : null;
  if (!read) return [];
  const voltage = volts === undefined ? null : scaled(volts, kilo === 'KV' ? 3 : 0);
  return [farads('printed value', 1, read.value, read.why, grade, { voltage })];
};

/** Tantalum chips: a voltage letter before or after the code. Source: EIA-535. */
const tantalum: MarkSystem = (mark) => {
  const match = /^(\d{3})([A-Z])$/u.exec(mark) ?? /^([A-Z])(\d{3})$/u.exec(mark);
  if (!match) return [];
  const [code, letter] = /\d/u.test(match[1]![0]!) ? [match[1]!, match[2]!] : [match[2]!, match[1]!];
  const read = picofarads(code);
  const voltage = TANTALUM_VOLTS[letter];
  // Tantalum chips begin at a tenth of a microfarad.
  if (!read || voltage === undefined || read.value < 0.99e-7) return [];
  const why = `${read.why}; ${letter} is ${voltage} V on a tantalum chip`;
  return [farads('pF code with voltage', 0.65, read.value, why, undefined, { voltage, convention: true })];
};

/** Class, value, tolerance letter and volts a.c. in any order. Source: IEC 60384-14. */
const safety: MarkSystem = (mark) => {
  const tokens = mark
    .toUpperCase()
    .replace(/[µΜ]/gu, 'U')
    .replace(/,/gu, '.')
    .split(/[\s/]+/u);
  const at = tokens.findIndex((t) => /^[XY][12]$/u.test(t));
  if (at < 0) return [];
  let read: { readonly value: number; readonly why: string } | null = null;
  let grade: string | undefined;
  let voltage: number | null = null;
  for (const token of tokens) {
    const volts = /^(\d+)(?:V?AC|V?~|V)$/u.exec(token)?.[1];
    const value = /^(\d*\.?\d+)(UF|NF|PF)([JKM])?$/u.exec(token);
    const code = /^(\d{3})([JKMZ])?$/u.exec(token);
    if (volts !== undefined) voltage = Number(volts);
    else if (/^[JKM]$/u.test(token)) grade = token;
    else if (value) [read, grade] = [printedFarads(value[1]!, value[2]!), value[3] ?? grade];
    else if (code) [read, grade] = [picofarads(code[1]!), code[2] ?? grade];
  }
  if (!read) return [];
  const safetyClass = tokens[at] as NonNullable<MarkReading['safetyClass']>;
  const why = `class ${safetyClass}, volts are a.c.; ${read.why}`;
  return [farads('safety class text', 1.2, read.value, why, grade, { voltage, safetyClass })];
};

/** One letter and a digit on a chip. Source: EIA-198. */
const twoCharacters: MarkSystem = (mark) => {
  const [, letter = '', digit] = /^([A-Z])(\d)$/u.exec(mark) ?? [];
  const figures = TWO_CHARACTER_FIGURES[letter];
  if (figures === undefined) return [];
  const exponent = digit === '9' ? -1 : Number(digit);
  const why = `${letter} is ${figures}, x 10^${exponent} pF`;
  return [farads('two-character code', exponent > 7 ? 0.05 : 0.25, scaled(figures, exponent - 12), why, undefined)];
};

/** Readers of capacitor markings. */
export const CAPACITOR_SYSTEMS: readonly MarkSystem[] = [
  codes,
  voltagePrefix,
  letterPoint,
  printed,
  tantalum,
  safety,
  twoCharacters,
];
