import { STEP_TO } from './drawing';
import { CELL_HEIGHT, CELL_WIDTH } from './form';
import type { Placement } from './placement';
import type { Scene } from './scene';
import { SketchPieces, isWired } from './sketchPieces';

/** What a bend costs, and a pin that looks the wrong way, in steps of wire. */
const BEND = 4;
const AWAY = 5;
const TAP = 1.5;

/**
 * The wires that a placement would roughly have: each net along one trunk, two pins by the fewest corners. A net is drawn
 * beside how it was: its pieces can be taken back.
 */
export class WireSketch {
  readonly pieces: SketchPieces;
  /** Nets of wires at each symbol. */
  readonly netsAt: readonly (readonly number[])[];
  /** Where the pins of each net begin in the lists of pins: of each its symbol and its number there. */
  private readonly first: Int32Array;
  private readonly pinSymbol: Int16Array;
  private readonly pinNumber: Int16Array;
  /** For every pose of every symbol, pin by pin: its place in the block, and the way it looks. */
  private readonly base: Int32Array;
  private readonly pinCount: Int16Array;
  private readonly px: Int16Array;
  private readonly py: Int16Array;
  private readonly dx: Int8Array;
  private readonly dy: Int8Array;
  /** What each net's two sketches cost. */
  private readonly costs: Float64Array;
  private readonly xs = new Int16Array(512);
  private readonly ys = new Int16Array(512);
  private readonly sortedX = new Int16Array(512);
  private readonly sortedY = new Int16Array(512);

  constructor(
    private readonly scene: Scene,
    private readonly p: Placement,
    taken: Int16Array,
  ) {
    const { nets, symbols } = scene;
    const isDrawn = nets.map(isWired);
    const at = symbols.map((): number[] => []);
    nets.forEach((net, n) => {
      if (isDrawn[n]) for (const i of new Set(net.pins.map(([s]) => s))) at[i]!.push(n);
    });
    this.netsAt = at;
    const pins = nets.map((net, n) => (isDrawn[n] ? net.pins : []));
    this.first = starts(pins.map((list) => list.length));
    this.pinSymbol = Int16Array.from(pins.flat(), ([i]) => i);
    this.pinNumber = Int16Array.from(pins.flat(), ([, k]) => k);
    const posed = symbols.map((s) => s.poses.flatMap((pose) => pose.pins));
    this.base = starts(posed.map((list) => list.length));
    this.pinCount = Int16Array.from(symbols, (s) => s.poses[0]!.pins.length);
    const all = posed.flat();
    this.px = Int16Array.from(all, (q) => q.x);
    this.py = Int16Array.from(all, (q) => q.y);
    this.dx = Int8Array.from(all, (q) => STEP_TO[q.side][0]);
    this.dy = Int8Array.from(all, (q) => STEP_TO[q.side][1]);
    this.pieces = new SketchPieces(scene, p, taken);
    this.costs = new Float64Array(2 * nets.length);
  }

  /** Two pins of a symbol change places: it has one pose. */
  swap(i: number, k: number, l: number): void {
    const [a, b] = [this.base[i]! + k, this.base[i]! + l];
    for (const list of [this.px, this.py, this.dx, this.dy]) [list[a], list[b]] = [list[b]!, list[a]!];
    const seats = this.p.seats[i]!;
    [seats[k], seats[l]] = [seats[l]!, seats[k]!];
  }

  /** The nets of wires at two pins of a symbol. */
  netsAtPins(i: number, k: number, l: number): readonly number[] {
    return this.netsAt[i]!.filter((n) => this.scene.nets[n]!.pins.some(([s, q]) => s === i && (q === k || q === l)));
  }

  /** What a net costs as it was drawn last. */
  cost(n: number): number {
    return this.costs[2 * n + this.pieces.side[n]!]!;
  }

  /** Draws every net where its pins are now, and counts what crosses. */
  begin(): void {
    const all = this.scene.nets.map((_, n) => n);
    for (const n of all) this.draw(n);
    this.pieces.begin(all);
  }

  /** Draws a net where its pins are now. */
  draw(n: number): void {
    const s = this.pieces.another(n);
    this.costs[s] = 0;
    const [from, to] = [this.first[n]!, this.first[n + 1]!];
    if (to - from === 2) this.pair(s, from);
    else if (to > from) this.trunk(s, from, to);
  }

