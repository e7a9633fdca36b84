import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { findIslands } from './islands';
import type { GalvanicIsland } from './islands';
import { safetyClass } from '../part';
import { farEnd, partGraph, ratedVolts } from './partGraph';
import type { Branch, PartGraph } from './partGraph';
import { findLineInput, findRectifiers, findTransformerInput, growPoles } from './rectifiers';
import type { LineInput } from './rectifiers';
import type { Core, Rectifier } from './shapes';
import { beyondSense, findTransistors, groundNets } from './transistors';
import type { Transistor } from './transistors';
import { fewTurns, findCores } from './windings';

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
  /** Nets whose volts follow a current: beside a shunt, at a current transformer's winding of many turns. */
  readonly currents: ReadonlySet<string>;
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
  const graph = partGraph(board, (raw) => testPins(board, raw));
  const islands = findIslands(board, graph);
  const rectifiers = findRectifiers(graph);
  const references = new Set(islands.flatMap((i) => i.references));
  const cores = findCores(board, graph, rectifiers, references);
  const rectified = rectifiers.flatMap((r) => findLineInput(graph, cores, r) ?? []);
  const grounds = groundNets(graph, [...references, ...outputReturns(graph, cores, references)]);
  const sensing = new Set(cores.filter((c) => c.purpose === 'current').flatMap((c) => fewTurns(c)));
  const transistors = findTransistors(graph).map((t) => beyondSense(graph, grounds, sensing, t));
  const behind = [...rectified, ...transformerLines(graph, cores, rectified, transistors)];
  const halves = behind.length > 0 ? [] : halfWaveLines(graph, cores, references);
  const lines = behind.length > 0 ? behind : halves.length > 0 ? halves : bareLines(graph, cores, references);
  const main = new Set(islands.map((i) => i.references[0]!));
  const currents = new Set([
    ...[...grounds].filter((n) => !main.has(n)),
    ...transistors.flatMap((t) => senseEnds(t)).filter((n) => !isHeld(graph, n)),
    ...cores.filter((c) => c.purpose === 'current').flatMap((c) => currentEnds(graph, grounds, c)),
  ]);
  return { board, graph, islands, cores, rectifiers, lines, transistors, grounds, currents };
}

/**
 * Pins to measure at lead nowhere: a connector of one pin, unless power needs it: another one stands on the reference of
 * its island and no connector of several pins does.
 */
function testPins(board: Board, graph: PartGraph): readonly Branch[] {
  const single = graph.all('connector').filter((c) => c.nets.length === 1);
  if (single.length === 0) return [];
  const several = graph.all('connector').filter((c) => c.nets.length > 1);
  const needed = (i: GalvanicIsland): boolean =>
    single.some((c) => i.references.includes(c.nets[0]!)) &&
    !several.some((c) => c.nets.filter((n) => i.nets.has(n)).length > 1);
  const back = new Set(
    findIslands(board, graph)
      .filter(needed)
      .flatMap((i) => [...i.nets]),
  );
  return single.filter((c) => !back.has(c.nets[0]!));
}

/** Printed volts of a storage capacitor from which its single rectifier stands in a line. */
const LINE_STORAGE_VOLTS = 200;

/** A line with one diode for a rectifier: from a connector into a storage for the line's voltage, the return straight. */
function halfWaveLines(
  graph: PartGraph,
  cores: readonly Core[],
  references: ReadonlySet<string>,
): readonly LineInput[] {
  return graph
    .all('diode')
    .flatMap((d) => {
      const [anode = '', plus = ''] = d.nets;
      const store = [plus, ...graph.on(plus, 'inductor', 'resistor').map((p) => farEnd(p.branch, plus))]
        .flatMap((n) => graph.on(n, 'capacitor'))
        .find(
          (p) =>
            (ratedVolts(p.branch) ?? 0) >= LINE_STORAGE_VOLTS &&
            p.branch.value! >= 1e-6 &&
            p.branch.nets.some((n) => references.has(n)),
        );
      const minus = store?.branch.nets.find((n) => references.has(n));
      if (minus === undefined || references.has(anode) || !comesIn(graph, anode, true)) return [];
      const { poleOf, series } = growPoles(graph, cores, [anode], [plus, minus]);
      const live = new Set(poleOf.keys());
      const connectors = graph
        .all('connector')
        .filter((c) => c.nets.some((n) => live.has(n)) && c.nets.includes(minus));
      const rectifier = { branches: [d], ac: [anode, minus], plus, minus };
      return connectors.length === 0 ? [] : [{ rectifier, poles: [live, new Set([minus])], series, connectors }];
    })
    .slice(0, 1);
}

/** Whether a conductor comes from a connector, straight or through a fuse, a switch or a choke. */
function comesIn(graph: PartGraph, net: string, resistors = false): boolean {
  const small = graph.on(net, 'resistor').filter((p) => resistors && p.branch.value! <= 100);
  const near = [net, ...[...graph.on(net, 'fuse', 'switch', 'inductor'), ...small].map((p) => farEnd(p.branch, net))];
  return near.some((n) => graph.on(n, 'connector').length > 0);
}

/**
 * The line of an ac switch, with neither rectifier nor transformer of its own: two conductors from a connector with an X
 * capacitor or varistor across them, and not across the switch.
 */
