import { csvCell } from '../csv';
import { parseQuantity } from '../quantity';
import { COLUMN_KEYS, DERIVED_COLUMNS, DERIVED_KEYS, EMPTY_ROW, SWEEP_COLUMNS, deriveRow, lightestRow } from './sweep';
import type { SweepColumn, SweepRow } from './sweep';

/** A row that could not be taken: its line, what is wrong, and its text as it was. */
export interface SweepTrouble {
  readonly line: number;
  readonly sentence: string;
  readonly text: string;
}

/** The cells of a table, row by row, and what parted them where they came from. */
export interface CellTable {
  readonly rows: readonly (readonly string[])[];
  readonly separator: string;
}

export interface SweepReading {
  readonly rows: readonly SweepRow[];
  readonly troubles: readonly SweepTrouble[];
}

/** The most rows of one sweep. */
export const MOST_ROWS = 20_000;

/** Other names that a column's heading may have, besides its key and its words; letters and digits only. */
const HEADINGS: Readonly<Record<SweepColumn | 'note', readonly string[]>> = {
  vin: ['inputv', 'vinput', 'in', 'inputvolt', 'involts', 'supplyvolts'],
  iin: ['inputa', 'iinput', 'inputamp', 'inamps', 'supplyamps'],
  vout: ['outputv', 'voutput', 'out', 'outputvolt', 'outvolts', 'volts', 'v'],
  iout: ['outputa', 'ioutput', 'outputamp', 'outamps', 'load', 'loada', 'loadamps', 'amps', 'a'],
  hertz: ['hz', 'f', 'freq', 'outputhz'],
  celsius: ['temperature', 'temp', 'c', 'degc', 'tempc'],
  note: ['notes', 'remark', 'words'],
};

/**
 * Reads rows of a sweep from the cells of a table: figures with a decimal comma, bench figures such as `5V1` or `20m`.
 *
 * A first row that names columns puts them in their order; without one two columns are what is set and output volts,
 * more are input volts, input amps, output volts, output amps, frequency, temperature, note.
 * Rows that cannot be read are named, with their text; the others are kept. Derived columns are computed, not read.
 */
export function readSweepTable({ rows, separator }: CellTable, setBy: SweepColumn): SweepReading {
  const [head = [], ...rest] = rows;
  const named = head.some((c) => c.trim() !== '' && cellValue(c, 'vin') === undefined && columnOf(c) !== null);
  const troubles: SweepTrouble[] = [];
  const columns: readonly (SweepColumn | 'note' | 'skip')[] = named
    ? head.map((c) => {
        const column = columnOf(c);
        if (column === null && c.trim() !== '')
          troubles.push({ line: 1, sentence: `“${c.trim()}” is no column of a sweep; it is left out.`, text: '' });
        return column ?? 'skip';
      })
    : unnamed(head.length, setBy);
  const taken: SweepRow[] = [];
  (named ? rest : rows).forEach((cells, i) => {
    if (cells.every((c) => c.trim() === '')) return;
    const line = i + (named ? 2 : 1);
    if (taken.length >= MOST_ROWS) {
      if (taken.length === MOST_ROWS && troubles.at(-1)?.sentence.startsWith('More than') !== true)
        troubles.push({ line, sentence: `More than ${MOST_ROWS} rows: from here on nothing was taken.`, text: '' });
      return;
    }
    const read = readRow(cells, columns);
    if (typeof read === 'string') troubles.push({ line, sentence: read, text: cells.join(separator) });
    else taken.push(read);
  });
  return { rows: taken, troubles };
}

function unnamed(count: number, setBy: SweepColumn): readonly (SweepColumn | 'note')[] {
  return count === 2 ? [setBy, setBy === 'vout' ? 'iout' : 'vout'] : [...COLUMN_KEYS, 'note'];
}

