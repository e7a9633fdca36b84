import { csvCell } from '../csv';
import { findPart, netKey, pinNames } from '../circuit';
import { partText, PART_FIGURES, partFigure } from '../part';
import type { Board } from '../circuit';
import type { Part } from '../part';
import { netlistText } from '../netlist';
import { pinsOnNet } from '../circuit';
import { readShorthand } from '../trace';

/** The ratings that a row carries, in the order of the header. */
const RATINGS = ['ratedVolts', 'ratedAmps', 'ratedWatts'] as const;
const HEADER = 'ref,kind,value,mark,fitted,basis,vr,ir,pr,nets';

function valueOf(part: Part): string {
  return 'value' in part ? netlistText(part.value) : '';
}

/** The parts list as CSV: one part a line, values in SI with the netlist's suffixes, nets with spaces between. */
export function partsCsv(board: Board): string {
  const rows = board.parts.map((p) =>
    [
      p.ref,
      p.kind,
      valueOf(p),
      partText(p, 'mark') ?? '',
      p.fitted ? 'yes' : 'no',
      p.basis,
      ...RATINGS.map((figure) => String(partFigure(p, figure) ?? '')),
      p.nets.join(' '),
    ]
      .map(csvCell)
      .join(','),
  );
  return `${[HEADER, ...rows].join('\n')}\n`;
}

/** The pins as CSV: part, pin, net. */
export function pinsCsv(board: Board): string {
  const rows = board.parts.flatMap((p) =>
    pinNames(p).map((name, i) => [p.ref, name, p.nets[i]!].map(csvCell).join(',')),
  );
  return `${['ref,pin,net', ...rows].join('\n')}\n`;
}

/** The nets as CSV: net, how many pins, the pins. */
export function netsCsv(board: Board): string {
  const nets = [...new Map(board.parts.flatMap((p) => p.nets.map((n) => [netKey(n), n] as const))).values()];
  const rows = nets
    .filter((n) => netKey(n) !== 'nc')
    .map((n) => {
      const pins = pinsOnNet(board, n).map(({ part, pin }) => `${part.ref}.${pinNames(part)[pin]!}`);
      return [n, String(pins.length), pins.join(' ')].map(csvCell).join(',');
    });
  return `${['net,count,pins', ...rows].join('\n')}\n`;
}

/** What a parts list says about a board, as lines of the shorthand; rows that cannot be used are named. */
export interface PartsReading {
  readonly lines: readonly string[];
  readonly troubles: readonly { readonly row: number; readonly sentence: string }[];
}

/**
 * Reads a parts list from the cells of a table (columns ref, kind, value, mark, nets by name, in any order; ref alone is required) into
 * lines of the shorthand. What says nothing new about the board gives no line; a bad row is named and the rest kept.
 */
export function readPartsTable(rows: readonly (readonly string[])[], board: Board): PartsReading {
  const [header, ...body] = rows;
  const column = (name: string): number => header?.findIndex((h) => h.trim().toLowerCase() === name) ?? -1;
  if (column('ref') < 0)
    return { lines: [], troubles: [{ row: 1, sentence: 'The first line must name the columns, ref among them.' }] };
  const lines: string[] = [];
  const troubles: { row: number; sentence: string }[] = [];
  body.forEach((cells, i) => {
    const at = (name: string): string => (column(name) < 0 ? '' : (cells[column(name)] ?? '').trim());
    if (cells.every((c) => c.trim() === '')) return;
    const line = lineOf(at, board);
    if (line === null) return;
    const read = readShorthand(line);
    if (at('ref') === '' || !read.ok)
      troubles.push({
        row: i + 2,
        sentence: at('ref') === '' ? 'There is no designator.' : read.ok ? '' : read.problem.sentence,
      });
    else lines.push(line);
  });
  return { lines, troubles };
}

function lineOf(at: (name: string) => string, board: Board): string | null {
  const known = findPart(board, at('ref'));
  if (at('fitted') === 'no') return known?.fitted === false ? null : known ? `empty ${known.ref}` : null;
  const words: string[] = [at('ref')];
  const mark = at('mark');
  const value = at('value');
  const nets = at('nets');
  if (mark !== '' && mark !== (known ? (partText(known, 'mark') ?? '') : ''))
    words.push(`"${mark.replace(/"/gu, '″')}"`);
  else if (!known) words.push(mark === '' ? (value === '' ? '?' : value) : `"${mark}"`);
  if (value !== '' && (!known || valueOf(known) !== value)) words.push(`is=${value}`);
  for (const rating of RATINGS) {
    const { key } = PART_FIGURES[rating];
    const figure = at(key);
    const before = known && partFigure(known, rating);
    if (figure !== '' && String(before ?? '') !== figure) words.push(`${key}=${figure}`);
  }
  if (nets !== '' && nets !== known?.nets.join(' ')) words.push(...nets.split(/\s+/u).map((n, i) => `${i + 1}:${n}`));
  return words.length === 1 && known ? null : words.join(' ');
}