  private pair(s: number, q: number): void {
    const { p, pinSymbol, base, px, py, dx, dy } = this;
    const i = pinSymbol[q]!;
    const j = pinSymbol[q + 1]!;
    const a = base[i]! + p.pose[i]! * this.pinCount[i]! + this.pinNumber[q]!;
    const b = base[j]! + p.pose[j]! * this.pinCount[j]! + this.pinNumber[q + 1]!;
    const x1 = p.col[i]! * CELL_WIDTH + px[a]!;
    const y1 = p.row[i]! * CELL_HEIGHT + py[a]!;
    const x2 = p.col[j]! * CELL_WIDTH + px[b]!;
    const y2 = p.row[j]! * CELL_HEIGHT + py[b]!;
    const forward = dx[a]! * (x2 - x1) + dy[a]! * (y2 - y1);
    const backward = dx[b]! * (x1 - x2) + dy[b]! * (y1 - y2);
    let bends = 0;
    if (x1 === x2 || y1 === y2) this.pieces.add(s, x1, y1, x2, y2);
    else if (dx[a] !== 0 && dx[b] !== 0) {
      bends = 2;
      const m = (x1 + x2) >> 1;
      this.pieces.add(s, x1, y1, m, y1);
      this.pieces.add(s, m, y1, m, y2);
      this.pieces.add(s, m, y2, x2, y2);
    } else if (dy[a] !== 0 && dy[b] !== 0) {
      bends = 2;
      const m = (y1 + y2) >> 1;
      this.pieces.add(s, x1, y1, x1, m);
      this.pieces.add(s, x1, m, x2, m);
      this.pieces.add(s, x2, m, x2, y2);
    } else {
      bends = 1;
      const cx = dx[a] !== 0 ? x2 : x1;
      const cy = dx[a] !== 0 ? y1 : y2;
      this.pieces.add(s, x1, y1, cx, cy);
      this.pieces.add(s, cx, cy, x2, y2);
    }
    let away = forward < 0 ? AWAY : forward === 0 ? AWAY / 2 : 0;
    away += backward < 0 ? AWAY : backward === 0 ? AWAY / 2 : 0;
    this.costs[s] = Math.abs(x1 - x2) + Math.abs(y1 - y2) + BEND * bends + away;
  }

  private trunk(s: number, from: number, to: number): void {
    const { p, xs, ys, base } = this;
    const size = to - from;
    for (let q = 0; q < size; q++) {
      const i = this.pinSymbol[from + q]!;
      const a = base[i]! + p.pose[i]! * this.pinCount[i]! + this.pinNumber[from + q]!;
      xs[q] = p.col[i]! * CELL_WIDTH + this.px[a]!;
      ys[q] = p.row[i]! * CELL_HEIGHT + this.py[a]!;
    }
    const sx = sorted(xs, size, this.sortedX);
    const sy = sorted(ys, size, this.sortedY);
    const mx = sx[size >> 1]!;
    const my = sy[size >> 1]!;
    const left = sx[0]!;
    const right = sx[size - 1]!;
    const top = sy[0]!;
    const bottom = sy[size - 1]!;
    let across = right - left;
    let down = bottom - top;
    let away = 0;
    for (let q = 0; q < size; q++) {
      const dx = mx - xs[q]!;
      const dy = my - ys[q]!;
      across += Math.abs(dy) + (dy === 0 ? 0 : TAP);
      down += Math.abs(dx) + (dx === 0 ? 0 : TAP);
      const i = this.pinSymbol[from + q]!;
      const a = base[i]! + p.pose[i]! * this.pinCount[i]! + this.pinNumber[from + q]!;
      if (this.dx[a]! * dx < -4) away += AWAY / 2;
      if (this.dy[a]! * dy < -1) away += AWAY / 2;
    }
    this.costs[s] = Math.min(across, down) + away;
    if (across <= down) {
      this.pieces.add(s, left, my, right, my);
      for (let q = 0; q < size; q++) if (ys[q] !== my) this.pieces.add(s, xs[q]!, ys[q]!, xs[q]!, my);
    } else {
      this.pieces.add(s, mx, top, mx, bottom);
      for (let q = 0; q < size; q++) if (xs[q] !== mx) this.pieces.add(s, xs[q]!, ys[q]!, mx, ys[q]!);
    }
  }
}

/** Where each list begins when they are put behind each other, and where the last ends. */
function starts(lengths: readonly number[]): Int32Array {
  const list = new Int32Array(lengths.length + 1);
  lengths.forEach((length, i) => (list[i + 1] = list[i]! + length));
  return list;
}

/** The first so many of a list in order, by insertion: they are few. */
function sorted(list: Int16Array, size: number, into: Int16Array): Int16Array {
  for (let i = 0; i < size; i++) {
    const value = list[i]!;
    let k = i;
    for (; k > 0 && into[k - 1]! > value; k--) into[k] = into[k - 1]!;
    into[k] = value;
  }
  return into;
}
