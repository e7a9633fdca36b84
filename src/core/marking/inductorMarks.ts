import { markReading, scaled } from './markReading';
import type { MarkReading, MarkSystem } from './markReading';
import { TOLERANCE_LETTERS } from './tables';

const henries = (system: string, weight: number, value: number, why: string, grade: string | undefined): MarkReading =>
  markReading('inductor', system, weight, why, {
    value,
    unit: 'H',
    tolerance: grade === undefined ? null : TOLERANCE_LETTERS[grade]!,
    convention: true,
  });

/** Three characters in µH: two figures and an exponent, or `R` for the point. */
const microhenries: MarkSystem = (mark) => {
  const [, figures, exponent, grade] = /^(\d\d)(\d)([KMN])?$/u.exec(mark) ?? [];
  if (figures !== undefined && figures !== '00')
    return [henries('uH code', 0.25, scaled(figures, Number(exponent) - 6), `${figures} x 10^${exponent} µH`, grade)];
  const [, whole = '', part = '', letter] = /^(\d{0,2})R(\d{0,2})([KMN])?$/u.exec(mark) ?? [];
  if (whole + part === '') return [];
  const value = `${whole || '0'}.${part || '0'}`;
  return [henries('uH code', 0.25, scaled(value, -6), `R stands for the point: ${value} µH`, letter)];
};

/** `N` for the point: nH. */
const nanohenries: MarkSystem = (mark) => {
  const [, whole = '', part = '', grade] = /^(\d{0,2})N(\d{0,2})([KMJ])?$/u.exec(mark) ?? [];
  if (whole + part === '' || whole.length + part.length > 3) return [];
  const value = `${whole || '0'}.${part || '0'}`;
  return [henries('nH code', 0.3, scaled(value, -9), `N stands for the point: ${value} nH`, grade)];
};

/** A figure with its unit. */
const printed: MarkSystem = (mark) => {
  const [, figure = '', prefix = ''] = /^(\d*[.,]?\d+)\s*([nuµm])H$/u.exec(mark) ?? [];
  if (figure === '') return [];
  const exponent = { n: -9, u: -6, µ: -6, m: -3 }[prefix as 'n' | 'u' | 'µ' | 'm'];
  const value = scaled(figure.replace(',', '.'), exponent);
  return [{ ...henries('printed value', 1, value, `${figure} ${prefix}H as printed`, undefined), convention: false }];
};

/** Readers of inductor markings but the colour bands. */
export const INDUCTOR_SYSTEMS: readonly MarkSystem[] = [microhenries, nanohenries, printed];
