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

/** A form as it may stand: turned, in its block of cells; box and pins in steps from the block's corner. */
export interface Pose {
  readonly turn: Turn;
  readonly flip: boolean;
  readonly cols: number;
  readonly rows: number;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly pins: readonly FormPin[];
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
  return { turn, flip, ...block, width, height, pins: moved, cost };
}
