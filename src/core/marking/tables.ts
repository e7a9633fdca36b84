/** Tables of the marking systems. Each says where it comes from; the readers look things up here. */

/** Tolerance letters as fractions. Source: IEC 60062:2016, clause 5. */
export const TOLERANCE_LETTERS: Readonly<Record<string, number>> = {
  B: 0.001,
  C: 0.0025,
  D: 0.005,
  F: 0.01,
  G: 0.02,
  H: 0.03,
  J: 0.05,
  K: 0.1,
  M: 0.2,
  N: 0.3,
};

/** Tolerance letters of capacitors below 10 pF, in picofarad. Source: IEC 60062:2016, clause 5. */
export const SMALL_CAPACITOR_PF: Readonly<Record<string, number>> = { B: 0.1, C: 0.25, D: 0.5 };

/** Multiplier letters of the two-digit E96 code, as powers of ten. Source: EIA-96. */
export const E96_MULTIPLIERS: Readonly<Record<string, number>> = {
  Z: -3,
  Y: -2,
  R: -2,
  X: -1,
  S: -1,
  A: 0,
  B: 1,
  H: 1,
  C: 2,
  D: 3,
  E: 4,
  F: 5,
};

/** Colours of the bands: figure, power of ten, tolerance, temperature coefficient in ppm/K. Source: IEC 60062:2016, table 1. */
export const BAND_COLOURS: Readonly<
  Record<
    string,
    { readonly figure?: number; readonly exponent?: number; readonly tolerance?: number; readonly ppm?: number }
  >
> = {
  black: { figure: 0, exponent: 0, ppm: 250 },
  brown: { figure: 1, exponent: 1, tolerance: 0.01, ppm: 100 },
  red: { figure: 2, exponent: 2, tolerance: 0.02, ppm: 50 },
  orange: { figure: 3, exponent: 3, ppm: 15 },
  yellow: { figure: 4, exponent: 4, ppm: 25 },
  green: { figure: 5, exponent: 5, tolerance: 0.005, ppm: 20 },
  blue: { figure: 6, exponent: 6, tolerance: 0.0025, ppm: 10 },
  violet: { figure: 7, exponent: 7, tolerance: 0.001, ppm: 5 },
  grey: { figure: 8, exponent: 8 },
  white: { figure: 9, exponent: 9 },
  gold: { exponent: -1, tolerance: 0.05 },
  silver: { exponent: -2, tolerance: 0.1 },
};

/** Other spellings of a colour. */
export const COLOUR_SPELLINGS: Readonly<Record<string, string>> = { purple: 'violet', gray: 'grey' };

/** Rated-voltage letters after the power of ten, volts. Source: EIA-198, as film and ceramic makers print it. */
export const VOLTAGE_LETTERS: Readonly<Record<string, number>> = {
  A: 1,
  B: 1.25,
  C: 1.6,
  D: 2,
  E: 2.5,
  F: 3.15,
  V: 3.5,
  G: 4,
  W: 4.5,
  H: 5,
  J: 6.3,
  K: 8,
};

/** Voltage letters of tantalum chips, volts. Source: EIA-535. */
export const TANTALUM_VOLTS: Readonly<Record<string, number>> = {
  G: 4,
  J: 6.3,
  A: 10,
  C: 16,
  D: 20,
  E: 25,
  V: 35,
  H: 50,
};

/** Figures of the two-character capacitor code. Source: EIA-198. */
export const TWO_CHARACTER_FIGURES: Readonly<Record<string, number>> = {
  A: 1.0,
  B: 1.1,
  C: 1.2,
  D: 1.3,
  E: 1.5,
  F: 1.6,
  G: 1.8,
  H: 2.0,
  J: 2.2,
  K: 2.4,
  L: 2.7,
  M: 3.0,
  N: 3.3,
  P: 3.6,
  Q: 3.9,
  R: 4.3,
  S: 4.7,
  T: 5.1,
  U: 5.6,
  V: 6.2,
  W: 6.8,
  X: 7.5,
  Y: 8.2,
  Z: 9.1,
};

/** Repetitive reverse volts by grade 1 to 7, as rectifier families are numbered by habit. */
export const RECTIFIER_GRADES = [50, 100, 200, 400, 600, 800, 1000] as const;
/** The same for the fast HER families, 1 to 8. */
export const HER_GRADES = [50, 100, 200, 300, 400, 600, 800, 1000] as const;
/** 1N5400 to 1N5408. Source: registered type numbers. */
export const N5400_VOLTS = [50, 100, 200, 300, 400, 500, 600, 800, 1000] as const;
/** Voltage letters of SMD rectifiers and bridges. */
export const RECTIFIER_LETTERS: Readonly<Record<string, number>> = {
  A: 50,
  B: 100,
  D: 200,
  G: 400,
  J: 600,
  K: 800,
  M: 1000,
};

/** Volts of a bridge by the figures after its current. */
export const BRIDGE_CODES: Readonly<Record<string, number>> = {
  '005': 50,
  '01': 100,
  '02': 200,
  '04': 400,
  '06': 600,
  '08': 800,
  '10': 1000,
};

/** Output volts that the three-terminal families are made for. */
export const REGULATOR_VOLTS = [5, 6, 8, 9, 10, 12, 15, 18, 20, 24] as const;
/** Current class of a three-terminal regulator by its letter, amperes. */
export const REGULATOR_AMPS: Readonly<Record<string, number>> = { '': 1, L: 0.1, M: 0.5 };
