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

/** The wires that a placement would roughly have: each net along one trunk, two pins by the fewest corners. */
export class WireSketch {
  /** Nets of wires at each symbol. */
  readonly netsAt: readonly (readonly number[])[];
  /** For each symbol, pose and pin: its place in the block, and the way it looks. */
  private readonly px: readonly (readonly Int16Array[])[];
  private readonly py: readonly (readonly Int16Array[])[];
  private readonly dx: readonly (readonly Int8Array[])[];
  private readonly dy: readonly (readonly Int8Array[])[];
  /** Each net's level pieces (y, left, right) and upright ones (x, top, bottom). */
  private readonly level: readonly Int16Array[];
  private readonly upright: readonly Int16Array[];
  private readonly levelCount: Int16Array;
  private readonly uprightCount: Int16Array;
  /** Nets whose crossings count: those of very many pins are names for the most part. */
  private readonly counts: Uint8Array;
  private readonly box: readonly Int16Array[];
  private readonly costs: Float64Array;
  private readonly xs = new Int16Array(512);
  private readonly ys = new Int16Array(512);
  private readonly sortedX = new Int16Array(512);
  private readonly sortedY = new Int16Array(512);

  constructor(
    private readonly scene: Scene,
    private readonly p: Placement,
  ) {
    const at = scene.symbols.map((): number[] => []);
    scene.nets.forEach((net, n) => {
      if (net.sign !== null || net.pins.length < 2) return;
      for (const i of new Set(net.pins.map(([s]) => s))) at[i]!.push(n);
    });
    this.netsAt = at;
    const of = <T>(read: (pin: { x: number; y: number; side: Side }) => number, make: (list: number[]) => T): T[][] =>
      scene.symbols.map((s) => s.poses.map((pose) => make(pose.pins.map(read))));
    this.px = of(
      (q) => q.x,
      (l) => Int16Array.from(l),
    );
    this.py = of(
      (q) => q.y,
      (l) => Int16Array.from(l),
    );
    this.dx = of(
      (q) => STEP_TO[q.side][0],
      (l) => Int8Array.from(l),
    );
    this.dy = of(
      (q) => STEP_TO[q.side][1],
      (l) => Int8Array.from(l),
    );
    this.level = scene.nets.map((n) => new Int16Array(3 * (n.pins.length + 3)));
    this.upright = scene.nets.map((n) => new Int16Array(3 * (n.pins.length + 3)));
    this.levelCount = new Int16Array(scene.nets.length);
    this.uprightCount = new Int16Array(scene.nets.length);
    this.counts = Uint8Array.from(scene.nets, (n) =>
      n.sign === null && n.pins.length > 1 && n.pins.length <= MANY_PINS ? 1 : 0,
    );
    this.box = scene.nets.map(() => new Int16Array(4));
    this.costs = new Float64Array(scene.nets.length);
  }

  /** Two pins of a symbol change places: it has one pose. */
  swap(i: number, k: number, l: number): void {
    for (const list of [this.px, this.py, this.dx, this.dy]) {
      const own = list[i]![0]!;
      [own[k], own[l]] = [own[l]!, own[k]!];
    }
    const seats = this.p.seats[i]!;
    [seats[k], seats[l]] = [seats[l]!, seats[k]!];
  }

  /** The nets of wires at two pins of a symbol. */
  netsAtPins(i: number, k: number, l: number): readonly number[] {
    return this.netsAt[i]!.filter((n) => this.scene.nets[n]!.pins.some(([s, q]) => s === i && (q === k || q === l)));
  }

  /** What a net costs as it was drawn last. */
  cost(n: number): number {
    return this.costs[n]!;
  }

  /** Draws a net where its pins are now. */
  draw(n: number): void {
    const net = this.scene.nets[n]!;
    this.levelCount[n] = 0;
    this.uprightCount[n] = 0;
    this.costs[n] = 0;
    const box = this.box[n]!;
    box[0] = box[1] = 32000;
    box[2] = box[3] = -1;
    if (net.sign !== null || net.pins.length < 2) return;
    if (net.pins.length === 2) this.pair(n);
    else this.trunk(n);
  }

