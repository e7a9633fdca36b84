import Papa from 'papaparse';
import type { Board } from '@/core/circuit';
import { readSweepTable } from '@/core/sweep';
import type { CellTable, SweepColumn, SweepReading } from '@/core/sweep';
import { readPartsTable } from '@/core/tables';
import type { PartsReading } from '@/core/tables';

/** A mark that no text holds: with it as the quote, quotes are characters like any other. */
const NO_QUOTE = '\u0001';

/**
 * Rows and cells of a table as text, CSV or pasted: parted by tabs, semicolons or commas, whichever the first line has,
 * in this order; quotes after RFC 4180. A quote that is never closed swallows nothing: then quotes stand for themselves.
 *
 * separator  what parts the cells, where that is known.
 */
export function readCells(given: string, separator?: string): CellTable {
  const text = given.replace(/^\uFEFF/u, '').replace(/\r\n?/gu, '\n');
  // What stands inside quotes parts nothing.
  const first = (text.slice(0, 2000).split('\n', 1)[0] ?? '').replace(/"[^"]*"/gu, '');
  const by = separator ?? (first.includes('\t') ? '\t' : first.includes(';') ? ';' : ',');
  const parse = (quoteChar: string): Papa.ParseResult<string[]> =>
    Papa.parse<string[]>(text, { delimiter: by, newline: '\n', quoteChar, escapeChar: quoteChar });
  const read = parse('"');
  const torn = read.errors.some((e) => e.type === 'Quotes');
  const rows = torn ? parse(NO_QUOTE).data : read.data;
  return { rows: rows.length > 0 ? rows : [['']], separator: by };
}

/** Reads rows of a sweep from text; see `readSweepTable`. */
export function readSweepText(text: string, setBy: SweepColumn): SweepReading {
  return readSweepTable(readCells(text), setBy);
}

/** The most rows of a parts list: more than any board has parts. */
const MOST_PARTS_ROWS = 5000;

/** Reads a parts list from text; see `readPartsTable`. */
export function readPartsText(text: string, board: Board): PartsReading {
  const { rows } = readCells(text);
  const read = readPartsTable(rows.slice(0, MOST_PARTS_ROWS + 1), board);
  if (rows.length <= MOST_PARTS_ROWS + 1) return read;
  const sentence = `More than ${MOST_PARTS_ROWS} rows: from here on nothing was taken.`;
  return { ...read, troubles: [...read.troubles, { row: MOST_PARTS_ROWS + 2, sentence }] };
}
