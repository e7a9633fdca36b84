import { GRID } from './drawing';
import type { Box, DrawnName, Side } from './drawing';
import { NAME_LETTER, overlap } from './lettering';
import type { WireGrid } from './wireGrid';

const SIGN_LONG = 15;
const SIGN_WIDE = 18;
const NAME_HIGH = 12;

/** The box of a reference's sign at a pin that looks to a side. */
export function signBox(x: number, y: number, side: Side): Box {
  switch (side) {
    case 'down':
      return { x: x - SIGN_WIDE / 2, y, width: SIGN_WIDE, height: SIGN_LONG };
    case 'up':
      return { x: x - SIGN_WIDE / 2, y: y - SIGN_LONG, width: SIGN_WIDE, height: SIGN_LONG };
    case 'left':
      return { x: x - SIGN_LONG, y: y - SIGN_WIDE / 2, width: SIGN_LONG, height: SIGN_WIDE };
    case 'right':
      return { x, y: y - SIGN_WIDE / 2, width: SIGN_LONG, height: SIGN_WIDE };
  }
}

/** A name where it was written, and the wire to it: one point where it stands right there. */
export interface Written {
  readonly name: DrawnName;
  readonly way: readonly number[];
}

/** Writes the names of nets where there is room for them. */
export class Names {
  constructor(
    private readonly grid: WireGrid,
    /** Everything that is drawn so far but wires. */
    private readonly taken: Box[],
  ) {}

  /** Writes a net's name at a point or at the end of a wire from there; null where there is no room so near. */
  write(net: number, at: number, text: string, side: Side, far: number): Written | null {
    const { grid } = this;
    const sides: readonly Side[] = [side, ...(['right', 'left', 'up', 'down'] as const).filter((s) => s !== side)];
    const fits = (i: number): Side | null => sides.find((s) => this.isFree(this.boxAt(i, s, text), i)) ?? null;
    let way: readonly number[] = [at];
    let turn = fits(at);
    if (turn === null) {
      const found = grid.search(
        net,
        at,
        (i) => grid.isEmpty(i) && fits(i) !== null,
        () => 0,
        far,
      );
      if (!found) return null;
      way = [...found.points].reverse();
      const last = way.at(-1)!;
      // The name must not lie over the wire that leads to it.
      const clear = (s: Side): boolean => {
        const box = this.boxAt(last, s, text);
        return this.isFree(box, last) && !(this.points(box) ?? []).some((i) => i !== last && way.includes(i));
      };
      turn = sides.find(clear) ?? null;
      if (turn === null) return null;
      grid.lay(net, way);
    }
    const end = way.at(-1)!;
    const box = this.boxAt(end, turn, text);
    this.taken.push(box);
    for (const i of this.points(box) ?? []) if (i !== end) grid.blocked[i] = 1;
    const [x, y] = this.place(end);
    return { name: { net: text, ...box, sign: null, at: [x, y], side: turn }, way };
  }

  /** Takes a name away again, and gives back the room it took. */
  erase(name: DrawnName): void {
    const { grid, taken } = this;
    taken.splice(
      taken.findIndex((t) => t.x === name.x && t.y === name.y),
      1,
    );
    const end = grid.at(name.at[0] / GRID, name.at[1] / GRID);
    for (const i of this.points(name) ?? []) if (i !== end) grid.blocked[i] = 0;
  }

  private place(i: number): readonly [number, number] {
    return [(i % this.grid.width) * GRID, Math.floor(i / this.grid.width) * GRID];
  }

  private boxAt(i: number, side: Side, text: string): Box {
    const [x, y] = this.place(i);
    const wide = NAME_LETTER * text.length + 4;
    const height = NAME_HIGH;
    if (side === 'left') return { x: x - wide - 2, y: y - height / 2, width: wide, height };
    if (side === 'right') return { x: x + 2, y: y - height / 2, width: wide, height };
    if (side === 'up') return { x: x - wide / 2, y: y - height - 2, width: wide, height };
    return { x: x - wide / 2, y: y + 2, width: wide, height };
  }

  /** Points of the grid that a box covers; null where it leaves the sheet. */
  private points(box: Box): readonly number[] | null {
    const list: number[] = [];
    for (let y = Math.ceil(box.y / GRID); y * GRID <= box.y + box.height; y++)
      for (let x = Math.ceil(box.x / GRID); x * GRID <= box.x + box.width; x++) {
        if (!this.grid.inside(x, y)) return null;
        list.push(this.grid.at(x, y));
      }
    return list;
  }

  private isFree(box: Box, but: number): boolean {
    const points = this.points(box);
    if (points === null || this.taken.some((t) => overlap(t, box))) return false;
    return points.every((i) => i === but || this.grid.isEmpty(i));
  }
}
