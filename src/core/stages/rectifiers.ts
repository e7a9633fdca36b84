import { diodeClass } from './partGraph';
import type { Branch, PartGraph } from './partGraph';
import type { Core, Rectifier } from './shapes';

/** All bridges of a board: blocks, and four or six diodes wired as one. */
export function findRectifiers(graph: PartGraph): readonly Rectifier[] {
  const blocks = graph.all('bridge').map((b) => ({
    branches: [b],
    ac: b.nets.slice(0, 2),
    plus: b.nets[2]!,
    minus: b.nets[3]!,
  }));
  return [...blocks, ...discreteBridges(graph)];
}

function discreteBridges(graph: PartGraph): readonly Rectifier[] {
  const found: Rectifier[] = [];
  const plain = graph.all('diode').filter((b) => !['led', 'zener'].includes(diodeClass(graph.board, b)));
  for (const plus of new Set(plain.map((d) => d.nets[1]!))) {
    for (const minus of new Set(plain.map((d) => d.nets[0]!))) {
      if (plus === minus) continue;
      const ac = [...new Set(plain.filter((d) => d.nets[1] === plus).map((d) => d.nets[0]!))].filter(
        (net) => net !== minus && plain.some((d) => d.nets[0] === minus && d.nets[1] === net),
      );
      // A switching node with its two freewheel diodes looks alike: it has a transistor.
      const passive = ac.filter((net) => graph.on(net, 'mosfet', 'bjt').length === 0);
      if (passive.length < 2) continue;
      const branches = plain.filter(
        (d) =>
          (d.nets[1] === plus && passive.includes(d.nets[0]!)) || (d.nets[0] === minus && passive.includes(d.nets[1]!)),
      );
      found.push({ branches, ac: passive, plus, minus });
    }
  }
  return found;
}

/** The alternating supply of a rectifier that hangs on a connector: conductors from there to the rectifier. */
export interface LineInput {
  readonly rectifier: Rectifier;
  /** Nets of each conductor. */
  readonly poles: readonly ReadonlySet<string>[];
  /** Branches in series in a conductor, nearest to the rectifier first. */
  readonly series: readonly Branch[];
  readonly connectors: readonly Branch[];
}

const SERIES_OHMS = 150;

/**
 * Follows a rectifier's conductors back to a connector; null when a winding feeds it.
 * Conductors grow at the same time and a net belongs to the one that came first, so nothing across the line joins them.
 */
export function findLineInput(graph: PartGraph, cores: readonly Core[], rectifier: Rectifier): LineInput | null {
  const { poleOf, series } = growPoles(graph, cores, rectifier.ac, [rectifier.plus, rectifier.minus]);
  const poles = rectifier.ac.map((_, i) => new Set([...poleOf].flatMap(([net, p]) => (p === i ? [net] : []))));
  const connectors = [...new Set([...poleOf.keys()].flatMap((n) => graph.on(n, 'connector').map((p) => p.branch)))];
  const fedTwice = poles.filter((pole) => [...pole].some((n) => graph.on(n, 'connector').length > 0)).length >= 2;
  return fedTwice ? { rectifier, poles, series, connectors } : null;
}

/** The line of a transformer whose primary lies straight across it: no rectifier in between. */
export function findTransformerInput(graph: PartGraph, cores: readonly Core[], winding: Branch): LineInput | null {
  return findLineInput(graph, cores, { branches: [], ac: winding.nets, plus: '', minus: '' });
}

/** Conductors from seed nets back along series parts: fuses, thermistors, contacts, chokes, small resistors. */
export function growPoles(
  graph: PartGraph,
  cores: readonly Core[],
  seeds: readonly string[],
  stops: readonly string[],
): { readonly poleOf: ReadonlyMap<string, number>; readonly series: readonly Branch[] } {
  const transformer = new Set(cores.filter((c) => c.purpose === 'transformer').flatMap((c) => c.windings));
  const poleOf = new Map<string, number>(seeds.map((net, i) => [net, i]));
  const series: Branch[] = [];
  const queue = [...seeds];
  for (let net = queue.shift(); net !== undefined; net = queue.shift()) {
    for (const { branch, pin } of graph.on(net)) {
      const next = seriesStep(branch, pin, transformer);
      if (next === null || stops.includes(next)) continue;
      const known = poleOf.get(next);
      if (known !== undefined && known !== poleOf.get(net)) continue;
      if (!series.includes(branch)) series.push(branch);
      if (known !== undefined) continue;
      poleOf.set(next, poleOf.get(net)!);
      queue.push(next);
    }
  }
  return { poleOf, series };
}

function seriesStep(branch: Branch, pin: number, transformer: ReadonlySet<Branch>): string | null {
  switch (branch.kind) {
    case 'fuse':
    case 'ntc':
    case 'switch':
      return branch.nets[1 - pin]!;
    case 'inductor':
      return transformer.has(branch) ? null : branch.nets[1 - pin]!;
    case 'resistor':
      return branch.value! <= SERIES_OHMS ? branch.nets[1 - pin]! : null;
    case 'relay':
      return pin >= 2 ? branch.nets[5 - pin]! : null;
    default:
      return null;
  }
}
