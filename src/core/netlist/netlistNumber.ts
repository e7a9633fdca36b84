const SUFFIXES: readonly (readonly [string, number])[] = [
  ['MEG', 6],
  ['T', 12],
  ['G', 9],
  ['K', 3],
  ['M', -3],
  ['U', -6],
  ['N', -9],
  ['P', -12],
  ['F', -15],
];

const MOST_CHARACTERS = 64;
const SHAPE = /^([+-]?(?:\d+\.?\d*|\.\d+))(?:e([+-]?\d+))?([a-zµΩ]*)$/iu;

/**
 * Reads a number of the board netlist: `10uF` is 10e-6, `2.2MEG` 2.2e6, `1M` is one milli, `400V` 400.
 *
 * Gives null when the text is not such a number. Letters after the suffix are ignored.
 * These suffixes live here alone; everywhere else `2M2` is 2.2 megohm.
 */
export function netlistNumber(text: string): number | null {
  // No number is that long, and a pattern must not be tried on everything.
  if (text.length > MOST_CHARACTERS) return null;
  const match = SHAPE.exec(text);
  if (!match) return null;
  const [, mantissa = '0', exponent = '0', letters = ''] = match;
  const upper = letters.toUpperCase().replace(/^[µ\u039c]/u, 'U');
  const suffix = SUFFIXES.find(([name]) => upper.startsWith(name));
  const value = Number(`${mantissa}e${Number(exponent) + (suffix?.[1] ?? 0)}`);
  return Number.isFinite(value) ? value : null;
}

/** Prints a number in the suffixes of the board netlist, exactly: `4.7k`, `180u`, `1MEG`. */
export function netlistText(value: number): string {
  if (value === 0) return '0';
  const magnitude = Math.abs(value);
  const ordered = [...SUFFIXES].sort((a, b) => b[1] - a[1]);
  if (magnitude >= 1 && magnitude < 1000) return String(value);
  for (const [name, exponent] of ordered) {
    const mantissa = Number(`${value}e${-exponent}`);
    if (Math.abs(mantissa) >= 1 && Math.abs(mantissa) < 1000) {
      const text = String(Number(mantissa.toPrecision(12)));
      if (Number(`${text}e${exponent}`) === value) return `${text}${name === 'MEG' ? name : name.toLowerCase()}`;
    }
  }
  return String(value);
}
