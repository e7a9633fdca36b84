import type { Board } from '../circuit';
import { DisjointSets } from '../graph';
import { farEnd } from './partGraph';
import type { Branch, PartGraph } from './partGraph';
import type { Core, Rectifier } from './shapes';

/** Groups coupled windings into cores and tells common-mode chokes from transformers. */
export function findCores(board: Board, graph: PartGraph, rectifiers: readonly Rectifier[]): readonly Core[] {
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
    .map((group) => ({ windings: group, choke: isChoke(graph, rectifiers, group) }));
}

/** Series parts that a line conductor passes through on its way. */
const LINE_OHMS = 150;

/**
 * A common-mode choke has two or three equal windings that share no net, and both ends of the set are tied together
 * by something that lies across the line (capacitor, varistor, bridge, connector, resistor).
 */
function isChoke(graph: PartGraph, rectifiers: readonly Rectifier[], windings: readonly Branch[]): boolean {
  const [first, ...rest] = windings;
  if (!first || windings.length > 3) return false;
  const alike = rest.every((w) => Math.abs(w.value! / first.value! - 1) < 0.1);
  const nets = new Set(windings.flatMap((w) => w.nets));
  if (!alike || nets.size !== windings.length * 2) return false;
  const second = rest[0]!;
  return [second.nets, [...second.nets].reverse()].some(
    ([near, far]) =>
      facing(graph, rectifiers, first.nets[0]!, near!) && facing(graph, rectifiers, first.nets[1]!, far!),
  );
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
