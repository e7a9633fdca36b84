import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { powerConverters } from '../stages';
import type { Pose } from './form';
import { inLine } from './form';
import type { Standing } from './remembered';
import type { SceneSymbol } from './scene';

/** Most parts that stand in one line as a block. */
const LONGEST = 4;
const LYING_BLOCK = 3;
/** A divider hangs on something at least as high as this. */
const HIGH = 0.3;

/**
 * Symbols that always stand together, as one block each: the transistors of a leg between its rails, parts in series, the
 * two halves of a divider. The others stay alone, and so do those that stood apart before.
 */
export function joinBlocks(
  board: Board,
  symbols: readonly SceneSymbol[],
  signs: ReadonlyMap<string, number>,
  levels: ReadonlyMap<string, number>,
  before?: Standing,
): readonly SceneSymbol[] {
  const joiner = new Joiner(board, symbols, signs, levels, before);
  joiner.legs();
  joiner.chains();
  return joiner.blocks();
}

/** An end of a two-pin symbol. */
interface End {
  readonly symbol: number;
  readonly pin: 0 | 1;
}

/** A line of parts from its other end. */
const fromBehind = (line: readonly End[]): readonly End[] =>
  [...line].reverse().map(({ symbol, pin }) => ({ symbol, pin: pin === 0 ? 1 : 0 }));

class Joiner {
  private readonly used = new Set<number>();
  private readonly made: SceneSymbol[] = [];
  private readonly netsOf: readonly (readonly string[])[];
  private readonly pinsOn = new Map<string, [number, number][]>();

  constructor(
    private readonly board: Board,
    private readonly symbols: readonly SceneSymbol[],
    private readonly signs: ReadonlyMap<string, number>,
    private readonly levels: ReadonlyMap<string, number>,
    private readonly before: Standing | undefined,
  ) {
    const parts = new Map(board.parts.map((p) => [p.ref, p]));
    this.netsOf = symbols.map((s) => s.poses[0]!.pins.map((p) => netKey(parts.get(p.ref)!.nets[p.pin]!)));
    this.netsOf.forEach((nets, i) =>
      nets.forEach((net, k) => this.pinsOn.set(net, [...(this.pinsOn.get(net) ?? []), [i, k]])),
    );
  }

  blocks(): readonly SceneSymbol[] {
    return [...this.made, ...this.symbols.filter((_, i) => !this.used.has(i))];
  }

  /** A leg's upper transistor over its lower one. */
  legs(): void {
    const at = new Map(this.symbols.map((s, i) => [s.members[0]!.refs[0]!, i]));
    for (const { switches } of powerConverters(this.board))
      for (const top of switches) {
        if (top.side !== 'top') continue;
        const bottom = switches.find((s) => s.side === 'bottom' && s.leg === top.leg);
        if (!bottom) continue;
        top.refs.forEach((ref, k) => {
          const pair = [at.get(ref), at.get(bottom.refs[k] ?? '')];
          if (pair.some((i) => i === undefined || this.used.has(i))) return;
          this.leg(pair as [number, number]);
        });
      }
  }

  private leg([upper, lower]: readonly [number, number]): void {
    const list = [upper, lower];
    const level = (i: number, k: number): number => this.levels.get(this.netsOf[i]![k]!) ?? 0.5;
    const upright = (i: number): boolean => level(i, 0) >= level(i, 2);
    const shared = this.netsOf[upper]!.find((n) => this.netsOf[lower]!.includes(n));
    const standing = list.map((i) => {
      const [a, b] = [this.netsOf[i]![0], this.netsOf[i]![2]];
      if (shared === undefined || (a !== shared && b !== shared)) return upright(i);
      return i === upper ? b === shared : a === shared;
    });
    const poses = [false, true].map((flip) =>
      inLine(
        list.map((i, k) => this.symbols[i]!.poses[(standing[k]! ? 0 : 2) + (flip ? 1 : 0)]!),
        false,
        0,
        flip ? 0.5 : 0,
      ),
    );
    this.join(list, poses);
  }

  /** Parts in series, and a divider's lower part below them. */
  chains(): void {
    this.symbols.forEach((_, i) => {
      if (!this.isFree(i)) return;
      const chain = this.longest(i);
      const foot = this.foot(chain);
      const whole = foot ? [...chain, foot] : chain;
      if (whole.length < 2) return;
      this.chain(whole.slice(0, LONGEST));
    });
  }

  private isFree(i: number): boolean {
    const s = this.symbols[i]!;
    return !this.used.has(i) && s.poses.length === 4 && s.side !== 'barrier' && s.poses[0]!.pins.length === 2;
  }

