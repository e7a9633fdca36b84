import type { Unit } from '../quantity';

/** Columns that a technician fills in; `set` is what was set, in the unit of the column that the sweep says. */
export const SWEEP_COLUMNS = {
  vin: { words: 'input volts', unit: 'V' },
  iin: { words: 'input amps', unit: 'A' },
  vout: { words: 'output volts', unit: 'V' },
  iout: { words: 'output amps', unit: 'A' },
  hertz: { words: 'frequency', unit: 'Hz' },
  celsius: { words: 'temperature, °C', unit: '1' },
} as const satisfies Readonly<Record<string, { readonly words: string; readonly unit: Unit }>>;
export type SweepColumn = keyof typeof SWEEP_COLUMNS;
export const COLUMN_KEYS = Object.keys(SWEEP_COLUMNS) as readonly SweepColumn[];

/** One row: what was set and read; null where nothing was. */
export interface SweepRow extends Readonly<Record<SweepColumn, number | null>> {
  readonly note: string;
}

/**
 * What a sweep is for.
 *
 * setBy       the column that is set step by step.
 * claimed     the figure that is claimed, and how far off it may be (fraction).
 * sagLimit    how much the output may sag, fraction of its highest.
 * efficiency  the efficiency that the sum gives, 0..1; null where none was worked out.
 */
export interface SweepSetup {
  readonly title: string;
  readonly setBy: SweepColumn;
  readonly claimed: { readonly column: SweepColumn; readonly value: number; readonly tolerance: number } | null;
  readonly sagLimit: number;
  readonly efficiency: number | null;
}

/** What follows from a row and the sweep's unloaded output; null where something is missing. */
export interface DerivedRow {
  readonly pin: number | null;
  readonly pout: number | null;
  readonly efficiency: number | null;
  readonly regulation: number | null;
  readonly sourceR: number | null;
  readonly ratio: number | null;
}

export const DERIVED_COLUMNS = {
  pin: { words: 'input power', unit: 'W' },
  pout: { words: 'output power', unit: 'W' },
  efficiency: { words: 'efficiency', unit: '1' },
  regulation: { words: 'regulation', unit: '1' },
  sourceR: { words: 'source resistance', unit: 'ohm' },
  ratio: { words: 'volts ratio', unit: '1' },
} as const satisfies Readonly<Record<keyof DerivedRow, { readonly words: string; readonly unit: Unit }>>;
export const DERIVED_KEYS = Object.keys(DERIVED_COLUMNS) as readonly (keyof DerivedRow)[];

/** A row with nothing in it yet. */
export const EMPTY_ROW: SweepRow = {
  vin: null,
  iin: null,
  vout: null,
  iout: null,
  hertz: null,
  celsius: null,
  note: '',
};

/**
 * The row that the others are held against: the one of least output current with a voltage, else the first with one.
 * Null where no output voltage was read.
 */
export function lightestRow(rows: readonly SweepRow[]): SweepRow | null {
  let best: SweepRow | null = null;
  for (const row of rows) {
    if (row.vout === null) continue;
    if (!best || (row.iout !== null && (best.iout === null || row.iout < best.iout))) best = row;
  }
  return best;
}

/**
 * Derived figures of one row: powers, efficiency, regulation and source resistance against the lightest row, volts
 * ratio. Source: definitions; regulation = vout / vout(light) - 1, source resistance = -Δvout/Δiout.
 */
export function deriveRow(row: SweepRow, light: SweepRow | null): DerivedRow {
  const pin = product(row.vin, row.iin);
  const pout = product(row.vout, row.iout);
  const more = row.iout !== null && light?.iout != null ? row.iout - light.iout : null;
  const drop = row.vout !== null && light?.vout != null ? light.vout - row.vout : null;
  return {
    pin,
    pout,
    efficiency: pin !== null && pin > 0 && pout !== null ? pout / pin : null,
    regulation: drop !== null && light!.vout !== 0 ? -drop / light!.vout! : null,
    sourceR: drop !== null && more !== null && more > 0 ? drop / more : null,
    ratio: row.vin !== null && row.vin !== 0 && row.vout !== null ? row.vout / row.vin : null,
  };
}

function product(a: number | null, b: number | null): number | null {
  return a === null || b === null ? null : a * b;
}
