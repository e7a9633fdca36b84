import { STEP_TO } from './drawing';
import type { Side } from './drawing';
import { CELL_HEIGHT, CELL_WIDTH } from './form';
import type { Placement } from './placement';
import type { Scene } from './scene';

/** What a bend costs, and a pin that looks the wrong way, in steps of wire. */
const BEND = 4;
const AWAY = 5;
const TAP = 1.5;
const MANY_PINS = 12;

/**
 * The wires that a placement would roughly have: each net along one trunk, two pins by the fewest corners. A net is drawn
 * beside how it was; `takeBack` has that again, `keep` forgets it.
 */
export class WireSketch {
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
  /** Which of its two sketches a net has now: what follows is kept for both. */
  private readonly side: Uint8Array;
  /** Each net's level pieces (y, left, right) and upright ones (x, top, bottom). */
  private readonly level: readonly Int16Array[];
  private readonly upright: readonly Int16Array[];
  private readonly levelCount: Int16Array;
  private readonly uprightCount: Int16Array;
  private readonly box: Int16Array;
  private readonly costs: Float64Array;
  /** Nets whose crossings count: those of very many pins are names for the most part. */
  private readonly counts: Uint8Array;
  /** How often each two nets cross, and each net all others. */
  private readonly crossed: Int16Array;
  private readonly crossedSum: Int32Array;
  private readonly row: Int16Array;
  /** The cells that each net's wires run through, and how many wires run through each cell. */
  private readonly cells: readonly Int16Array[];
  private readonly cellCount: Int16Array;
  private readonly through: Int16Array;
  private readonly xs = new Int16Array(512);
  private readonly ys = new Int16Array(512);
  private readonly sortedX = new Int16Array(512);
  private readonly sortedY = new Int16Array(512);

  constructor(
    private readonly scene: Scene,
    private readonly p: Placement,
    /** The symbol in each cell; -1 without. */
    private readonly taken: Int16Array,
  ) {
    const { nets, symbols } = scene;
    const isDrawn = nets.map((n) => n.sign === null && n.pins.length > 1);
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
    const twice = nets.flatMap((n) => [n, n]);
    this.side = new Uint8Array(nets.length);
    this.level = twice.map((n) => new Int16Array(3 * (n.pins.length + 3)));
    this.upright = twice.map((n) => new Int16Array(3 * (n.pins.length + 3)));
    this.levelCount = new Int16Array(twice.length);
    this.uprightCount = new Int16Array(twice.length);
    this.box = new Int16Array(4 * twice.length);
    this.costs = new Float64Array(twice.length);
    this.counts = Uint8Array.from(nets, (n, i) => (isDrawn[i] && n.pins.length <= MANY_PINS ? 1 : 0));
    this.crossed = new Int16Array(nets.length ** 2);
    this.crossedSum = new Int32Array(nets.length);
    this.row = new Int16Array(nets.length ** 2);
    this.cells = twice.map((n) => new Int16Array((n.pins.length + 3) * (p.cols + p.rows)));
    this.cellCount = new Int16Array(twice.length);
    this.through = new Int16Array(taken.length);
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
    return this.costs[2 * n + this.side[n]!]!;
  }

  /** How often a net crosses others, as was kept last. */
  crossingsOf(n: number): number {
    return this.crossedSum[n]!;
  }

  /** Draws every net where its pins are now, and counts what crosses. */
  begin(): void {
    const all = this.scene.nets.map((_, n) => n);
    this.through.fill(0);
    for (const n of all) {
      this.draw(n);
      this.run(n, 1);
    }
    this.crossed.fill(0);
    this.crossedSum.fill(0);
    this.crossings(all, Infinity);
    this.keep(all);
  }

  /** Puts a net's wires into the cells they run through, or takes them out; how many symbols they run over. */
  run(n: number, by: 1 | 0 | -1): number {
    const s = 2 * n + this.side[n]!;
    const { taken, through } = this;
    const list = this.cells[s]!;
    const count = this.cellCount[s]!;
    let sum = 0;
    for (let k = 0; k < count; k++) {
      const cell = list[k]!;
      through[cell]! += by;
      if (taken[cell]! >= 0) sum++;
    }
    return sum;
  }

  /** How many wires run over a symbol. */
  runOver(i: number): number {
    const { cols, rows } = this.scene.symbols[i]!.poses[this.p.pose[i]!]!;
    let sum = 0;
    for (let r = 0; r < rows; r++)
      for (let c = 0; c < cols; c++) sum += this.through[(this.p.row[i]! + r) * this.p.cols + this.p.col[i]! + c]!;
    return sum;
  }

  /** A net as it was before it was drawn last. */
  takeBack(n: number): void {
    this.side[n] = 1 - this.side[n]!;
  }

