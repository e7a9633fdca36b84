import { markReading, scaled } from './markReading';
import type { MarkReading, MarkSystem } from './markReading';
import { BAND_COLOURS, COLOUR_SPELLINGS } from './tables';

/** Figures, multiplier, tolerance and tempco of bands read from one end, or null where that makes no sense. */
function fromOneEnd(
  colours: readonly string[],
): { readonly value: string; readonly exponent: number; readonly tolerance: number; readonly ppm?: number } | null {
  const count = colours.length >= 5 ? 3 : 2;
  const figures = colours.slice(0, count).map((c) => BAND_COLOURS[c]!.figure);
  const exponent = BAND_COLOURS[colours[count]!]!.exponent;
  const grade = colours[count + 1];
  const tolerance = grade === undefined ? 0.2 : BAND_COLOURS[grade]!.tolerance;
  if (figures.includes(undefined) || figures[0] === 0 || exponent === undefined || tolerance === undefined) return null;
  const read = { value: figures.join(''), exponent, tolerance };
  const last = colours[count + 2];
  if (last === undefined) return read;
  const { ppm } = BAND_COLOURS[last]!;
  return ppm === undefined ? null : { ...read, ppm };
}

/**
 * Colour bands of resistors and inductors, three to six, from either end; one black band is a link.
 * An inductor's unit is the microhenry. Source: IEC 60062:2016, clause 3.
 */
export const colourBands: MarkSystem = (mark) => {
  const words = mark
    .toLowerCase()
    .split(/[\s,;/-]+/u)
    .filter((w) => w !== '' && w !== 'band' && w !== 'bands');
  const colours = words.map((w) => COLOUR_SPELLINGS[w] ?? w);
  if (colours.length === 0 || colours.some((c) => !(c in BAND_COLOURS))) return [];
  if (colours.join() === 'black')
    return [markReading('resistor', 'colour bands', 1, 'one black band: a link', { value: 0, unit: 'ohm' })];
  if (colours.length < 3 || colours.length > 6) return [];
  const out: MarkReading[] = [];
  for (const [from, list, weight] of [
    ['left to right', colours, 1],
    ['right to left', [...colours].reverse(), 0.4],
  ] as const) {
    const read = fromOneEnd(list);
    if (!read) continue;
    const { value, exponent, tolerance, ppm } = read;
    const why = `${from}: ${value} x 10^${exponent}, ${tolerance * 100} %`;
    const common = { tolerance, ...(ppm === undefined ? {} : { tempcoPpm: ppm }) };
    out.push(
      markReading('resistor', 'colour bands', weight, `${why} ohm`, {
        value: scaled(value, exponent),
        unit: 'ohm',
        ...common,
      }),
    );
    if (colours.length > 5) continue;
    out.push(
      markReading('inductor', 'colour bands', weight * 0.2, `${why} µH`, {
        value: scaled(value, exponent - 6),
        unit: 'H',
        ...common,
      }),
    );
  }
  return out;
};
