import type { Board } from '../circuit';
import { findIslands } from './islands';
import type { GalvanicIsland } from './islands';
import { diodeClass, farEnd, partGraph } from './partGraph';
import type { Branch, PartGraph } from './partGraph';
import { findLineInput, findRectifiers, findTransformerInput } from './rectifiers';
import type { LineInput, Rectifier } from './rectifiers';
import { findTransistors, groundNets } from './transistors';
import type { Transistor } from './transistors';
import { findCores } from './windings';
import type { Core } from './windings';

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

export function anatomy(board: Board): Anatomy {
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

const RAIL_FARADS = 90e-9;

/** Whether a net is kept steady, by a capacitor to ground or as a bridge's plus: a rail. */
export function isRail(a: Anatomy, net: string): boolean {
  if (a.rectifiers.some((r) => r.plus === net)) return true;
  return railCapacitors(a, net).length > 0 && isFed(a, net);
}

const FEED_OHMS = 330;
const STORE_FARADS = 4.7e-6;

/** Whether something that carries power leads to a net: a signal behind its filter resistor is no rail. */
function isFed(a: Anatomy, net: string): boolean {
  return a.graph.on(net).some(({ branch, pin }) => {
    switch (branch.kind) {
      case 'diode':
        return pin === 1 && diodeClass(a.board, branch) !== 'led' && diodeClass(a.board, branch) !== 'zener';
      case 'ic':
        return branch.nets.length >= 3;
      case 'resistor':
        return branch.value! <= FEED_OHMS && !a.grounds.has(farEnd(branch, net));
      case 'relay':
        return pin >= 2;
      case 'capacitor': {
        // The midpoint of two storage capacitors in series.
        const far = farEnd(branch, net);
        return branch.value! >= 1e-6 && a.rectifiers.some((r) => r.plus === far);
      }
      case 'connector':
        return railCapacitors(a, net).some((c) => c.value! >= STORE_FARADS);
      case 'inductor':
      case 'bridge':
      case 'regulator':
      case 'fuse':
      case 'switch':
        return true;
      default:
        return false;
    }
  });
}

/** Capacitors of 0.1 µF and more from a net to a ground. */
export function railCapacitors(a: Anatomy, net: string): readonly Branch[] {
  if (a.grounds.has(net)) return [];
  return a.graph
    .on(net, 'capacitor')
    .map((p) => p.branch)
    .filter((c) => c.value! >= RAIL_FARADS && a.grounds.has(farEnd(c, net)));
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