  /** Draws a net where its pins are now. */
  draw(n: number): void {
    this.side[n] = 1 - this.side[n]!;
    const s = 2 * n + this.side[n]!;
    this.levelCount[s] = 0;
    this.uprightCount[s] = 0;
    this.cellCount[s] = 0;
    this.costs[s] = 0;
    const [from, to] = [this.first[n]!, this.first[n + 1]!];
    const b = 4 * s;
    this.box[b] = this.box[b + 1] = 32000;
    this.box[b + 2] = this.box[b + 3] = -1;
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
    if (x1 === x2 || y1 === y2) this.piece(s, x1, y1, x2, y2);
    else if (dx[a] !== 0 && dx[b] !== 0) {
      bends = 2;
      const m = (x1 + x2) >> 1;
      this.piece(s, x1, y1, m, y1);
      this.piece(s, m, y1, m, y2);
      this.piece(s, m, y2, x2, y2);
    } else if (dy[a] !== 0 && dy[b] !== 0) {
      bends = 2;
      const m = (y1 + y2) >> 1;
      this.piece(s, x1, y1, x1, m);
      this.piece(s, x1, m, x2, m);
      this.piece(s, x2, m, x2, y2);
    } else {
      bends = 1;
      const cx = dx[a] !== 0 ? x2 : x1;
      const cy = dx[a] !== 0 ? y1 : y2;
      this.piece(s, x1, y1, cx, cy);
      this.piece(s, cx, cy, x2, y2);
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
      this.piece(s, left, my, right, my);
      for (let q = 0; q < size; q++) if (ys[q] !== my) this.piece(s, xs[q]!, ys[q]!, xs[q]!, my);
    } else {
      this.piece(s, mx, top, mx, bottom);
      for (let q = 0; q < size; q++) if (xs[q] !== mx) this.piece(s, xs[q]!, ys[q]!, mx, ys[q]!);
    }
  }

  private piece(s: number, x1: number, y1: number, x2: number, y2: number): void {
    const left = x1 < x2 ? x1 : x2;
    const right = x1 < x2 ? x2 : x1;
    const top = y1 < y2 ? y1 : y2;
    const bottom = y1 < y2 ? y2 : y1;
    const { cols } = this.p;
    const cells = this.cells[s]!;
    let count = this.cellCount[s]!;
    if (top === bottom) {
      if (left === right) return;
      const row = Math.floor(top / CELL_HEIGHT) * cols;
      const last = row + Math.floor(right / CELL_WIDTH);
      for (let c = row + Math.floor(left / CELL_WIDTH); c <= last; c++) cells[count++] = c;
      const at = 3 * this.levelCount[s]!++;
      const list = this.level[s]!;
      list[at] = top;
      list[at + 1] = left;
      list[at + 2] = right;
    } else {
      const last = Math.floor(bottom / CELL_HEIGHT) * cols + Math.floor(left / CELL_WIDTH);
      for (let c = last - (Math.floor(bottom / CELL_HEIGHT) - Math.floor(top / CELL_HEIGHT)) * cols; c <= last; c += cols)
        cells[count++] = c;
      const at = 3 * this.uprightCount[s]!++;
      const list = this.upright[s]!;
      list[at] = left;
      list[at + 1] = top;
      list[at + 2] = bottom;
    }
    this.cellCount[s] = count;
    const { box } = this;
    const b = 4 * s;
    if (left < box[b]!) box[b] = left;
    if (top < box[b + 1]!) box[b + 1] = top;
    if (right > box[b + 2]!) box[b + 2] = right;
    if (bottom > box[b + 3]!) box[b + 3] = bottom;
  }

  /** How often the wires of these nets cross others as they are drawn now, those among themselves twice; ends beyond `most`. */
  crossings(nets: readonly number[], most: number): number {
    const { box, counts, side, row } = this;
    const size = counts.length;
    let sum = 0;
    for (let j = 0; j < nets.length; j++) {
      const n = nets[j]!;
      if (counts[n] === 0) continue;
      const s = 2 * n + side[n]!;
      const left = box[4 * s]!;
      const top = box[4 * s + 1]!;
      const right = box[4 * s + 2]!;
      const bottom = box[4 * s + 3]!;
      for (let m = 0; m < size; m++) {
        const t = 2 * m + side[m]!;
        const b = 4 * t;
        const apart =
          counts[m] === 0 ||
          m === n ||
          box[b]! >= right ||
          box[b + 2]! <= left ||
          box[b + 1]! >= bottom ||
          box[b + 3]! <= top;
        const often = apart
          ? 0
          : over(this.level[s]!, this.levelCount[s]!, this.upright[t]!, this.uprightCount[t]!) +
            over(this.level[t]!, this.levelCount[t]!, this.upright[s]!, this.uprightCount[s]!);
        row[j * size + m] = often;
        sum += often;
      }
      if (sum > most) return sum;
    }
    return sum;
  }

  /** Keeps what `crossings` counted last for these nets. */
  keep(nets: readonly number[]): void {
    const { counts, crossed, crossedSum, row } = this;
    const size = counts.length;
    for (let j = 0; j < nets.length; j++) {
      const n = nets[j]!;
      if (counts[n] === 0) continue;
      for (let m = 0; m < size; m++) {
        const more = row[j * size + m]! - crossed[n * size + m]!;
        if (more === 0) continue;
        crossed[n * size + m] = crossed[m * size + n] = row[j * size + m]!;
        crossedSum[n]! += more;
        crossedSum[m]! += more;
      }
    }
  }
}

/** Where each list begins when they are put behind each other, and where the last ends. */
function starts(lengths: readonly number[]): Int32Array {
  const list = new Int32Array(lengths.length + 1);
  lengths.forEach((length, i) => (list[i + 1] = list[i]! + length));
  return list;
}

/** How many level pieces are crossed by upright ones. */
function over(level: Int16Array, levels: number, upright: Int16Array, uprights: number): number {
  let sum = 0;
  for (let s = 0; s < 3 * levels; s += 3) {
    const y = level[s]!;
    const left = level[s + 1]!;
    const right = level[s + 2]!;
    for (let t = 0; t < 3 * uprights; t += 3) {
      const x = upright[t]!;
      if (x > left && x < right && y > upright[t + 1]! && y < upright[t + 2]!) sum++;
    }
  }
  return sum;
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
