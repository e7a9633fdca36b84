import { CROSSING_COST } from './wireGrid';
import type { WireGrid } from './wireGrid';

/** A net to be wired: where its pins are, as points of the grid. */
export interface NetToWire {
  readonly net: number;
  readonly pins: readonly number[];
  /** What a wire to one more pin may cost before its name is written there instead. */
  readonly most: number;
  /** Whether it carries the power: it stays a line as long as it can. */
  readonly isPower: boolean;
}

/** Whether a net is one of many pins that carries no power: it is known by its name. */
const isRail = ({ pins, isPower }: NetToWire): boolean => !isPower && pins.length > FEW_PINS;

/** How a net was wired: its ways as neighbouring points, and the pins that no wire reaches. */
export interface WiredNet {
  /** What hangs together by wires: a list of ways for each; one where the net is whole. */
  readonly trees: readonly (readonly (readonly number[])[])[];
  readonly lone: readonly number[];
}

/** How often everything is taken up and laid anew with all the others there. */
const ROUNDS = 2;
/** With so many times the crossings that are not too many it is no use to lay everything anew as it is. */
const TANGLED = 2;
/** What a crossing costs each time that nets of few pins are laid anew to be rid of crossings; how much longer one may be that has to go round about. */
const UNTANGLING = [60, 120, 120] as const;
const LONGER = 3;
/** How often a net may push others out of its way. */
const PUSHES = 3;
/** Nets with more pins are rails. */
export const FEW_PINS = 5;
/** A rail keeps what reaches no further than this. */
const SHORTEST = 9;
/** What a crossing costs once there are too many. */
const ROUND_ABOUT = 60;
/** What a wire may cost that joins pins of a net that is named; what a crossing costs it. */
const NEXT_TO = 32;
const NEVER = 1000;

/** Wires nets on a grid: the shortest first, then each of them anew among the others; what finds no way pushes others aside. */
export class Router {
  readonly wired = new Map<number, WiredNet>();
  private readonly byNet: ReadonlyMap<number, NetToWire>;

  constructor(
    private readonly grid: WireGrid,
    private readonly nets: readonly NetToWire[],
  ) {
    this.byNet = new Map(nets.map((n) => [n.net, n]));
  }

  /** most: crossings that are not too many. */
  wireAll(most: number): void {
    const order = [...this.nets].sort((a, b) => this.span(a.pins) - this.span(b.pins));
    for (const net of order) this.anew(net);
    if (this.total() > TANGLED * most) {
      this.untangle();
      this.push(order);
      return;
    }
    for (let round = 0; round < ROUNDS; round++) {
      this.push(order);
      for (const net of [...order].reverse()) if (!this.isPlain(net.net)) this.anew(net);
    }
    this.push(order);
    if (this.total() > most) this.untangle();
  }

  /** How often a net's wires cross others. */
  crossingsOf(net: number): number {
    return (this.wired.get(net)?.trees.flat() ?? []).reduce((sum, way) => sum + this.grid.crossingsOf(net, way), 0);
  }

  /**
   * Cuts wires that cross others until there are no more than `most` crossings: far pins of rails first, which are known by
   * their names; then whole nets of few pins, of which so many may be named.
   */
  thin(most: number, mayName: number): void {
    if (this.total() <= most) return;
    const named = new Set<number>();
    const reach = new Map<number, number>();
    this.cut(most, mayName, named, reach);
    this.grid.crossingCost = ROUND_ABOUT;
    for (const net of this.nets)
      if (!named.has(net.net) && !reach.has(net.net) && this.crossingsOf(net.net) > 0) this.anew(net);
    this.grid.crossingCost = CROSSING_COST;
    this.restore(() => this.total() <= most);
    // What came back leaves room in the share for what crosses more.
    this.grid.crossingCost = ROUND_ABOUT;
    this.cut(most, mayName, named, reach);
    // Where pins of a net that is named are next to each other, a wire is still the shorter word.
    this.grid.crossingCost = NEVER;
    for (const net of this.nets)
      if (this.wired.get(net.net)?.trees.length === 0 && net.pins.length > 1) this.anew({ ...net, most: NEXT_TO });
    this.grid.crossingCost = CROSSING_COST;
  }

