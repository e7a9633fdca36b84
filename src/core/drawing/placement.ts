import type { Pose } from './form';
import { CELL_HEIGHT, CELL_WIDTH } from './form';
import type { Scene } from './scene';
import type { SheetSide } from './sheetSides';

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
const FILL = 0.44;
/** Each further attempt has more room. */
const LOOSER = 0.05;
const LEAST_FILL = 0.25;
/** Width to height that a sheet aims at. */
const SHAPE = 1.55;
const LEAST_SHAPE = 1.1;
const MOST_SHAPE = 2.1;

/** Cells that a symbol takes as it first stands. */
export function cells(pose: Pose): number {
  return pose.cols * pose.rows;
}

/** An empty sheet that is large enough, with its barrier where the sides' shares of the symbols put it. */
export function emptySheet(scene: Scene, attempt: number, more = 0): Placement {
  const area = (side?: string): number =>
    scene.symbols.reduce((sum, s) => sum + (side === undefined || s.side === side ? cells(s.poses[0]!) : 0), 0);
  const total = Math.max(6, area() / Math.max(LEAST_FILL, FILL - LOOSER * (attempt - 1)));
  const tallest = Math.max(4, ...scene.symbols.map((s) => s.poses[0]!.rows + 1));
  const rows = Math.max(tallest, Math.round(Math.sqrt((total * CELL_WIDTH) / (SHAPE * CELL_HEIGHT))));
  const cols = Math.max(4, Math.ceil(total / rows));
  const share = area('left') / Math.max(1, area('left') + area('right'));
  if (!scene.parted) return sheetOf(scene, cols, rows + more, -1);
  const left = Math.max(columnsInOrder(scene, 'left'), Math.round(share * (cols - 2)));
  const right = Math.max(columnsInOrder(scene, 'right'), cols - 2 - left);
  const wide = left + 2 + right;
  const high = Math.max(tallest, Math.min(rows, Math.ceil((total + 2 * tallest) / wide)));
  return sheetOf(scene, wide, high + more, left);
}

/** The fewest columns in which the stages of a side can stand in their order. */
function columnsInOrder({ order, stages, symbols }: Scene, side: SheetSide): number {
  const after = new Set(order.map(([, b]) => b).filter((b) => stages[b]!.body.every((i) => symbols[i]!.side === side)));
  return after.size + 1;
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

/** A sheet without the empty columns and rows at its edges, and with no more than one of them next to each other inside. */
export function trimmed(scene: Scene, p: Placement): Placement {
  if (scene.symbols.length === 0) return p;
  const cols = kept(
    p.cols,
    (c) => (p.barrier >= 0 && (c === p.barrier || c === p.barrier + 1)) || uses(scene, p, c, true),
  );
  const rows = kept(p.rows, (r) => uses(scene, p, r, false));
  // Neither a strip nor a tower: what is left over is margin.
  const [wide, high] = [cols.count, rows.count];
  return {
    ...p,
    cols: Math.max(wide, Math.ceil((LEAST_SHAPE * high * CELL_HEIGHT) / CELL_WIDTH)),
    rows: Math.max(high, Math.ceil((wide * CELL_WIDTH) / (MOST_SHAPE * CELL_HEIGHT))),
    barrier: p.barrier < 0 ? -1 : cols.now[p.barrier]!,
    col: p.col.map((c) => cols.now[c]!),
    row: p.row.map((r) => rows.now[r]!),
  };
}

/** Whether a block stands in a column or row. */
function uses(scene: Scene, p: Placement, line: number, column: boolean): boolean {
  return scene.symbols.some((s, i) => {
    const pose = s.poses[p.pose[i]!]!;
    const [from, size] = column ? [p.col[i]!, pose.cols] : [p.row[i]!, pose.rows];
    return line >= from && line < from + size;
  });
}

/** The lines of a sheet that stay, and the place of each then. */
function kept(lines: number, isUsed: (line: number) => boolean): { readonly count: number; readonly now: Int16Array } {
  const used = Array.from({ length: lines }, (_, i) => isUsed(i));
  const now = new Int16Array(lines);
  const last = used.lastIndexOf(true);
  let count = 0;
  used.forEach((is, i) => {
    now[i] = count;
    if (is || (i > 0 && used[i - 1]! && i < last)) count++;
  });
  return { count: Math.max(1, count), now };
}

/** The columns that a symbol may stand in: the first, and the last that its block may reach. */
export function columnsFor(scene: Scene, p: Placement, symbol: number): readonly [number, number] {
  const { side } = scene.symbols[symbol]!;
  if (p.barrier < 0 || !scene.parted) return [0, p.cols - 1];
  if (side === 'barrier') return [p.barrier, p.barrier + 1];
  return side === 'left' ? [0, p.barrier - 1] : [p.barrier + 2, p.cols - 1];
}
