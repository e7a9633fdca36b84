import { withMark } from './decimalMark';
import { SI_PREFIXES } from './prefixes';
import type { Unit } from './prefixes';

const THIN_SPACE = '\u2009';

/** The printed sign of each unit. */
export const UNIT_SIGNS: Readonly<Record<Unit, string>> = {
  ohm: 'Ω',
  V: 'V',
  A: 'A',
  F: 'F',
  H: 'H',
  W: 'W',
  Hz: 'Hz',
  s: 's',
  J: 'J',
  C: 'C',
  cycles: 'cycles',
  '1': '',
};

/**
 * Splits a value into figure, prefix and unit sign, so that a table can align them in columns.
 *
 * figures  significant figures, trailing zeros dropped unless `keepZeros`.
 */
export function engineeringParts(
  value: number,
  unit: Unit,
  figures = 3,
  keepZeros = false,
): { readonly figure: string; readonly unit: string } {
  const sign = UNIT_SIGNS[unit];
  if (value === 0) return { figure: '0', unit: sign };
  const rounded = Number(value.toPrecision(figures));
  const prefix =
    unit === '1' || unit === 'cycles'
      ? SI_PREFIXES[4]
      : (SI_PREFIXES.find((p) => Math.abs(rounded) >= p.factor * (1 - 1e-12)) ?? SI_PREFIXES[SI_PREFIXES.length - 1]!);
  const scaledValue = Number((rounded / prefix.factor).toPrecision(figures));
  const whole = Math.floor(Math.log10(Math.abs(scaledValue))) + 1;
  const decimals = Math.max(0, Math.min(12, figures - whole));
  const fixed = scaledValue.toFixed(decimals);
  const figure = keepZeros || decimals === 0 ? fixed : fixed.replace(/\.?0+$/u, '');
  return { figure: withMark(figure), unit: `${prefix.symbol}${sign}` };
}

/** Prints a value in engineering notation with a thin space: `4.7 kΩ`, `325 V`, `470 µF`. */
export function formatQuantity(value: number, unit: Unit, figures = 3): string {
  const parts = engineeringParts(value, unit, figures);
  return parts.unit === '' ? parts.figure : `${parts.figure}${THIN_SPACE}${parts.unit}`;
}

/** Prints a meter's volts the way its display does: three decimals below 10 V (`0.512 V`), else three figures. */
export function formatVolts(volts: number): string {
  if (Math.abs(volts) < 9.9995) return `${withMark(volts.toFixed(3))}${THIN_SPACE}V`;
  return formatQuantity(volts, 'V');
}

/** A figure without its unit, as a person would type it: `470u`, `2.2k`, `2,2k`; read back by `parseQuantity`. */
export function benchText(value: number): string {
  if (value === 0) return '0';
  const { figure, unit } = engineeringParts(value, 'V', 4);
  return `${figure}${unit.replace('V', '').replace('µ', 'u')}`;
}
