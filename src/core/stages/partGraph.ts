import { netKey, pinNames } from '../circuit';
import { partText, partFigure, junctionFigures, junctionVolts } from '../part';
import type { Board } from '../circuit';
import type { Part, PartKind, JunctionFigures } from '../part';

/**
 * One branch of the canonical circuit: a part, or several equal two-terminal parts in series or in parallel that
 * stand for one. Nets are lower-case keys; a pin that is not connected has a net of its own.
 *
 * value  ohms, farads or henries of the whole branch; null where the kind has none.
 */
export interface Branch {
  readonly kind: PartKind;
  readonly parts: readonly Part[];
  readonly nets: readonly string[];
  readonly value: number | null;
}

export interface BranchPin {
  readonly branch: Branch;
  readonly pin: number;
}

/** The canonical circuit: branches and which of their pins sit on each net. */
export class PartGraph {
  readonly nets: ReadonlyMap<string, readonly BranchPin[]>;

  /** `aside`: branches that stand on no net, as a pin to measure at does. */
  constructor(
    readonly board: Board,
    readonly branches: readonly Branch[],
    aside: ReadonlySet<Branch> = new Set(),
  ) {
    const nets = new Map<string, BranchPin[]>();
    for (const branch of branches) {
      if (aside.has(branch)) continue;
      branch.nets.forEach((net, pin) => {
        const here = nets.get(net);
        if (here) here.push({ branch, pin });
        else nets.set(net, [{ branch, pin }]);
      });
    }
    this.nets = nets;
  }

  /** Pins on a net, optionally of some kinds only. */
  on(net: string, ...kinds: PartKind[]): readonly BranchPin[] {
    const pins = this.nets.get(net) ?? [];
    return kinds.length === 0 ? pins : pins.filter((p) => kinds.includes(p.branch.kind));
  }

  /** Branches of a kind with both ends on two given nets. */
  between(a: string, b: string, ...kinds: PartKind[]): readonly Branch[] {
    return this.on(a, ...kinds)
      .map((p) => p.branch)
      .filter((branch) => branch.nets.length === 2 && branch.nets.includes(b) && a !== b);
  }

  /** All branches of some kinds. */
  all(...kinds: PartKind[]): readonly Branch[] {
    return this.branches.filter((b) => kinds.includes(b.kind));
  }

  /** Every branch that touches a net, once. */
  touching(net: string): readonly Branch[] {
    return [...new Set(this.on(net).map((p) => p.branch))];
  }

  /** The branch that a part belongs to. */
  branchOf(ref: string): Branch | undefined {
    return this.branches.find((b) => b.parts.some((p) => p.ref === ref));
  }
}

/** The other end of a two-terminal branch. */
export function farEnd(branch: Branch, net: string): string {
  return branch.nets[0] === net ? branch.nets[1]! : branch.nets[0]!;
}

/** Net of a named pin of a branch that stands for one part. */
export function pinNet(branch: Branch, name: string): string {
  const part = branch.parts[0]!;
  return branch.nets[pinNames(part).indexOf(name)] ?? '';
}

/**
 * Reads the canonical circuit off a board: positions that are not fitted are left out, a contact drawn as a
 * two-pin subcircuit of one resistor is a switch, and equal two-terminal parts in series or parallel become one.
 * testPins  tells which connectors only are there to measure at; they stand on no net.
 */
export function partGraph(board: Board, testPins: (raw: PartGraph) => readonly Branch[] = () => []): PartGraph {
  let branches: Branch[] = board.parts
    .filter((p) => p.fitted)
    .map((part) => ({
      kind: isContact(board, part) ? 'switch' : part.kind,
      parts: [part],
      nets: part.nets.map((net, i) => (netKey(net) === 'nc' ? `nc ${part.ref} ${i}` : netKey(net))),
      value: 'value' in part ? part.value : null,
    }));
  const coupled = new Set(board.couplings.flatMap((k) => [k.first.toLowerCase(), k.second.toLowerCase()]));
  const pins = new Set(testPins(new PartGraph(board, branches)));
  for (;;) {
    const merged = mergeOnce(board, branches, coupled, pins);
    if (merged === null) return new PartGraph(board, branches, pins);
    branches = merged;
  }
}

function isContact(board: Board, part: Part): boolean {
  if (part.kind !== 'ic' || part.nets.length !== 2) return false;
  const inside = board.subcircuits.get(part.subcircuit.toLowerCase());
  return inside?.parts.length === 1 && inside.parts[0]!.kind === 'resistor';
}

const MERGED_KINDS: readonly PartKind[] = ['resistor', 'capacitor', 'inductor', 'diode', 'fuse', 'ntc', 'mov', 'lamp'];

