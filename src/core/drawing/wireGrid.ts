/** What lies on the grid's points, and a search for the cheapest wire over it. Points are numbered row by row. */

const NONE = -1;
/** Of two ways that may cost the same the one that is nearer its end is followed first; no way on a sheet is long enough for more. */
const NEARER = 1.002;
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
  private readonly heap: Heap;

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
    this.heap = new Heap();
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
    const { width, height, heap, done, cost, doorstep, crossingCost } = this;
    const round = ++this.round;
    heap.clear();
    const [sx, sy] = [start % width, Math.floor(start / width)];
    const first = guess(sx, sy);
    for (let d = 0; d < 4; d++) {
      this.reach(4 * start + d, 0, -1);
      heap.push(4 * start + d, first);
    }
    while (heap.size > 0) {
      // The guess is never too high: what is left costs at least as much.
      if (heap.least > most) return null;
      const state = heap.pop();
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
        let more = 1;
        if (!this.mayEnter(net, next, e)) {
          if (!force || !this.isOpen(net, next)) continue;
          more += FORCE_COST;
        }
        if (point === start && !force && !this.mayLeave(net, point, e)) continue;
        if (e !== d && point !== start) more += BEND_COST;
        if (this.crosses(net, next)) more += crossingCost;
        const step = doorstep[next]!;
        if (step !== NONE && step !== net) more += DOORSTEP_COST;
        if (this.reach(to, so + more, state)) heap.push(to, so + more + NEARER * guess(nx, ny));
      }
    }
    return null;
  }

  /** Whether a wire of a net may come to a point in a direction. */
  private mayEnter(net: number, i: number, direction: number): boolean {
    if (this.blocked[i] !== 0) return false;
    const pin = this.pin[i]!;
    if (pin !== NONE && pin !== net) return false;
    const [along, athwart] = direction < 2 ? [this.across[i]!, this.down[i]!] : [this.down[i]!, this.across[i]!];
    if (along !== NONE && along !== net) return false;
    return athwart === NONE || athwart === net || along === NONE;
  }

  /** Whether only wires could keep a net from a point. */
  private isOpen(net: number, i: number): boolean {
    const pin = this.pin[i]!;
    return this.blocked[i] === 0 && (pin === NONE || pin === net);
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

/** A binary heap of states by their cost. */
class Heap {
  private readonly items: number[] = [];
  private readonly costs: number[] = [];

  get size(): number {
    return this.items.length;
  }

  /** What the cheapest costs. */
  get least(): number {
    return this.costs[0]!;
  }

  clear(): void {
    this.items.length = 0;
    this.costs.length = 0;
  }

  push(item: number, cost: number): void {
    let i = this.items.length;
    this.items.push(item);
    this.costs.push(cost);
    while (i > 0) {
      const up = (i - 1) >> 1;
      if (this.costs[up]! <= cost) break;
      this.items[i] = this.items[up]!;
      this.costs[i] = this.costs[up]!;
      i = up;
    }
    this.items[i] = item;
    this.costs[i] = cost;
  }

  pop(): number {
    const first = this.items[0]!;
    const item = this.items.pop()!;
    const cost = this.costs.pop()!;
    const n = this.items.length;
    if (n === 0) return first;
    let i = 0;
    for (;;) {
      let next = 2 * i + 1;
      if (next >= n) break;
      if (next + 1 < n && this.costs[next + 1]! < this.costs[next]!) next++;
      if (this.costs[next]! >= cost) break;
      this.items[i] = this.items[next]!;
      this.costs[i] = this.costs[next]!;
      i = next;
    }
    this.items[i] = item;
    this.costs[i] = cost;
    return first;
  }
}
