/** What lies on the grid's points, and a search for the cheapest wire over it. Points are numbered row by row. */

const NONE = -1;
/** A step costs 1; these cost more. */
export const BEND_COST = 5;
export const CROSSING_COST = 22;
/** A point right before another net's pin: passing there walls it in. */
const DOORSTEP_COST = 60;
/** Taking a point from another net. */
const FORCE_COST = 25;

export class WireGrid {
  /** The net whose wire runs across a point, and down through it; -1 without. */
  readonly across: Int16Array;
  readonly down: Int16Array;
  /** Points that nothing may enter: symbols, texts, names. */
  readonly blocked: Uint8Array;
  /** The net whose pin is here; -1 without. */
  readonly pin: Int16Array;
  /** The net whose pin needs this point to get out. */
  readonly doorstep: Int16Array;

  /** What a wire that crosses another costs more. */
  crossingCost = CROSSING_COST;

  private readonly cost: Float32Array;
  private readonly seen: Int32Array;
  private readonly done: Int32Array;
  private readonly from: Int32Array;
  private round = 0;
  private readonly shelves = new Shelves();

  constructor(
    readonly width: number,
    readonly height: number,
  ) {
    const n = width * height;
    this.across = new Int16Array(n).fill(NONE);
    this.down = new Int16Array(n).fill(NONE);
    this.blocked = new Uint8Array(n);
    this.pin = new Int16Array(n).fill(NONE);
    this.doorstep = new Int16Array(n).fill(NONE);
    this.cost = new Float32Array(4 * n);
    this.seen = new Int32Array(4 * n);
    this.done = new Int32Array(4 * n);
    this.from = new Int32Array(4 * n);
  }

  at(x: number, y: number): number {
    return y * this.width + x;
  }

  inside(x: number, y: number): boolean {
    return x >= 0 && y >= 0 && x < this.width && y < this.height;
  }

  /** Whether nothing at all is at a point. */
  isEmpty(i: number): boolean {
    return this.blocked[i] === 0 && this.pin[i] === NONE && this.across[i] === NONE && this.down[i] === NONE;
  }

  /**
   * The cheapest wire of a net from a point to the first of the points that `isEnd` tells: corners, both ends included;
   * null where there is none that costs less than `most`. guess: what it costs at least from a place on. force: over other
   * nets' wires too, which have to go then (`inTheWay`).
   */
  search(
    net: number,
    start: number,
    isEnd: (point: number) => boolean,
    guess: (x: number, y: number) => number,
    most: number,
    force = false,
  ): { readonly points: readonly number[]; readonly cost: number } | null {
    const { width, height, shelves, done, across, down, blocked, pin, cost, doorstep, crossingCost } = this;
    const round = ++this.round;
    shelves.clear();
    const [sx, sy] = [start % width, Math.floor(start / width)];
    const first = guess(sx, sy);
    for (let d = 0; d < 4; d++) {
      this.reach(4 * start + d, 0, -1);
      shelves.push(4 * start + d, first);
    }
    // The guess is never too high: what is left costs at least as much.
    for (let state = shelves.pop(most); state >= 0; state = shelves.pop(most)) {
      if (done[state] === round) continue;
      done[state] = round;
      const point = state >> 2;
      const d = state & 3;
      const so = cost[state]!;
      if (point !== start && isEnd(point) && (force || this.mayStop(net, point)))
        return { points: this.way(state), cost: so };
      const x = point % width;
      const y = (point - x) / width;
      const bound = this.crosses(net, point);
      for (let e = 0; e < 4; e++) {
        // No way back, and straight on over another wire.
        if (point !== start && (e ^ 1) === d) continue;
        if (bound && e !== d && !force) continue;
        const nx = x + STEP_X[e]!;
        const ny = y + STEP_Y[e]!;
        if (nx < 0 || ny < 0 || nx >= width || ny >= height) continue;
        const next = ny * width + nx;
        const to = 4 * next + e;
        if (done[to] === round) continue;
        if (blocked[next] !== 0 || (pin[next] !== NONE && pin[next] !== net)) continue;
        const a = across[next]!;
        const v = down[next]!;
        const isOther = (a !== NONE && a !== net) || (v !== NONE && v !== net);
        let more = 1;
        // Into a wire of another net only athwart, and not where the own net turns there.
        const along = e < 2 ? a : v;
        if (isOther && along !== NONE) {
          if (!force) continue;
          more += FORCE_COST;
        }
        if (point === start && !force && !this.mayLeave(net, point, e)) continue;
        if (e !== d && point !== start) more += BEND_COST;
        if (isOther) more += crossingCost;
        const step = doorstep[next]!;
        if (step !== NONE && step !== net) more += DOORSTEP_COST;
        if (this.reach(to, so + more, state)) shelves.push(to, so + more + guess(nx, ny));
      }
    }
    return null;
  }

