import type { Side, Turn } from './drawing';

/** The lattice that symbols stand on, in steps of the grid: what one cell measures. */
export const CELL_WIDTH = 10;
export const CELL_HEIGHT = 7;

/** Where a vertical part stands in its cell, and a horizontal one. */
export const AXIS = 3;

export interface FormPin {
  readonly ref: string;
  readonly pin: number;
  readonly x: number;
  readonly y: number;
  readonly side: Side;
}

/** A symbol by its box and pins, upright; steps of the grid from the box's top left corner. */
export interface Form {
  readonly kind: string;
  readonly width: number;
  readonly height: number;
  readonly pins: readonly FormPin[];
}

/** One symbol of a block: its box in steps from the block's corner, and which of the block's pins are its own. */
export interface PosePart {
  readonly turn: Turn;
  readonly flip: boolean;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly from: number;
  readonly to: number;
}

/** A form as it may stand: turned, in its block of cells; box and pins in steps from the block's corner. */
export interface Pose {
  readonly turn: Turn;
  readonly cols: number;
  readonly rows: number;
  readonly pins: readonly FormPin[];
  /** The symbols in the block, one after the other as their pins are. */
  readonly parts: readonly PosePart[];
  /** What this pose costs by itself, in steps of wire. */
  readonly cost: number;
}

const MIRRORED: Readonly<Record<Side, Side>> = { left: 'right', right: 'left', up: 'up', down: 'down' };
const TURNED: Readonly<Record<Side, Side>> = { up: 'right', right: 'down', down: 'left', left: 'up' };

/** A form mirrored (left to right), then turned by quarters clockwise. */
export function turned(form: Form, turn: Turn, flip: boolean): Form {
  let made = form;
  if (flip)
    made = {
      ...made,
      pins: made.pins.map((p) => ({ ...p, x: made.width - p.x, side: MIRRORED[p.side] })),
    };
  for (let i = 0; i < turn; i++) {
    const { width, height } = made;
    made = {
      ...made,
      width: height,
      height: width,
      pins: made.pins.map((p) => ({ ...p, x: height - p.y, y: p.x, side: TURNED[p.side] })),
    };
  }
  return made;
}

/** A form in a block of cells, its box so many steps from the corner. */
export function pose(
  form: Form,
  turn: Turn,
  flip: boolean,
  block: { readonly cols: number; readonly rows: number; readonly x: number; readonly y: number },
  cost = 0,
): Pose {
  const { width, height, pins } = turned(form, turn, flip);
  const moved = pins.map((p) => ({ ...p, x: p.x + block.x, y: p.y + block.y }));
  const { x, y, cols, rows } = block;
  const parts = [{ turn, flip, x, y, width, height, from: 0, to: moved.length }];
  return { turn, cols, rows, pins: moved, parts, cost };
}

/** Blocks one below the other, or one beside the other, as one. turn: how the whole counts as standing. */
export function inLine(poses: readonly Pose[], across: boolean, turn: Turn, cost = 0): Pose {
  const pins: FormPin[] = [];
  const parts: PosePart[] = [];
  let [cols, rows] = [0, 0];
  for (const p of poses) {
    const [dx, dy] = across ? [cols * CELL_WIDTH, 0] : [0, rows * CELL_HEIGHT];
    const from = pins.length;
    pins.push(...p.pins.map((q) => ({ ...q, x: q.x + dx, y: q.y + dy })));
    parts.push(...p.parts.map((q) => ({ ...q, x: q.x + dx, y: q.y + dy, from: q.from + from, to: q.to + from })));
    cols = across ? cols + p.cols : Math.max(cols, p.cols);
    rows = across ? Math.max(rows, p.rows) : rows + p.rows;
  }
  return { turn, cols, rows, pins, parts, cost };
}
