import type { Pose } from './form';
import { CELL_HEIGHT, CELL_WIDTH } from './form';
import type { Scene } from './scene';

/** Where every symbol stands: column and row of its block and which of its poses. */
export interface Placement {
  readonly cols: number;
  readonly rows: number;
  /** The column that the barrier stands in; -1 without. */
  readonly barrier: number;
  readonly col: Int16Array;
  readonly row: Int16Array;
  readonly pose: Int8Array;
  /** For an IC the place that each of its pins takes among those of its pose; null where every pin has its own. */
  readonly seats: (Int8Array | null)[];
}

/** Share of a sheet's cells that symbols fill: the rest is room for wires. */
const FILL = 0.5;
/** Each further attempt has more room. */
const LOOSER = 0.06;
/** Width to height that a sheet aims at. */
const SHAPE = 1.55;
const LEAST_SHAPE = 1.1;
const MOST_SHAPE = 2.1;

/** Cells that a symbol takes as it first stands. */
function cells(pose: Pose): number {
  return pose.cols * pose.rows;
}

/** An empty sheet that is large enough, with its barrier where the sides' shares of the symbols put it. */
export function emptySheet(scene: Scene, attempt: number): Placement {
  const area = (side?: string): number =>
    scene.symbols.reduce((sum, s) => sum + (side === undefined || s.side === side ? cells(s.poses[0]!) : 0), 0);
  const total = Math.max(6, area() / (FILL - LOOSER * (attempt - 1)));
  const tallest = Math.max(4, ...scene.symbols.map((s) => s.poses[0]!.rows + 1));
  const rows = Math.max(tallest, Math.round(Math.sqrt((total * CELL_WIDTH) / (SHAPE * CELL_HEIGHT))));
  const cols = Math.max(4, Math.ceil(total / rows));
  const share = area('left') / Math.max(1, area('left') + area('right'));
  const barrier = scene.parted ? Math.min(cols - 3, Math.max(1, Math.round(share * (cols - 2)))) : -1;
  return sheetOf(scene, cols, rows, barrier);
}

/** An empty sheet of so many cells. */
export function sheetOf(scene: Scene, cols: number, rows: number, barrier: number): Placement {
  const n = scene.symbols.length;
  return {
    cols,
    rows,
    barrier,
    col: new Int16Array(n).fill(-1),
    row: new Int16Array(n).fill(-1),
    pose: new Int8Array(n),
    seats: scene.symbols.map((s) => (s.seats.length === 0 ? null : Int8Array.from(s.poses[0]!.pins, (_, k) => k))),
  };
}

/** A sheet without the empty columns and rows at its edges. */
export function trimmed(scene: Scene, p: Placement): Placement {
  let [left, right, top, bottom] = [p.cols, 0, p.rows, 0];
  scene.symbols.forEach((s, i) => {
    const { cols, rows } = s.poses[p.pose[i]!]!;
    left = Math.min(left, p.col[i]!);
    right = Math.max(right, p.col[i]! + cols);
    top = Math.min(top, p.row[i]!);
    bottom = Math.max(bottom, p.row[i]! + rows);
  });
  if (left >= right) return p;
  if (p.barrier >= 0) [left, right] = [Math.min(left, p.barrier), Math.max(right, p.barrier + 2)];
  // Neither a strip nor a tower: what is left over is margin.
  const [wide, high] = [right - left, bottom - top];
  return {
    ...p,
    cols: Math.max(wide, Math.ceil((LEAST_SHAPE * high * CELL_HEIGHT) / CELL_WIDTH)),
    rows: Math.max(high, Math.ceil((wide * CELL_WIDTH) / (MOST_SHAPE * CELL_HEIGHT))),
    barrier: p.barrier < 0 ? -1 : p.barrier - left,
    col: p.col.map((c) => c - left),
    row: p.row.map((r) => r - top),
  };
}

/** The columns that a symbol may stand in: the first, and the last that its block may reach. */
export function columnsFor(scene: Scene, p: Placement, symbol: number): readonly [number, number] {
  const { side } = scene.symbols[symbol]!;
  if (p.barrier < 0 || !scene.parted) return [0, p.cols - 1];
  if (side === 'barrier') return [p.barrier, p.barrier + 1];
  return side === 'left' ? [0, p.barrier - 1] : [p.barrier + 2, p.cols - 1];
}
