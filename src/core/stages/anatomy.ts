import type { Board } from '../circuit';
import { findIslands } from './islands';
import type { GalvanicIsland } from './islands';
import { partGraph } from './partGraph';
import type { Branch, PartGraph } from './partGraph';
import { findLineInput, findRectifiers, findTransformerInput } from './rectifiers';
import type { LineInput } from './rectifiers';
import type { Rectifier } from './shapes';
import { findTransistors, groundNets } from './transistors';
import type { Transistor } from './transistors';
import { findCores } from './windings';
import type { Core } from './shapes';

/** What is unmistakable on a board, found before any stage is named. */
export interface Anatomy {
  readonly board: Board;
  readonly graph: PartGraph;
  readonly islands: readonly GalvanicIsland[];
  readonly cores: readonly Core[];
  readonly rectifiers: readonly Rectifier[];
  readonly lines: readonly LineInput[];
  readonly transistors: readonly Transistor[];
  /** Nets within a shunt of their island's reference. */
  readonly grounds: ReadonlySet<string>;
}

/** The anatomy of a board; a board never changes, so it is kept with it. */
export function anatomy(board: Board): Anatomy {
  const known = anatomies.get(board);
  if (known) return known;
  const made = dissect(board);
  anatomies.set(board, made);
  return made;
}

const anatomies = new WeakMap<Board, Anatomy>();

function dissect(board: Board): Anatomy {
  const graph = partGraph(board);
  const islands = findIslands(board, graph);
  const rectifiers = findRectifiers(graph);
  const cores = findCores(board, graph, rectifiers);
  const rectified = rectifiers.flatMap((r) => findLineInput(graph, cores, r) ?? []);
  const transistors = findTransistors(graph);
  const lines = [...rectified, ...transformerLines(graph, cores, rectified, transistors)];
  const grounds = groundNets(
    graph,
    islands.flatMap((i) => i.references),
  );
  return { board, graph, islands, cores, rectifiers, lines, transistors, grounds };
}

/** Lines that end in a transformer's primary: no switch works on it, and no line found before holds it. */
function transformerLines(
  graph: PartGraph,
  cores: readonly Core[],
  known: readonly LineInput[],
  transistors: readonly Transistor[],
): readonly LineInput[] {
  const worked = new Set(transistors.flatMap((t) => [t.high, t.low]));
  return cores.flatMap((core) => {
    if (core.choke || core.windings.some((w) => w.nets.some((n) => worked.has(n) || graph.on(n, 'triac').length > 0)))
      return [];
    const first = core.windings.filter((w) =>
      w.nets.every((n) => graph.on(n, 'diode', 'bridge', 'ic', 'triac').length === 0),
    );
    return first.flatMap((w) => {
      const line = findTransformerInput(graph, cores, w);
      const held = known.some((l) => l.poles.some((p) => w.nets.some((n) => p.has(n))));
      return line && !held ? [line] : [];
    });
  });
}

/** The island of a net, or undefined for a lone net. */
export function islandOf(a: Anatomy, net: string): GalvanicIsland | undefined {
  return a.islands.find((i) => i.nets.has(net));
}

/** The transformer core that a winding belongs to; undefined for a plain choke or a common-mode choke's winding. */
export function transformerOf(a: Anatomy, winding: Branch): Core | undefined {
  return a.cores.find((c) => !c.choke && c.windings.includes(winding));
}

/** Inductors at a net, without common-mode chokes. */
export function inductorsAt(a: Anatomy, net: string): readonly Branch[] {
  const common = new Set(a.cores.filter((c) => c.choke).flatMap((c) => c.windings));
  return a.graph
    .on(net, 'inductor')
    .map((p) => p.branch)
    .filter((b) => !common.has(b));
}

/** Integrated circuits with enough pins to decide anything. */
export function controllersOf(a: Anatomy): readonly Branch[] {
  return a.graph.all('ic').filter((b) => b.nets.length >= 3);
}
