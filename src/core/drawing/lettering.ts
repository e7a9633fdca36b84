import { marking, shortValue } from '../part';
import type { Part } from '../part';
import { GRID, STEP_TO } from './drawing';
import type { Box, DrawnPin, DrawnSymbol, DrawnText } from './drawing';

/** Width of a letter of a designator or a value, and of a net's name, pixels: the widest of the face at their sizes. */
export const LETTER = 6;
export const NAME_LETTER = 5.4;
const LINE = 12;

/** Whether two boxes share more than an edge. */
export function overlap(a: Box, b: Box): boolean {
  return a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;
}

/** What is written at a symbol: its designator, and its value or marking. */
export function lettersOf(
  refs: readonly string[],
  kind: string,
  parts: readonly Part[],
  isTaken: (ref: string) => boolean,
): readonly string[] {
  if (refs.length > 1) return [coreName(refs, isTaken)];
  const [part] = parts as [Part];
  const value = shortValue(part);
  if (value !== '') return [part.ref, value];
  const mark =
    kind === 'connector' || part.kind === 'ic' ? (marking(part) ?? (part.kind === 'ic' ? part.subcircuit : '')) : '';
  const known =
    mark !== ''
      ? mark
      : part.kind === 'diode' || part.kind === 'bjt' || part.kind === 'mosfet'
        ? (marking(part) ?? '')
        : '';
  return known === '' ? [part.ref] : [part.ref, known.slice(0, 9)];
}

/** What the windings of a core have in common in their names, without the L before it: T1 of LT1P and LT1S. */
function coreName(refs: readonly string[], isTaken: (ref: string) => boolean): string {
  const [first = ''] = refs;
  let length = first.length;
  for (const ref of refs) while (length > 0 && !ref.startsWith(first.slice(0, length))) length--;
  const whole = first.slice(0, length);
  const short = whole.replace(/^L(?=T\d|CM)/u, '');
  const common = isTaken(short) ? whole : short;
  return common === '' ? refs.join(' ') : common;
}

/** Places for a symbol's letters, the best first: each a list of boxes, one for each line. */
function letterPlaces(symbol: DrawnSymbol, lines: readonly string[]): readonly (readonly Box[])[] {
  const wide = lines.map((l) => LETTER * l.length);
  const most = Math.max(...wide);
  const one = LETTER * lines.join(' ').length;
  const { x, y, width, height, pins } = symbol;
  const axis = x + width / 2;
  const column = (left: number, top: number): readonly Box[] =>
    lines.map((_, i) => ({ x: left, y: top + i * LINE, width: wide[i]!, height: LINE }));
  const row = (left: number, top: number): readonly Box[] => {
    let at = left;
    return lines.map((_, i) => {
      const box = { x: at, y: top, width: wide[i]!, height: LINE };
      at += wide[i]! + LETTER;
      return box;
    });
  };
  const right = column(x + width + 3, y + height / 2 - (LINE * lines.length) / 2);
  const left = column(x - 3 - most, y + height / 2 - (LINE * lines.length) / 2);
  const above = row(axis - one / 2, y - LINE - 1);
  const below = row(axis - one / 2, y + height + 1);
  const corner = column(x + width + 3, y - 2);
  const foot = column(x + width + 3, y + height - LINE * lines.length + 2);
  const aboveRight = row(axis + 6, y - LINE - 1);
  const belowRight = row(axis + 6, y + height + 1);
  const aboveLeft = row(axis - 6 - one, y - LINE - 1);
  const belowLeft = row(axis - 6 - one, y + height + 1);
  const free = (side: string): boolean => !pins.some((p) => p.side === side);
  const list: (readonly Box[])[] = [];
  const standing = pins.length === 2 && !free('up');
  if (standing) list.push(right, left, corner, foot);
  else if (pins.length === 2) list.push(above, below);
  else {
    if (free('right')) list.push(right);
    if (free('up')) list.push(above);
    if (free('down')) list.push(below);
    list.push(corner, foot, aboveRight, belowRight, aboveLeft, belowLeft);
  }
  for (let step = 1; step <= 3; step++)
    list.push(
      row(axis - one / 2, y - LINE - 1 - step * GRID),
      row(axis - one / 2, y + height + 1 + step * GRID),
      column(x + width + 3 + step * GRID, y),
    );
  return list;
}

/** Letters for every symbol where they touch neither a symbol nor each other; pins keep the point before them. */
export function letter(
  symbols: readonly DrawnSymbol[],
  linesOf: (symbol: DrawnSymbol) => readonly string[],
  signs: readonly Box[],
): readonly DrawnText[] {
  const taken: Box[] = [...symbols, ...signs, ...symbols.flatMap((s) => s.pins.map(doorstep))];
  const texts: DrawnText[] = [];
  for (const symbol of symbols) {
    const lines = linesOf(symbol);
    const place = letterPlaces(symbol, lines).find((boxes) => !boxes.some((b) => taken.some((t) => overlap(b, t))));
    if (!place) continue;
    place.forEach((box, i) => {
      taken.push(box);
      texts.push({ of: symbol.refs[0]!, text: lines[i]!, ...box });
    });
  }
  return texts;
}

/** The box that the way out of a pin takes: nothing is written there. */
function doorstep({ x, y, side }: DrawnPin): Box {
  const [dx, dy] = STEP_TO[side];
  return { x: x + dx * GRID - 4, y: y + dy * GRID - 4, width: 8, height: 8 };
}
