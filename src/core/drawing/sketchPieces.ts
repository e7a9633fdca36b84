import { CELL_HEIGHT, CELL_WIDTH } from './form';
import type { Placement } from './placement';
import type { Scene, SceneNet } from './scene';

/** Nets of more pins are names for the most part: what they cross does not count. */
const MANY_PINS = 12;

/** Whether a net is drawn as wires. */
export const isWired = ({ sign, pins }: SceneNet): boolean => sign === null && pins.length > 1;

/**
 * The pieces that sketched wires are made of, the cells they run through, and how often they cross. Each net has two
 * sketches, the one it has now and the one before: `takeBack` has that again.
 */
export class SketchPieces {
  /** Which of its two sketches a net has now: what follows is kept for both, those of net n at 2 n and 2 n + 1. */
  readonly side: Uint8Array;
  /** Each net's level pieces (y, left, right) and upright ones (x, top, bottom). */
  private readonly level: readonly Int16Array[];
  private readonly upright: readonly Int16Array[];
  private readonly levelCount: Int16Array;
  private readonly uprightCount: Int16Array;
  private readonly box: Int16Array;
  /** The cells that each net's wires run through, and how many wires run through each cell. */
  private readonly cells: readonly Int16Array[];
  private readonly cellCount: Int16Array;
  private readonly through: Int16Array;
  /** Nets whose crossings count. */
  private readonly counts: Uint8Array;
  /** How often each two nets cross, and each net all others. */
  private readonly crossed: Int16Array;
  private readonly crossedSum: Int32Array;
  private readonly row: Int16Array;

  constructor(
    private readonly scene: Scene,
    private readonly p: Placement,
    /** The symbol in each cell; -1 without. */
    private readonly taken: Int16Array,
  ) {
    const { nets } = scene;
    const twice = nets.flatMap((n) => [n, n]);
    this.side = new Uint8Array(nets.length);
    this.level = twice.map((n) => new Int16Array(3 * (n.pins.length + 3)));
    this.upright = twice.map((n) => new Int16Array(3 * (n.pins.length + 3)));
    this.levelCount = new Int16Array(twice.length);
    this.uprightCount = new Int16Array(twice.length);
    this.box = new Int16Array(4 * twice.length);
    this.cells = twice.map((n) => new Int16Array((n.pins.length + 3) * (p.cols + p.rows)));
    this.cellCount = new Int16Array(twice.length);
    this.through = new Int16Array(taken.length);
    this.counts = Uint8Array.from(nets, (n) => (isWired(n) && n.pins.length <= MANY_PINS ? 1 : 0));
    this.crossed = new Int16Array(nets.length ** 2);
    this.crossedSum = new Int32Array(nets.length);
    this.row = new Int16Array(nets.length ** 2);
  }

  /** Counts everything as it is drawn now. */
  begin(nets: readonly number[]): void {
    this.through.fill(0);
    for (const n of nets) this.run(n, 1);
    this.crossed.fill(0);
    this.crossedSum.fill(0);
    this.crossings(nets, Infinity);
    this.keep(nets);
  }

  /** Begins another sketch of a net; where it is kept. */
  another(n: number): number {
    this.takeBack(n);
    const s = 2 * n + this.side[n]!;
    this.levelCount[s] = 0;
    this.uprightCount[s] = 0;
    this.cellCount[s] = 0;
    const b = 4 * s;
    this.box[b] = this.box[b + 1] = 32000;
    this.box[b + 2] = this.box[b + 3] = -1;
    return s;
  }

  /** A net as it was before it was drawn last. */
  takeBack(n: number): void {
    this.side[n] = 1 - this.side[n]!;
  }

  /** Adds a piece of wire to a sketch. */
  add(s: number, x1: number, y1: number, x2: number, y2: number): void {
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
      for (
        let c = last - (Math.floor(bottom / CELL_HEIGHT) - Math.floor(top / CELL_HEIGHT)) * cols;
        c <= last;
        c += cols
      )
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

  /** How often a net crosses others, as was kept last. */
  crossingsOf(n: number): number {
    return this.crossedSum[n]!;
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