  /** The nets whose wires a way runs along, or turns or ends on. */
  inTheWay(net: number, points: readonly number[]): ReadonlySet<number> {
    const found = new Set<number>();
    points.forEach((i, k) => {
      const [before, after] = [points[k - 1], points[k + 1]];
      const across = [before, after].some((j) => j !== undefined && Math.abs(j - i) === 1);
      const down = [before, after].some((j) => j !== undefined && Math.abs(j - i) !== 1);
      const [a, d] = [this.across[i]!, this.down[i]!];
      const turns = (across && down) || before === undefined || after === undefined || (a !== NONE && a === d);
      if (a !== NONE && a !== net && (across || turns)) found.add(a);
      if (d !== NONE && d !== net && (down || turns)) found.add(d);
    });
    return found;
  }

  /** How many other wires a way crosses. */
  crossingsOf(net: number, points: readonly number[]): number {
    return points.filter((i) => this.crosses(net, i)).length;
  }

  private mayLeave(net: number, i: number, direction: number): boolean {
    const along = direction < 2 ? this.across[i]! : this.down[i]!;
    return along === NONE || along === net;
  }

  /** Whether another net's wire runs through a point. */
  private crosses(net: number, i: number): boolean {
    const a = this.across[i]!;
    const d = this.down[i]!;
    return (a !== NONE && a !== net) || (d !== NONE && d !== net);
  }

  /** Whether a net's wire may end at a point: no other runs through it. */
  mayStop(net: number, i: number): boolean {
    return !this.crosses(net, i);
  }

  private reach(state: number, cost: number, from: number): boolean {
    if (this.seen[state] === this.round && this.cost[state]! <= cost) return false;
    this.seen[state] = this.round;
    this.cost[state] = cost;
    this.from[state] = from;
    return true;
  }

  private way(last: number): readonly number[] {
    const points: number[] = [];
    for (let s = last; s >= 0; s = this.from[s]!) points.push(s >> 2);
    return points;
  }

  /** Lays a wire over neighbouring points. */
  lay(net: number, points: readonly number[]): void {
    for (let i = 1; i < points.length; i++) {
      const [a, b] = [points[i - 1]!, points[i]!];
      const list = Math.abs(a - b) === 1 ? this.across : this.down;
      list[a] = net;
      list[b] = net;
    }
  }

  /** Takes every wire of a net away. */
  lift(net: number, points: readonly number[]): void {
    for (const i of points) {
      if (this.across[i] === net) this.across[i] = NONE;
      if (this.down[i] === net) this.down[i] = NONE;
    }
  }
}

const STEP_X = [-1, 1, 0, 0] as const;
const STEP_Y = [0, 0, -1, 1] as const;

/** States by their cost, a whole number: of those that cost the same the last comes first, which is the furthest on its way. */
class Shelves {
  private readonly shelves: number[][] = [];
  private at = 0;
  private top = -1;

  clear(): void {
    for (let i = 0; i <= this.top; i++) this.shelves[i]!.length = 0;
    this.at = 0;
    this.top = -1;
  }

  push(item: number, cost: number): void {
    while (this.shelves.length <= cost) this.shelves.push([]);
    this.shelves[cost]!.push(item);
    if (cost > this.top) this.top = cost;
    if (cost < this.at) this.at = cost;
  }

  /** One of the cheapest; -1 where nothing is left that costs no more than so much. */
  pop(most: number): number {
    for (; this.at <= this.top && this.at <= most; this.at++) {
      const item = this.shelves[this.at]!.pop();
      if (item !== undefined) return item;
    }
    return -1;
  }
}
