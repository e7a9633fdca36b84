import { isElectrolytic, safetyClass } from '../part';
import type { Board } from '../circuit';
import { DisjointSets } from '../graph';
import { diodeClass } from './partGraph';
import type { Branch, PartGraph } from './partGraph';
import type { Core } from './shapes';

/**
 * Nets joined by conductive parts. `nets` are keys; `reference` is where the black lead goes, `references` others of
 * use with that one first.
 */
export interface GalvanicIsland {
  readonly nets: ReadonlySet<string>;
  readonly references: readonly string[];
}

/** From here on a resistor across the barrier is a bleeder, not a joint. */
export const BLEEDER_OHMS = 0.999e6;

/** Net groups that a branch joins inside itself. */
function conductiveGroups(board: Board, branch: Branch): readonly (readonly string[])[] {
  const nets = branch.nets;
  switch (branch.kind) {
    case 'capacitor':
    case 'connector':
    case 'mov':
    case 'voltage-source':
    case 'current-source':
      return [];
    case 'opto':
      return [nets.slice(0, 2), nets.slice(2)];
    case 'relay':
      return [nets.slice(0, 2), nets.slice(2)];
    case 'ic':
      return icGroups(board, branch);
    default:
      return [nets];
  }
}

/** An IC joins its pins, unless its known inside falls into parts that nothing conductive joins (an isolator). */
function icGroups(board: Board, branch: Branch): readonly (readonly string[])[] {
  const part = branch.parts[0]!;
  const inside = part.kind === 'ic' ? board.subcircuits.get(part.subcircuit.toLowerCase()) : undefined;
  if (!inside) return [branch.nets];
  const names = new Map<string, number>();
  const of = (net: string): number => {
    const key = net.toLowerCase();
    if (!names.has(key)) names.set(key, names.size);
    return names.get(key)!;
  };
  inside.pins.forEach(of);
  const sets = new DisjointSets(names.size + inside.parts.reduce((n, p) => n + p.nets.length, 0));
  for (const p of inside.parts) {
    if (p.kind === 'capacitor') continue;
    for (const net of p.nets.slice(1)) sets.union(of(p.nets[0]!), of(net));
  }
  const groups = new Map<number, string[]>();
  inside.pins.forEach((pin, i) => {
    const root = sets.find(of(pin));
    groups.set(root, [...(groups.get(root) ?? []), branch.nets[i] ?? '']);
  });
  const sides = [...groups.values()].filter((g) => g.length > 1);
  return sides.length > 1 ? sides : [branch.nets];
}

/**
 * The galvanic islands of more than one net, largest first. A resistor of 1 Mohm and more joins only where one of its sides
 * has no life of its own; between two sides that both have (windings, opto or relay sides, an earth with its
 * capacitors) it is a bleeder across the barrier.
 */
export function findIslands(board: Board, graph: PartGraph): readonly GalvanicIsland[] {
  const nets = [...graph.nets.keys()];
  const index = new Map(nets.map((n, i) => [n, i]));
  const sets = new DisjointSets(nets.length);
  const join = (a: string, b: string): void => void sets.union(index.get(a)!, index.get(b)!);
  const bleeders: Branch[] = [];
  for (const branch of graph.branches) {
    if (branch.kind === 'resistor' && branch.value! >= BLEEDER_OHMS) bleeders.push(branch);
    else for (const [first, ...rest] of conductiveGroups(board, branch)) for (const n of rest) join(first!, n);
  }
  const coupled = new Set(board.couplings.flatMap((k) => [k.first.toLowerCase(), k.second.toLowerCase()]));
  const lively = bleeders.length === 0 ? [] : nets.filter((n) => hasLife(graph, coupled, n));
  const alive = (net: string): boolean => lively.some((n) => sameSet(sets, index, n, net));
  for (const {
    nets: [a, b],
  } of bleeders)
    if (!alive(a!) || !alive(b!)) join(a!, b!);
  const groups = new Map<number, string[]>();
  for (const n of nets) {
    const root = sets.find(index.get(n)!);
    groups.set(root, [...(groups.get(root) ?? []), n]);
  }
  return [...groups.values()]
    .filter((g) => g.length > 1)
    .sort((a, b) => b.length - a.length)
    .map((g) => ({ nets: new Set(g), references: referenceNets(board, graph, g) }));
}

function sameSet(sets: DisjointSets, index: ReadonlyMap<string, number>, a: string, b: string): boolean {
  return sets.find(index.get(a)!) === sets.find(index.get(b)!);
}

/**
 * Conductive two-terminal branches that alone join what a transformer separates: without the branch its ends would be
 * in two islands that each hold windings of one core.
 */