  /** The line of parts through one, from end to end; each with the pin that it is entered by. */
  private longest(i: number): readonly End[] {
    const seen = new Set([i]);
    const grow = (from: End): End[] => {
      const list: End[] = [];
      for (let end = from; ;) {
        const net = this.netsOf[end.symbol]![1 - end.pin]!;
        const pins = this.pinsOn.get(net)!;
        const next = pins.find(([s]) => s !== end.symbol);
        if (pins.length !== 2 || this.signs.has(net) || !next) return list;
        const [symbol, pin] = next;
        if (seen.has(symbol) || !this.isFree(symbol) || !this.together(i, symbol)) return list;
        seen.add(symbol);
        end = { symbol, pin: pin as 0 | 1 };
        list.push(end);
      }
    };
    const after = grow({ symbol: i, pin: 0 });
    const before = grow({ symbol: i, pin: 1 });
    const line = [...fromBehind(before), { symbol: i, pin: 0 } as End, ...after];
    // From the higher end to the lower.
    const first = this.level(line[0]!, 0);
    const last = this.level(line.at(-1)!, 1);
    return last > first ? fromBehind(line) : line;
  }

  /** The level where a part is entered (0) or left (1). */
  private level({ symbol, pin }: End, end: 0 | 1): number {
    return this.levels.get(this.netsOf[symbol]![end === 0 ? pin : 1 - pin]!) ?? 0.5;
  }

  /** A resistor from where a line of resistors ends to the reference: they are a divider. */
  private foot(line: readonly End[]): End | null {
    const last = line.at(-1)!;
    const tap = this.netsOf[last.symbol]![1 - last.pin]!;
    const isResistor = ({ symbol }: End): boolean => this.symbols[symbol]!.members[0]!.kind === 'resistor';
    if (this.signs.has(tap) || !line.every(isResistor) || this.level(line[0]!, 0) < HIGH) return null;
    const pins = this.pinsOn.get(tap)!;
    if (pins.length < 3 || pins.length > 5) return null;
    for (const [symbol, pin] of pins) {
      const end = { symbol, pin: pin as 0 | 1 };
      if (line.some((e) => e.symbol === symbol) || !this.isFree(symbol) || !isResistor(end)) continue;
      if (this.signs.has(this.netsOf[symbol]![1 - pin]!) && this.together(last.symbol, symbol)) return end;
    }
    return null;
  }

  /** Of one stage, and not known to stand apart. */
  private together(a: number, b: number): boolean {
    if (this.symbols[a]!.stages[0] !== this.symbols[b]!.stages[0]) return false;
    const [p, q] = [a, b].map((i) => this.before?.places[this.symbols[i]!.members[0]!.refs[0]!]);
    return !p || !q || Math.abs(p.col - q.col) + Math.abs(p.row - q.row) < LONGEST;
  }

  private chain(line: readonly End[]): void {
    const list = line.map((e) => e.symbol);
    const drop = this.level(line[0]!, 0) - this.level(line.at(-1)!, 1);
    const down = (ends: readonly End[]): Pose[] =>
      ends.map(({ symbol, pin }) => this.symbols[symbol]!.poses[pin === 0 ? 1 : 3]!);
    const along = (ends: readonly End[]): Pose[] =>
      ends.map(({ symbol, pin }) => this.symbols[symbol]!.poses[pin === 0 ? 0 : 2]!);
    const back = fromBehind(line);
    const standing = 8 * Math.max(0, 0.2 - drop);
    const lying = LYING_BLOCK + 20 * Math.max(0, drop - 0.2);
    this.join(list, [
      inLine(down(line), false, 1, standing),
      reordered(inLine(down(back), false, 1, standing), list.length),
      inLine(along(line), true, 0, lying),
      reordered(inLine(along(back), true, 0, lying), list.length),
    ]);
  }

  private join(list: readonly number[], poses: readonly Pose[]): void {
    for (const i of list) this.used.add(i);
    const parts = list.map((i) => this.symbols[i]!);
    this.made.push({
      members: parts.flatMap((s) => s.members),
      poses,
      side: parts[0]!.side,
      seats: [],
      stages: [...new Set(parts.flatMap((s) => s.stages))],
    });
  }
}

/** A block built from its last member to its first, with pins and parts in the order of the members. */
function reordered(pose: Pose, members: number): Pose {
  const order = Array.from({ length: members }, (_, i) => members - 1 - i);
  const pins = order.flatMap((i) => pose.pins.slice(pose.parts[i]!.from, pose.parts[i]!.to));
  let from = 0;
  const parts = order.map((i) => {
    const part = pose.parts[i]!;
    const size = part.to - part.from;
    const made = { ...part, from, to: from + size };
    from += size;
    return made;
  });
  return { ...pose, pins, parts };
}