  private pair(n: number): void {
    const [[i, k], [j, l]] = this.scene.nets[n]!.pins as [readonly [number, number], readonly [number, number]];
    const { p } = this;
    const [a, b] = [p.pose[i]!, p.pose[j]!];
    const x1 = p.col[i]! * CELL_WIDTH + this.px[i]![a]![k]!;
    const y1 = p.row[i]! * CELL_HEIGHT + this.py[i]![a]![k]!;
    const x2 = p.col[j]! * CELL_WIDTH + this.px[j]![b]![l]!;
    const y2 = p.row[j]! * CELL_HEIGHT + this.py[j]![b]![l]!;
    const [ax, ay, bx, by] = [this.dx[i]![a]![k]!, this.dy[i]![a]![k]!, this.dx[j]![b]![l]!, this.dy[j]![b]![l]!];
    const forward = ax * (x2 - x1) + ay * (y2 - y1);
    const backward = bx * (x1 - x2) + by * (y1 - y2);
    let bends = 0;
    if (x1 === x2 || y1 === y2) this.piece(n, x1, y1, x2, y2);
    else if (ax !== 0 && bx !== 0) {
      bends = 2;
      const m = (x1 + x2) >> 1;
      this.piece(n, x1, y1, m, y1);
      this.piece(n, m, y1, m, y2);
      this.piece(n, m, y2, x2, y2);
    } else if (ay !== 0 && by !== 0) {
      bends = 2;
      const m = (y1 + y2) >> 1;
      this.piece(n, x1, y1, x1, m);
      this.piece(n, x1, m, x2, m);
      this.piece(n, x2, m, x2, y2);
    } else {
      bends = 1;
      const [cx, cy] = ax !== 0 ? [x2, y1] : [x1, y2];
      this.piece(n, x1, y1, cx, cy);
      this.piece(n, cx, cy, x2, y2);
    }
    let away = forward < 0 ? AWAY : forward === 0 ? AWAY / 2 : 0;
    away += backward < 0 ? AWAY : backward === 0 ? AWAY / 2 : 0;
    this.costs[n] = Math.abs(x1 - x2) + Math.abs(y1 - y2) + BEND * bends + away;
  }

  private trunk(n: number): void {
    const { pins } = this.scene.nets[n]!;
    const { p, xs, ys } = this;
    const size = pins.length;
    for (let q = 0; q < size; q++) {
      const at = pins[q]!;
      const i = at[0];
      const k = at[1];
      const o = p.pose[i]!;
      xs[q] = p.col[i]! * CELL_WIDTH + this.px[i]![o]![k]!;
      ys[q] = p.row[i]! * CELL_HEIGHT + this.py[i]![o]![k]!;
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
      const at = pins[q]!;
      const i = at[0];
      const k = at[1];
      const o = p.pose[i]!;
      if (this.dx[i]![o]![k]! * dx < -4) away += AWAY / 2;
      if (this.dy[i]![o]![k]! * dy < -1) away += AWAY / 2;
    }
    this.costs[n] = Math.min(across, down) + away;
    if (across <= down) {
      this.piece(n, left, my, right, my);
      for (let q = 0; q < size; q++) if (ys[q] !== my) this.piece(n, xs[q]!, ys[q]!, xs[q]!, my);
    } else {
      this.piece(n, mx, top, mx, bottom);
      for (let q = 0; q < size; q++) if (xs[q] !== mx) this.piece(n, xs[q]!, ys[q]!, mx, ys[q]!);
    }
  }

  private piece(n: number, x1: number, y1: number, x2: number, y2: number): void {
    if (y1 === y2) {
      if (x1 === x2) return;
      const s = 3 * this.levelCount[n]!++;
      const list = this.level[n]!;
      list[s] = y1;
      list[s + 1] = Math.min(x1, x2);
      list[s + 2] = Math.max(x1, x2);
    } else {
      const s = 3 * this.uprightCount[n]!++;
      const list = this.upright[n]!;
      list[s] = x1;
      list[s + 1] = Math.min(y1, y2);
      list[s + 2] = Math.max(y1, y2);
    }
    const box = this.box[n]!;
    box[0] = Math.min(box[0]!, x1, x2);
    box[1] = Math.min(box[1]!, y1, y2);
    box[2] = Math.max(box[2]!, x1, x2);
    box[3] = Math.max(box[3]!, y1, y2);
  }

  /** How often the wires of these nets cross others, those among themselves twice. */
  crossings(nets: readonly number[]): number {
    let sum = 0;
    for (const n of nets) {
      const box = this.box[n]!;
      if (!this.counts[n]) continue;
      for (let m = 0; m < this.counts.length; m++) {
        if (m === n || this.counts[m] === 0) continue;
        const other = this.box[m]!;
        if (other[0]! >= box[2]! || other[2]! <= box[0]! || other[1]! >= box[3]! || other[3]! <= box[1]!) continue;
        sum += over(this.level[n]!, this.levelCount[n]!, this.upright[m]!, this.uprightCount[m]!);
        sum += over(this.level[m]!, this.levelCount[m]!, this.upright[n]!, this.uprightCount[n]!);
      }
    }
    return sum;
  }
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