function mergeOnce(
  board: Board,
  branches: readonly Branch[],
  coupled: ReadonlySet<string>,
  aside: ReadonlySet<Branch>,
): Branch[] | null {
  const mergeable = (b: Branch): boolean =>
    MERGED_KINDS.includes(b.kind) && !b.parts.some((p) => coupled.has(p.ref.toLowerCase()));
  const byEnds = new Map<string, Branch>();
  const pins = new Map<string, Branch[]>();
  for (const b of branches) if (!aside.has(b)) for (const net of b.nets) pins.set(net, [...(pins.get(net) ?? []), b]);
  for (const b of branches) {
    if (!mergeable(b)) continue;
    const ends = b.kind === 'diode' ? b.nets : [...b.nets].sort();
    const key = `${b.kind} ${b.kind === 'diode' ? diodeClass(board, b) : ''} ${ends.join(' ')}`;
    const twin = byEnds.get(key);
    if (twin) return replaced(branches, twin, b, joined(twin, b, b.nets, parallelValue));
    byEnds.set(key, b);
  }
  for (const [net, here] of pins) {
    const chain = here.length === 2 ? here : here.filter((x) => x.kind === 'diode');
    const [a, b] = chain;
    if (!a || !b || chain.length > 2 || a === b || a.kind !== b.kind || !mergeable(a) || !mergeable(b)) continue;
    if (a.kind === 'resistor' && unlike(a, b)) continue;
    const ends = [farEnd(a, net), farEnd(b, net)];
    if (here.some((x) => !chain.includes(x) && !staysBeside(x, net, new Set(ends), pins))) continue;
    if (a.kind === 'diode' && (!runsOn(a, b, net) || diodeClass(board, a) !== diodeClass(board, b))) continue;
    if (ends[0] === ends[1]) continue;
    const nets = a.kind === 'diode' && a.nets[0] === net ? [ends[1]!, ends[0]!] : ends;
    const one = replaced(branches, a, b, joined(a, b, nets as string[], seriesValue));
    return one.map((x) => (chain.length < here.length && here.includes(x) ? acrossAll(x, net, ends, pins) : x));
  }
  return null;
}

/** Two resistors in series so far apart that each has a purpose of its own: a shunt and its filter, a gate's and what holds it. */
function unlike(a: Branch, b: Branch): boolean {
  const [low, high] = [Math.min(a.value!, b.value!), Math.max(a.value!, b.value!)];
  return high > 30 * low;
}

/** Whether a branch at the middle of two in series only lies across one of them: a balancing resistor, a snubber. */
function staysBeside(
  x: Branch,
  middle: string,
  ends: ReadonlySet<string>,
  pins: ReadonlyMap<string, readonly Branch[]>,
): boolean {
  if (x.kind !== 'resistor' && x.kind !== 'capacitor') return false;
  const far = farEnd(x, middle);
  if (ends.has(far)) return true;
  const [p, q, ...more] = pins.get(far) ?? [];
  const next = p === x ? q : p;
  const passive = next?.kind === 'resistor' || next?.kind === 'capacitor';
  return next !== undefined && more.length === 0 && passive && ends.has(farEnd(next, far));
}

/** What lay across one of two in series, across both of them now. */
function acrossAll(
  x: Branch,
  middle: string,
  [p, q]: readonly string[],
  pins: ReadonlyMap<string, readonly Branch[]>,
): Branch {
  const far = farEnd(x, middle);
  const next = (pins.get(far) ?? []).find((y) => y !== x);
  const own = far === p || far === q ? far : next && farEnd(next, far);
  return { ...x, nets: x.nets.map((n) => (n === middle ? (own === p ? q! : p!) : n)) };
}

function runsOn(a: Branch, b: Branch, net: string): boolean {
  return (a.nets[1] === net) !== (b.nets[1] === net);
}

function joined(
  a: Branch,
  b: Branch,
  nets: readonly string[],
  value: (kind: PartKind, x: number, y: number) => number,
): Branch {
  const sum = a.value === null || b.value === null ? null : value(a.kind, a.value, b.value);
  return { kind: a.kind, parts: [...a.parts, ...b.parts], nets, value: sum };
}

function parallelValue(kind: PartKind, x: number, y: number): number {
  return kind === 'capacitor' ? x + y : x + y === 0 ? 0 : (x * y) / (x + y);
}

function seriesValue(kind: PartKind, x: number, y: number): number {
  return kind === 'capacitor' ? (x + y === 0 ? 0 : (x * y) / (x + y)) : x + y;
}

function replaced(branches: readonly Branch[], a: Branch, b: Branch, by: Branch): Branch[] {
  return branches.flatMap((x) => (x === a ? [by] : x === b ? [] : [x]));
}

export type DiodeClass = 'led' | 'zener' | 'schottky' | 'rectifier';

/** A reference or clamp diode breaks down no higher than this, if its power is not printed. */
const ZENER_LIMIT_VOLTS = 75;

/**
 * What a diode is by what its junction does: a drop above 1.4 V at 1 mA is a light-emitting one; a low breakdown or
 * a printed power makes a zener or surge clamp; a drop below 0.42 V a Schottky.
 */
export function diodeClass(board: Board, branch: Branch): DiodeClass {
  const part = branch.parts[0]!;
  const drop = junctionDrop(board, part);
  const mark = partText(part, 'mark') ?? '';
  if (drop > 1.4 || /\bLED\b/iu.test(mark)) return 'led';
  if (partFigure(part, 'ratedWatts') !== undefined) return 'zener';
  if (drop < 0.42) return 'schottky';
  return junctionOf(board, part).breakdownVolts <= ZENER_LIMIT_VOLTS ? 'zener' : 'rectifier';
}

/** Volts across a diode's junction at 1 mA, from its model; of one without a model, those of the default. */
export function junctionDrop(board: Board, part: Part): number {
  return junctionVolts(junctionOf(board, part), 1e-3);
}

function junctionOf(board: Board, part: Part): JunctionFigures {
  return junctionFigures(part.kind === 'diode' ? board.models.get(part.model.toLowerCase()) : undefined);
}

/** Printed voltage of a branch: parts in series share, so the sum counts; the lowest of parallel ones. */
export function ratedVolts(branch: Branch): number | null {
  const volts = branch.parts.map((p) => partFigure(p, 'ratedVolts')).filter((v) => v !== undefined);
  return volts.length === 0 ? null : Math.max(...volts);
}
