import type { DrawnSymbol } from './drawing';
import type { Mark, Stroke } from './stroke';
import { SYMBOLS } from './symbols';

/** A symbol as it is drawn on the sheet: its lines under a transform, its letters where they stand, upright. */
export interface PlacedArt {
  readonly transform: string;
  readonly strokes: readonly Stroke[];
  readonly marks: readonly Mark[];
}

/** The lines and letters of a placed symbol. */
export function artOf(symbol: DrawnSymbol): PlacedArt {
  const { x, y, width, height, turn, flip } = symbol;
  const upright = turn % 2 === 0;
  const [w, h] = upright ? [width, height] : [height, width];
  /** From the sheet to the upright symbol. */
  const back = (px: number, py: number): readonly [number, number] => {
    let [a, b] = [px - x, py - y];
    let [wide, high] = [width, height];
    for (let i = 0; i < turn; i++) [a, b, wide, high] = [b, wide - a, high, wide];
    return [flip ? w - a : a, b];
  };
  const there = (a: number, b: number): readonly [number, number] => {
    let [px, py] = [flip ? w - a : a, b];
    let high = h;
    let wide = w;
    for (let i = 0; i < turn; i++) [px, py, wide, high] = [high - py, px, high, wide];
    return [x + px, y + py];
  };
  const pins = symbol.pins.map((p) => {
    const [a, b] = back(p.x, p.y);
    return { ref: p.ref, name: p.label, index: p.index, x: a, y: b };
  });
  const { strokes, marks = [] } = SYMBOLS[symbol.kind]!({ width: w, height: h, pins });
  return { transform: matrix(there), strokes, marks: marks.map((m) => standing(m, there, flip)) };
}

function matrix(there: (a: number, b: number) => readonly [number, number]): string {
  const [ox, oy] = there(0, 0);
  const [ax, ay] = there(1, 0);
  const [bx, by] = there(0, 1);
  return `matrix(${ax - ox} ${ay - oy} ${bx - ox} ${by - oy} ${ox} ${oy})`;
}

function standing(mark: Mark, there: (a: number, b: number) => readonly [number, number], flip: boolean): Mark {
  const [x, y] = there(mark.x, mark.y);
  const anchor = !flip || mark.anchor === 'middle' ? mark.anchor : mark.anchor === 'start' ? 'end' : 'start';
  return { ...mark, x, y, anchor };
}