function bareLines(graph: PartGraph, cores: readonly Core[], references: ReadonlySet<string>): readonly LineInput[] {
  if (graph.all('triac').length === 0 || cores.some((c) => c.purpose === 'transformer')) return [];
  const switched = graph.all('triac').map((t) => t.nets.slice(0, 2));
  const across = graph.all('capacitor', 'mov').filter((b) => {
    const lies = b.kind === 'mov' ? (ratedVolts(b) ?? 0) >= 230 : safetyClass(b.parts[0]!) === 'X';
    return (
      lies && b.nets.every((n) => comesIn(graph, n)) && !switched.some((ends) => ends.every((n) => b.nets.includes(n)))
    );
  });
  const found = across.flatMap((b) => {
    const ground = [...references].find((n) => !b.nets.includes(n) && graph.on(n).length > 0) ?? '';
    const line = findLineInput(graph, cores, { branches: [], ac: b.nets, plus: '', minus: ground });
    return line
      ? [{ ...line, series: line.series.filter((x) => ['fuse', 'inductor', 'switch', 'relay'].includes(x.kind)) }]
      : [];
  });
  return found.slice(0, 1);
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
    if (
      core.purpose !== 'transformer' ||
      core.windings.some((w) => w.nets.some((n) => worked.has(n) || graph.on(n, 'triac').length > 0))
    )
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

/**
 * Returns of outputs that a resistor joins to a reference: a winding's end or tap with the storage of what its core's other
 * ends give through diodes.
 */
function outputReturns(graph: PartGraph, cores: readonly Core[], references: ReadonlySet<string>): readonly string[] {
  return cores.flatMap((core) => {
    if (core.purpose !== 'transformer') return [];
    const ends = [...new Set(core.windings.flatMap((w) => w.nets))];
    return ends.filter((tap) => {
      if (references.has(tap) || graph.on(tap, 'diode', 'mosfet', 'bjt', 'ic', 'fuse').length > 0) return false;
      const own = core.windings.filter((w) => w.nets.includes(tap)).map((w) => farEnd(w, tap));
      const given = new Set(own.flatMap((n) => graph.on(n, 'diode').map((p) => farEnd(p.branch, n))));
      const stores = graph
        .on(tap, 'capacitor')
        .filter((p) => p.branch.value! >= 10e-6 && given.has(farEnd(p.branch, tap)));
      return stores.length > 0 && !stores.some((p) => references.has(farEnd(p.branch, tap)));
    });
  });
}

/** Where a transistor's shunts, if they are none to ground, turn its current into volts. */
function senseEnds({ branch, sensedBy }: Transistor): readonly string[] {
  const shunts = sensedBy.filter((b) => b.kind === 'resistor');
  return shunts.flatMap((b) => b.nets.filter((n) => branch.nets.includes(n)));
}

/** Whether a capacitor holds a net: its volts follow no current. */
function isHeld(graph: PartGraph, net: string): boolean {
  return graph.on(net, 'capacitor').some((p) => p.branch.value! >= 1e-6);
}

/** Ends of a current transformer's windings of many turns, behind their diodes too. */
function currentEnds(graph: PartGraph, grounds: ReadonlySet<string>, core: Core): readonly string[] {
  const few = fewTurns(core);
  const ends = core.windings.filter((w) => !few.includes(w)).flatMap((w) => w.nets);
  const open = ends.filter((n) => !grounds.has(n) && !isHeld(graph, n));
  return [...open, ...open.flatMap((n) => graph.on(n, 'diode').map((p) => farEnd(p.branch, n)))].filter(
    (n) => !grounds.has(n),
  );
}

/** The island of a net, or undefined for a lone net. */
export function islandOf(a: Anatomy, net: string): GalvanicIsland | undefined {
  return a.islands.find((i) => i.nets.has(net));
}

/** The reference of a net's island, or null for a lone net. */
export function groundOf(a: Anatomy, net: string): string | null {
  return islandOf(a, net)?.references[0] ?? null;
}

/** Whether two nets are in one island. */
export function sameIsland(a: Anatomy, x: string, y: string): boolean {
  return a.islands.some((i) => i.nets.has(x) && i.nets.has(y));
}

/** A net's name as it is written on the board. */
export function writtenNet(a: Anatomy, key: string): string {
  return a.board.parts.flatMap((p) => p.nets).find((n) => netKey(n) === key) ?? key;
}

/** The transformer core that a winding belongs to; undefined for chokes and current transformers. */
export function transformerOf(a: Anatomy, winding: Branch): Core | undefined {
  return a.cores.find((c) => c.purpose === 'transformer' && c.windings.includes(winding));
}

/** Inductors at a net that carry power: no common-mode chokes, no winding that only tells a current. */
export function inductorsAt(a: Anatomy, net: string): readonly Branch[] {
  const aside = new Set(
    a.cores.flatMap((c) => {
      if (c.purpose !== 'current') return c.purpose === 'common-mode' ? c.windings : [];
      const few = fewTurns(c);
      return c.windings.filter((w) => !few.includes(w));
    }),
  );
  return a.graph
    .on(net, 'inductor')
    .map((p) => p.branch)
    .filter((b) => !aside.has(b));
}

/** Integrated circuits with enough pins to decide anything. */
export function controllersOf(a: Anatomy): readonly Branch[] {
  return a.graph.all('ic').filter((b) => b.nets.length >= 3);
}