  /** Nets of few pins go round about each other, without rails in their way; these then, where they cross little. */
  private untangle(): void {
    const isFew = (n: NetToWire): boolean => n.pins.length <= FEW_PINS;
    const [few, many] = [this.nets.filter(isFew), this.nets.filter((n) => !isFew(n))];
    for (const { net } of many) this.lift(net);
    for (const cost of UNTANGLING) {
      this.grid.crossingCost = cost;
      for (const net of few) if (this.crossingsOf(net.net) > 0) this.anew({ ...net, most: LONGER * net.most });
    }
    this.grid.crossingCost = ROUND_ABOUT;
    for (const net of many) this.anew(net);
  }

  /** How many crossings there are. */
  private total(): number {
    return this.nets.reduce((sum, n) => sum + this.crossingsOf(n.net), 0) / 2;
  }

  private cut(most: number, mayName: number, named: Set<number>, reach: Map<number, number>): void {
    let left = mayName - this.nets.filter((n) => n.pins.length <= FEW_PINS && this.isShort(n.net)).length;
    const score = (n: NetToWire): number =>
      this.crossingsOf(n.net) * (n.pins.length <= FEW_PINS ? 1 : n.isPower ? 0.8 : 2);
    for (let tries = 0; tries < 3 * this.nets.length && this.total() > most; tries++) {
      const candidates = this.nets.filter(({ net, pins }) => !named.has(net) && (pins.length > FEW_PINS || left > 0));
      const [worst] = candidates.map((n) => ({ ...n, score: score(n) })).sort((a, b) => b.score - a.score);
      if (!worst || worst.score === 0) break;
      if (worst.pins.length > FEW_PINS) {
        const now = (reach.get(worst.net) ?? worst.most) * 0.6;
        reach.set(worst.net, now);
        this.anew({ ...worst, most: now });
        if (now < SHORTEST) named.add(worst.net);
      } else {
        named.add(worst.net);
        left--;
        this.lift(worst.net);
        this.wired.set(worst.net, { trees: [], lone: worst.pins });
      }
    }
  }

  /** Wires nets of few pins after all that were cut, where it stays good. */
  private restore(isGood: () => boolean): void {
    const cut = this.nets.filter((n) => n.pins.length <= FEW_PINS && this.isShort(n.net));
    for (const net of cut.sort((a, b) => this.span(a.pins) - this.span(b.pins))) {
      const before = this.wired.get(net.net)!;
      this.anew({ ...net, most: LONGER * net.most });
      if (!this.isShort(net.net) && isGood()) continue;
      this.lift(net.net);
      for (const way of before.trees.flat()) this.grid.lay(net.net, way);
      this.wired.set(net.net, before);
    }
  }

  /** Takes a net's wires up. */
  lift(net: number): void {
    for (const way of this.wired.get(net)?.trees.flat() ?? []) this.grid.lift(net, way);
    this.wired.delete(net);
  }

  private anew(net: NetToWire, force = false): void {
    this.lift(net.net);
    this.wired.set(net.net, this.wire(net, force));
  }

  /** Nets with pins that no wire reaches push others out of their way. */
  private push(order: readonly NetToWire[]): void {
    const pushed = new Map<number, number>();
    const queue = order.filter((n) => this.mayPush(n));
    while (queue.length > 0) {
      const net = queue.shift()!;
      const times = pushed.get(net.net) ?? 0;
      if (times >= PUSHES || !this.isShort(net.net)) continue;
      pushed.set(net.net, times + 1);
      const before = new Set(this.wired.keys());
      this.anew(net, true);
      for (const other of before) {
        if (this.wired.has(other)) continue;
        const pushedOut = this.byNet.get(other)!;
        this.anew(pushedOut);
        if (this.mayPush(pushedOut)) queue.push(pushedOut);
      }
    }
  }

