import { markReading, scaled } from './markReading';
import type { MarkReading, MarkSystem } from './markReading';

/** Inrush limiters: cold ohm, `D`, diameter. */
const ntc: MarkSystem = (mark) => {
  const [, ohms, mm] = /^(?:NTC\s*)?(\d+(?:\.\d+)?)D-(\d+)$/u.exec(mark) ?? [];
  if (ohms === undefined) return [];
  const why = `${ohms} ohm at 25 °C, disc of ${mm} mm`;
  return [
    markReading('ntc', '<ohm>D-<mm>', 1, why, {
      value: Number(ohms),
      unit: 'ohm',
      diameterMm: Number(mm),
      convention: true,
    }),
  ];
};

/** Varistors: diameter, `D`, two figures and an exponent of the volts at 1 mA. */
const mov: MarkSystem = (mark) => {
  const [, mm, figures, exponent, grade] = /^(?:MOV\s*)?(\d{2})D(\d\d)(\d)(K)?$/u.exec(mark) ?? [];
  if (figures === undefined) return [];
  const value = scaled(figures, Number(exponent));
  const why = `${value} V at 1 mA, disc of ${mm} mm`;
  const tolerance = grade === undefined ? null : 0.1;
  return [
    markReading('mov', '<mm>D<code>', 1, why, {
      value,
      unit: 'V',
      tolerance,
      diameterMm: Number(mm),
      convention: true,
    }),
  ];
};

/** From this figure on a fuse without a unit is marked in milliamperes. */
const MILLIAMPERES_FROM = 32;

/** Fuses: speed, rating, breaking capacity, volts. Source: IEC 60127-1, clause 6. */
const fuse: MarkSystem = (mark) => {
  const match = /^(FF|TT|F|M|T)?\s*(\d+(?:\.\d+)?)\s*(MA|A)?\s*([LEH])?\s*(?:(\d+)\s*V(?:AC)?~?)?$/u.exec(
    mark.replace(',', '.'),
  );
  if (!match) return [];
  const [, speed, figure = '', unit, breaking, volts] = match;
  if (speed === undefined && unit !== 'A' && unit !== 'MA') return [];
  const milli = unit === 'MA' || (unit === undefined && Number(figure) >= MILLIAMPERES_FROM);
  const amps = scaled(figure, milli ? -3 : 0);
  const why = `${speed ?? 'no speed'}, ${figure} ${milli ? 'mA' : 'A'}${volts === undefined ? '' : `, ${volts} V`}`;
  const weight = volts !== undefined ? 1 : unit !== undefined ? 0.45 : 0.1;
  const more: Partial<MarkReading> = {
    ...(speed === undefined ? {} : { speed: speed as NonNullable<MarkReading['speed']> }),
    ...(breaking === undefined ? {} : { breaking: breaking as NonNullable<MarkReading['breaking']> }),
  };
  const voltage = volts === undefined ? null : Number(volts);
  return [markReading('fuse', 'fuse text', weight, why, { value: amps, unit: 'A', voltage, current: amps, ...more })];
};

/** Readers of what protects: they get the marking in capitals. */
export const PROTECTION_SYSTEMS: readonly MarkSystem[] = [ntc, mov, fuse];
