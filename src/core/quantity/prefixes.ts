/** SI prefixes read and written at the bench. Source: BIPM, The International System of Units, 9th ed., table 7. */
export const SI_PREFIXES = [
  { symbol: 'T', factor: 1e12 },
  { symbol: 'G', factor: 1e9 },
  { symbol: 'M', factor: 1e6 },
  { symbol: 'k', factor: 1e3 },
  { symbol: '', factor: 1 },
  { symbol: 'm', factor: 1e-3 },
  { symbol: 'µ', factor: 1e-6 },
  { symbol: 'n', factor: 1e-9 },
  { symbol: 'p', factor: 1e-12 },
  { symbol: 'f', factor: 1e-15 },
] as const;

/** Every spelling of a prefix that is accepted on input, with its factor. `R` stands where the point would be. */
export const PREFIX_SPELLINGS: Readonly<Record<string, number>> = {
  T: 1e12,
  G: 1e9,
  M: 1e6,
  k: 1e3,
  K: 1e3,
  R: 1,
  r: 1,
  m: 1e-3,
  u: 1e-6,
  U: 1e-6,
  '\u00b5': 1e-6,
  '\u03bc': 1e-6,
  n: 1e-9,
  N: 1e-9,
  p: 1e-12,
  P: 1e-12,
  f: 1e-15,
};

/** Unit spellings accepted after a figure, and the unit each means. */
export const UNIT_SPELLINGS: Readonly<Record<string, Unit>> = {
  '\u2126': 'ohm',
  '\u03a9': 'ohm',
  ohm: 'ohm',
  ohms: 'ohm',
  Ohm: 'ohm',
  V: 'V',
  v: 'V',
  volt: 'V',
  volts: 'V',
  A: 'A',
  a: 'A',
  F: 'F',
  H: 'H',
  W: 'W',
  w: 'W',
  Hz: 'Hz',
  hz: 'Hz',
  s: 's',
  J: 'J',
  C: 'C',
};

/** Units the core speaks in, all SI. `ohm` is printed as the omega sign. */
export type Unit = 'ohm' | 'V' | 'A' | 'F' | 'H' | 'W' | 'Hz' | 's' | 'J' | 'C' | 'cycles' | '1';