  /** Rails push nothing aside. */
  private mayPush(net: NetToWire): boolean {
    return !isRail(net) && this.isShort(net.net);
  }

  /** Whether all of a net is joined and no way could be much simpler: nothing is crossed, no more than one corner each. */
  private isPlain(net: number): boolean {
    if (this.isShort(net)) return false;
    const ways = this.wired.get(net)?.trees.flat() ?? [];
    return ways.every((way) => corners(way) < 2) && this.crossingsOf(net) === 0;
  }

  private isShort(net: number): boolean {
    const wired = this.wired.get(net);
    return wired !== undefined && this.byNet.get(net)!.pins.length > 1 && wired.lone.length + wired.trees.length > 1;
  }

  private span(pins: readonly number[]): number {
    const xs = pins.map((p) => p % this.grid.width);
    const ys = pins.map((p) => Math.floor(p / this.grid.width));
    return Math.max(...xs) - Math.min(...xs) + Math.max(...ys) - Math.min(...ys) + pins.length;
  }

  /** Wires a net as one tree; what that does not reach as further ones. */
  private wire(net: NetToWire, force: boolean): WiredNet {
    if (net.pins.length < 2) return { trees: [], lone: net.pins };
    const trees: (readonly (readonly number[])[])[] = [];
    const lone: number[] = [];
    let rest = net.pins;
    while (rest.length > 0) {
      const { ways, first, left } = this.grow(net, rest, force);
      if (ways.length > 0) trees.push(ways);
      else lone.push(first);
      rest = left;
    }
    return { trees, lone };
  }

  private grow(
    { net, most }: NetToWire,
    pins: readonly number[],
    force: boolean,
  ): { readonly ways: readonly (readonly number[])[]; readonly first: number; readonly left: readonly number[] } {
    const { grid } = this;
    const ways: (readonly number[])[] = [];
    const tree = new Set<number>();
    const rest = new Set(pins);
    // From the pin in the middle outwards.
    const first = this.middle(pins);
    tree.add(first);
    rest.delete(first);
    const left: number[] = [];
    const xy = (p: number): readonly [number, number] => [p % grid.width, Math.floor(p / grid.width)];
    let [west, north] = xy(first);
    let [east, south] = [west, north];
    const guess = (x: number, y: number): number => Math.max(0, west - x, x - east) + Math.max(0, north - y, y - south);
    const isEnd = (p: number): boolean => tree.has(p);
    while (rest.size > 0) {
      const next = [...rest].reduce((a, b) => (guess(...xy(b)) < guess(...xy(a)) ? b : a));
      rest.delete(next);
      let found = grid.search(net, next, isEnd, guess, most);
      if (!found && force) {
        found = grid.search(net, next, isEnd, guess, 2 * most, true);
        if (found) for (const other of grid.inTheWay(net, found.points)) this.lift(other);
      }
      if (!found) {
        left.push(next);
        continue;
      }
      grid.lay(net, found.points);
      ways.push(found.points);
      for (const p of found.points) {
        tree.add(p);
        const [x, y] = xy(p);
        [west, east, north, south] = [Math.min(west, x), Math.max(east, x), Math.min(north, y), Math.max(south, y)];
      }
    }
    return { ways, first, left };
  }

  private middle(pins: readonly number[]): number {
    const { width } = this.grid;
    const xs = pins.map((p) => p % width).sort((a, b) => a - b);
    const ys = pins.map((p) => Math.floor(p / width)).sort((a, b) => a - b);
    const [mx, my] = [xs[xs.length >> 1]!, ys[ys.length >> 1]!];
    const far = (p: number): number => Math.abs((p % width) - mx) + Math.abs(Math.floor(p / width) - my);
    return pins.reduce((a, b) => (far(b) < far(a) ? b : a));
  }
}

/** How often a way turns. */
function corners(way: readonly number[]): number {
  let sum = 0;
  for (let i = 2; i < way.length; i++) if (way[i]! - way[i - 1]! !== way[i - 1]! - way[i - 2]!) sum++;
  return sum;
}
