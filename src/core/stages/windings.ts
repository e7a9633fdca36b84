import type { Board } from '../circuit';
import { DisjointSets } from '../graph';
import { partText } from '../part';
import type { Part } from '../part';
import { farEnd } from './partGraph';
import type { Branch, PartGraph } from './partGraph';
import { CORE_PURPOSES } from './shapes';
import type { Core, CorePurpose, Rectifier } from './shapes';

/** Groups coupled windings into cores and tells what each is for. */
export function findCores(
  board: Board,
  graph: PartGraph,
  rectifiers: readonly Rectifier[],
  references: ReadonlySet<string>,
): readonly Core[] {
  const windings = graph.all('inductor').filter((b) => b.parts.length === 1);
  const index = new Map(windings.map((b, i) => [b.parts[0]!.ref.toLowerCase(), i]));
  const sets = new DisjointSets(windings.length);
  for (const { first, second } of board.couplings) {
    const [a, b] = [index.get(first.toLowerCase()), index.get(second.toLowerCase())];
    if (a !== undefined && b !== undefined) sets.union(a, b);
  }
  const groups = new Map<number, Branch[]>();
  windings.forEach((b, i) => groups.set(sets.find(i), [...(groups.get(sets.find(i)) ?? []), b]));
  return [...groups.values()]
    .filter((group) => group.length > 1)
    .map((group) => ({ windings: group, purpose: purposeOf(graph, rectifiers, references, group) }));
}

function purposeOf(
  graph: PartGraph,
  rectifiers: readonly Rectifier[],
  references: ReadonlySet<string>,
  windings: readonly Branch[],
): CorePurpose {
  const said = settledPurpose(windings.flatMap((w) => w.parts));
  if (said !== null) return said;
  if (isChoke(graph, rectifiers, windings)) return 'common-mode';
  if (sensesCurrent(graph, windings)) return 'current';
  return windings.every((w) => smooths(graph, references, w)) ? 'output-choke' : 'transformer';
}

/** A current transformer's primary is a turn or two: no more than this, henry. */
const FEW_TURNS_HENRIES = 100e-6;
/** Its secondary has ten times the turns and more: the square of that in inductance. */
const MANY_TURNS = 100;
/** The burden that turns its current into volts is no more than this, ohm. */
const BURDEN_OHMS = 330;
/** A capacitor from here on holds a supply, not a signal, farad. */
export const SUPPLY_FARADS = 1e-6;

/** The windings of far fewer turns than the core's others. */
export function fewTurns({ windings }: Pick<Core, 'windings'>): readonly Branch[] {
  const most = Math.max(...windings.map((w) => w.value!));
  return windings.filter((w) => w.value! * MANY_TURNS <= most);
}

/** Windings of a turn or two, all others of many, and a burden across one of these, straight or behind diodes. */
function sensesCurrent(graph: PartGraph, windings: readonly Branch[]): boolean {
  const few = fewTurns({ windings });
  const many = windings.filter((w) => !few.includes(w));
  if (few.length === 0 || few.some((w) => w.value! > FEW_TURNS_HENRIES)) return false;
  if (many.some((w) => w.nets.some((end) => isBurdened(graph, end, farEnd(w, end))))) return true;
  // A turn in a conductor and hundreds of them elsewhere that charge nothing: the burden is not traced yet.
  const charges = many.some((w) =>
    w.nets.some((end) => graph.on(end, 'diode', 'bridge').some((p) => stored(graph, p.branch, w, end))),
  );
  return few.every((w) => w.value! <= 10e-6) && many.every((w) => w.value! >= 1e3 * few[0]!.value!) && !charges;
}

/** Whether a rectifier at one end of a winding charges a capacitor that holds a supply: against the other end, or behind a bridge. */
function stored(graph: PartGraph, rectifier: Branch, winding: Branch, end: string): boolean {
  const behind = [...rectifier.nets.filter((n) => n !== end), farEnd(winding, end)];
  return behind.some((n) =>
    graph.on(n, 'capacitor').some((p) => p.branch.value! >= SUPPLY_FARADS && behind.includes(farEnd(p.branch, n))),
  );
}

