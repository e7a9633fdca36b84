import { E_SERIES } from '../quantity';
import { markReading, scaled } from './markReading';
import type { MarkReading, MarkSystem } from './markReading';
import { E96_MULTIPLIERS, TOLERANCE_LETTERS } from './tables';

const ohms = (
  system: string,
  weight: number,
  value: number,
  why: string,
  tolerance: number | null = null,
): MarkReading => markReading('resistor', system, weight, why, { value, unit: 'ohm', tolerance });

/** All zeros: a link. */
const zeroOhm: MarkSystem = (mark) =>
  /^0+$/u.test(mark) ? [ohms('zero-ohm', 1, 0, 'nothing but zeros: a link of no resistance')] : [];

/** Two figures and an exponent, 5 % by convention. Source: IEC 60062. */
const threeDigits: MarkSystem = (mark) => {
  const [, figures, exponent] = /^([1-9]\d)(\d)$/u.exec(mark) ?? [];
  if (figures === undefined) return [];
  return [ohms('three-digit', 0.6, scaled(figures, Number(exponent)), `${figures} x 10^${exponent} ohm`, 0.05)];
};

/** Three figures and an exponent, 1 % by convention. Source: IEC 60062. */
const fourDigits: MarkSystem = (mark) => {
  const [, figures, exponent] = /^([1-9]\d\d)(\d)$/u.exec(mark) ?? [];
  if (figures === undefined) return [];
  return [ohms('four-digit', 0.6, scaled(figures, Number(exponent)), `${figures} x 10^${exponent} ohm`, 0.01)];
};

const POINT_EXPONENTS: Readonly<Record<string, number>> = { R: 0, r: 0, K: 3, k: 3, M: 6, G: 9, m: -3 };

/** A letter in place of the decimal point, a tolerance letter after it. Source: IEC 60062. */
const letterPoint: MarkSystem = (mark) => {
  const [, whole = '', letter = '', part = '', grade] = /^(\d*)([RrKkMGm])(\d*)([BCDFGHJKMN])?$/u.exec(mark) ?? [];
  const exponent = POINT_EXPONENTS[letter];
  if (exponent === undefined || whole + part === '') return [];
  const tolerance = grade === undefined ? null : TOLERANCE_LETTERS[grade]!;
  const figures = `${whole || '0'}.${part || '0'}`;
  const low = letter === 'm' || (whole === '' && part.startsWith('0'));
  const why = `${letter} stands for the point: ${figures} x 10^${exponent} ohm`;
  return [ohms(low ? 'low-ohm' : 'R/K/M', 0.9, scaled(figures, exponent), why, tolerance)];
};

/** Two digits number the E96 figure, a letter the multiplier, 1 %. Source: EIA-96. */
const eia96: MarkSystem = (mark) => {
  const [, place, letter = ''] = /^(\d\d)([A-Z])$/u.exec(mark) ?? [];
  const step = E_SERIES.E96[Number(place) - 1];
  const exponent = E96_MULTIPLIERS[letter];
  if (step === undefined || exponent === undefined) return [];
  const figures = Math.round(step * 100);
  return [
    ohms(
      'EIA-96',
      0.5,
      scaled(figures, exponent),
      `E96 figure ${place} is ${figures}, ${letter} is x 10^${exponent}`,
      0.01,
    ),
  ];
};

/** Readers of resistor markings but the colour bands. */
export const RESISTOR_SYSTEMS: readonly MarkSystem[] = [zeroOhm, threeDigits, fourDigits, letterPoint, eia96];