function readRow(cells: readonly string[], columns: readonly (SweepColumn | 'note' | 'skip')[]): SweepRow | string {
  const row: { -readonly [K in keyof SweepRow]: SweepRow[K] } = { ...EMPTY_ROW };
  let figures = 0;
  for (let i = 0; i < cells.length; i++) {
    const column = columns[i];
    const cell = cells[i]!.trim();
    if (column === undefined) {
      if (cell !== '') return `There are ${cells.length} cells for ${columns.length} columns.`;
    } else if (column === 'note') row.note = cell.slice(0, 200);
    else if (column !== 'skip') {
      const value = cellValue(cell, column);
      if (value === undefined) return `“${cell.slice(0, 40)}” is no figure for ${SWEEP_COLUMNS[column].words}.`;
      row[column] = value;
      if (value !== null) figures++;
    }
  }
  return figures > 0 ? row : 'There is no figure in this row.';
}

/** A cell's figure; null for an empty one, undefined for what is none or of another unit. */
export function cellValue(text: string, column: SweepColumn): number | null | undefined {
  const cell = text.trim();
  if (cell === '' || cell === '-') return null;
  const plain = Number(cell);
  if (Number.isFinite(plain)) return plain;
  const read = parseQuantity(cell.replace(/\s*°\s*C$/u, ''));
  if (!read.ok || !Number.isFinite(read.value.value)) return undefined;
  const { unit } = SWEEP_COLUMNS[column];
  return read.value.unit === null || read.value.unit === unit ? read.value.value : undefined;
}

const plainName = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[([].*[)\]]/gu, '')
    .replace(/[^a-z0-9]/gu, '');

const DERIVED_NAMES = new Set(DERIVED_KEYS.flatMap((k) => [k.toLowerCase(), plainName(DERIVED_COLUMNS[k].words)]));

/** The column that a heading names; null for none that we know. */
function columnOf(heading: string): SweepColumn | 'note' | 'skip' | null {
  const name = plainName(heading);
  if (DERIVED_NAMES.has(name)) return 'skip';
  for (const key of [...COLUMN_KEYS, 'note'] as const) {
    const words = key === 'note' ? 'note' : plainName(SWEEP_COLUMNS[key].words.split(',')[0]!);
    if (name === key || name === words || HEADINGS[key].includes(name)) return key;
  }
  return null;
}

/** The rows as CSV with their headings; `derived`: the computed columns as well. Figures in SI units. */
export function writeSweepCsv(rows: readonly SweepRow[], derived = true): string {
  const light = derived ? lightestRow(rows) : null;
  const head = [...COLUMN_KEYS.map((k) => SWEEP_COLUMNS[k].words.split(',')[0]!), 'note'];
  if (derived) head.push(...DERIVED_KEYS.map((k) => DERIVED_COLUMNS[k].words));
  const figure = (value: number | null): string => (value === null ? '' : String(Number(value.toPrecision(7))));
  const lines = rows.map((row) => {
    const cells = [...COLUMN_KEYS.map((k) => figure(row[k])), csvCell(row.note)];
    if (!derived) return cells.join(',');
    const more = deriveRow(row, light);
    return [...cells, ...DERIVED_KEYS.map((k) => figure(more[k]))].join(',');
  });
  return `${[head.join(','), ...lines].join('\n')}\n`;
}

/**
 * At most `most` rows that show the same picture: in each stretch the lowest and the highest of a column, with the
 * first and the last row. Rows without the column are left out.
 */
export function thinRows(rows: readonly SweepRow[], column: SweepColumn, most: number): readonly SweepRow[] {
  const shown = rows.filter((r) => r[column] !== null);
  if (shown.length <= most) return shown;
  const stretch = Math.ceil(shown.length / Math.max(1, Math.floor((most - 2) / 2)));
  const kept = new Set([0, shown.length - 1]);
  for (let from = 0; from < shown.length; from += stretch) {
    let [low, high] = [from, from];
    for (let i = from; i < Math.min(shown.length, from + stretch); i++) {
      if (shown[i]![column]! < shown[low]![column]!) low = i;
      if (shown[i]![column]! > shown[high]![column]!) high = i;
    }
    kept.add(low).add(high);
  }
  return [...kept].sort((a, b) => a - b).map((i) => shown[i]!);
}