/** Whether a low resistor and no storage lies between one end of a winding, behind its diodes too, and the other. */
function isBurdened(graph: PartGraph, end: string, other: string): boolean {
  const near = new Set([end, other]);
  for (const { branch } of graph.on(end, 'diode', 'bridge')) for (const n of branch.nets) near.add(n);
  const across = [...near]
    .flatMap((n) => graph.on(n, 'resistor', 'capacitor'))
    .map((p) => p.branch)
    .filter((b) => b.nets.every((n) => near.has(n)));
  const supplies = across.some((b) => b.kind === 'capacitor' && b.value! >= SUPPLY_FARADS);
  return !supplies && across.some((b) => b.kind === 'resistor' && b.value! <= BURDEN_OHMS);
}

/** A winding between a rectified point and a capacitor that holds, neither of them a reference: it only smooths. */
function smooths(graph: PartGraph, references: ReadonlySet<string>, w: Branch): boolean {
  if (w.nets.some((n) => references.has(n))) return false;
  return w.nets.some((net) => {
    const from = graph.on(net, 'diode').flatMap((p) => (p.pin === 1 ? [p.branch.nets[0]!] : []));
    const meets = from.length >= 2 || from.some((n) => references.has(n) || graph.on(n, 'inductor').length > 0);
    const switched = graph.on(net, 'mosfet', 'bjt', 'ic').length > 0;
    const held = graph.on(farEnd(w, net), 'capacitor').some((p) => p.branch.value! >= SUPPLY_FARADS);
    return (meets || graph.on(net, 'bridge').some((p) => p.pin >= 2)) && !switched && held;
  });
}

/** Series parts that a line conductor passes through on its way. */
const LINE_OHMS = 150;

/**
 * A common-mode choke has two or three equal windings that share no net, and both ends of the set are tied together
 * by something that lies across the line (capacitor, varistor, bridge, connector, resistor). One end will do where nothing
 * switches at the other: what joins that is not traced yet.
 */
function isChoke(graph: PartGraph, rectifiers: readonly Rectifier[], windings: readonly Branch[]): boolean {
  const [first, ...rest] = windings;
  if (!first || windings.length > 3) return false;
  const alike = rest.every((w) => Math.abs(w.value! / first.value! - 1) < 0.1);
  const nets = new Set(windings.flatMap((w) => w.nets));
  if (!alike || nets.size !== windings.length * 2) return false;
  // Nothing but passive parts at any end: two conductors of something, whatever of it is traced.
  const idle = (n: string): boolean => graph.on(n, 'diode', 'mosfet', 'bjt', 'ic', 'triac', 'bridge').length === 0;
  if ([...nets].every(idle) && windings.length === 2) return true;
  const second = rest[0]!;
  const unswitched = (n: string): boolean => graph.on(n, 'mosfet', 'bjt', 'ic', 'triac').length === 0;
  const open = (m: string, n: string): boolean => windings.length === 2 && unswitched(m) && unswitched(n);
  return [second.nets, [...second.nets].reverse()].some(([near, far]) => {
    const [one, other] = [
      facing(graph, rectifiers, first.nets[0]!, near!),
      facing(graph, rectifiers, first.nets[1]!, far!),
    ];
    return (one || other) && (one || open(first.nets[0]!, near!)) && (other || open(first.nets[1]!, far!));
  });
}

/** Whether two conductors run side by side here: something of the line joins them across. */
function facing(graph: PartGraph, rectifiers: readonly Rectifier[], a: string, b: string): boolean {
  const [here, there] = [alongLine(graph, a), alongLine(graph, b)];
  for (const net of here) {
    for (const { branch } of graph.on(net, 'capacitor', 'mov', 'bridge', 'connector', 'resistor')) {
      if (branch.nets.some((n) => n !== net && there.has(n))) return true;
    }
  }
  return rectifiers.some((r) => r.ac.some((x) => here.has(x) && r.ac.some((y) => y !== x && there.has(y))));
}

/** Nets reached through what stands in series in a line, windings left out. */
export function alongLine(graph: PartGraph, start: string): ReadonlySet<string> {
  const seen = new Set([start]);
  const queue = [start];
  for (let net = queue.pop(); net !== undefined; net = queue.pop()) {
    for (const { branch } of graph.on(net, 'fuse', 'ntc', 'switch', 'resistor', 'lamp')) {
      if (branch.kind === 'resistor' && branch.value! > LINE_OHMS) continue;
      const next = farEnd(branch, net);
      if (seen.has(next)) continue;
      seen.add(next);
      queue.push(next);
    }
  }
  return seen;
}
/** The purpose that someone set for a core at one of its windings, or null. */
export function settledPurpose(parts: readonly Part[]): CorePurpose | null {
  const said = parts.map((p) => partText(p, 'core'));
  return CORE_PURPOSES.find((c) => said.includes(c)) ?? null;
}