export function isolationLinks(board: Board, graph: PartGraph, cores: readonly Core[]): readonly Branch[] {
  const nets = [...graph.nets.keys()];
  const index = new Map(nets.map((n, i) => [n, i]));
  const transformers = cores.filter((c) => c.purpose === 'transformer');
  return graph.all('resistor', 'fuse', 'switch', 'diode', 'ntc').filter((candidate) => {
    if (candidate.kind === 'resistor' && candidate.value! >= BLEEDER_OHMS) return false;
    const sets = new DisjointSets(nets.length);
    for (const branch of graph.branches) {
      if (branch === candidate || (branch.kind === 'resistor' && branch.value! >= BLEEDER_OHMS)) continue;
      for (const [first, ...rest] of conductiveGroups(board, branch))
        for (const n of rest) sets.union(index.get(first!)!, index.get(n)!);
    }
    const root = (net: string): number => sets.find(index.get(net)!);
    const [here, there] = candidate.nets.map(root);
    if (here === there) return false;
    return transformers.some((core) => {
      const sides = new Set(core.windings.map((w) => root(w.nets[0]!)));
      return sides.has(here!) && sides.has(there!);
    });
  });
}

/** Whether a net belongs to a side of its own: a winding, an isolator's side, or an earth. */
function hasLife(graph: PartGraph, coupled: ReadonlySet<string>, net: string): boolean {
  const isWinding = (b: Branch): boolean => b.parts.some((p) => coupled.has(p.ref.toLowerCase()));
  if (graph.on(net, 'opto', 'relay', 'bridge').length > 0) return true;
  if (graph.on(net, 'inductor').some((p) => isWinding(p.branch))) return true;
  return (
    graph.on(net, 'connector').length > 0 &&
    graph.on(net, 'capacitor').some((p) => safetyClass(p.branch.parts[0]!) === 'Y')
  );
}

/**
 * Reference nets, best first: what many parts return to, on the negative side of the rectifiers and electrolytics.
 * A second net qualifies when a low resistance (a shunt or link) joins it to the first and several parts return to it.
 */
function referenceNets(board: Board, graph: PartGraph, nets: readonly string[]): readonly string[] {
  const scored = nets
    .map((net, i) => ({ net, score: returnScore(board, graph, net) + i * 1e-6 }))
    .sort((a, b) => b.score - a.score);
  const best = scored[0]!.net;
  const near = scored.slice(1).filter(({ net, score }) => {
    const link = graph.between(net, best, 'resistor').some((r) => r.value! <= 1);
    return link && score > 1;
  });
  return [best, ...near.map((s) => s.net)];
}

/** How much a net looks like a return: pins that return there count for it, pins that feed from it against it. */
function returnScore(board: Board, graph: PartGraph, net: string): number {
  let score = 0;
  for (const { branch, pin } of graph.on(net)) {
    const part = branch.parts[0]!;
    switch (branch.kind) {
      case 'capacitor':
        score += isElectrolytic(part) ? (pin === 1 ? 1.5 : -1) : 0.5;
        break;
      case 'diode': {
        const reverse = diodeClass(board, branch) === 'zener';
        score += diodeClass(board, branch) === 'led' ? (pin === 1 ? 1 : -1) : pin === 0 ? 1 : reverse ? -1 : -1.5;
        break;
      }
      case 'bridge':
        score += pin === 3 ? 4 : pin === 2 ? -4 : -2;
        break;
      case 'mosfet':
      case 'bjt':
        score += returnPin(board, part, pin);
        break;
      case 'opto':
        score += pin === 3 ? 1 : pin === 0 ? -0.5 : 0;
        break;
      case 'shunt-reference':
        score += pin === 1 ? 2 : -0.5;
        break;
      case 'regulator':
        score += pin === 1 ? 2 : -1;
        break;
      case 'triac':
        score += pin === 1 ? 2 : -1;
        break;
      case 'ic':
        score += 1;
        break;
      case 'connector':
        score += pin === branch.nets.length - 1 ? 0.6 : 0.2;
        break;
      case 'resistor':
        score += 0.6;
        break;
      default:
        score += 0.1;
    }
  }
  return score;
}

function returnPin(board: Board, part: Branch['parts'][number], pin: number): number {
  if (part.kind !== 'mosfet' && part.kind !== 'bjt') return 0;
  const type = board.models.get(part.model.toLowerCase())?.type ?? 'NMOS';
  const positive = type === 'PNP' || type === 'PMOS';
  if (pin === 2) return positive ? -2 : 2;
  return pin === 0 ? (positive ? 0.5 : -1) : 0;
}
