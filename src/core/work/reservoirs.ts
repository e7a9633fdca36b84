import { BREAKDOWN } from '../device';
import type { Device } from '../device';
import { DisjointSets } from '../graph';
import { acNodes } from './lineGraph';
import type { LineReach } from './lineReach';
import type { UnitCircuit } from './unitCircuit';

/** Diodes that break down below this do so on purpose, V. */
export const MOST_ZENER = 75;

/** A node of the rectified side: its mean volts above the lowest of its reservoir, their swing, and what hangs on it. */
export interface Reservoir {
  readonly low: number;
  readonly nodes: readonly number[];
  /** Where the load is put. */
  readonly main: number;
  /** Nodes between capacitors in series. */
  readonly between: ReadonlySet<number>;
  /** The lowest node and what a shunt joins to it. */
  readonly lows: ReadonlySet<number>;
  /** Whether its lowest node is one side of the line: behind a rectifier of one way. */
  readonly onLine: boolean;
  /** Siemens that hang on it now. */
  siemens: number;
}

/**
 * The rails behind the rectifiers of the mains, and the nodes that alternate with it. smoothing: capacitors between nodes that
 * the mains reaches.
 */
export function findReservoirs(
  unit: UnitCircuit,
  { seen, found, passing }: LineReach,
  live: number,
  neutral: number,
  smoothing: readonly Device[],
): { readonly reservoirs: Reservoir[]; readonly lineNodes: ReadonlySet<number>; readonly clamps: readonly Device[] } {
  const { circuit } = unit;
  const { parameters } = circuit;
  const junctions = [...found].filter((d) => d.model.kind === 'junction');
  const touching = new Set(junctions.flatMap((d) => d.nodes));
  const ways = [...found, ...passing];
  const lineNodes = new Set(acNodes([live, neutral], ways));
  const sets = new DisjointSets(circuit.nodeNames.length);
  for (const d of smoothing) sets.union(d.nodes[0]!, d.nodes[1]!);
  for (const d of found) for (let k = 0; k + 1 < d.nodes.length; k += 2) sets.union(d.nodes[k]!, d.nodes[k + 1]!);
  const behindNeutral = acNodes(
    [neutral],
    ways.filter((d) => !d.nodes.includes(live)),
  );
  const behindLive = acNodes(
    [live],
    ways.filter((d) => !d.nodes.includes(neutral)),
  );
  /** The return of a rectifier of one way: the side of the line that its capacitor hangs on. */
  const returnOf = (nodes: readonly number[]): number | undefined => {
    const far = smoothing
      .filter((d) => d.nodes.slice(0, 2).some((n) => nodes.includes(n)))
      .sort((p, q) => parameters[q.at]! - parameters[p.at]!)
      .flatMap((d) => d.nodes.slice(0, 2).filter((n) => !nodes.includes(n) && lineNodes.has(n)))[0];
    const side = far === undefined ? null : behindNeutral.has(far) ? behindNeutral : behindLive;
    // What everything counts from is no part of what alternates.
    if (side && !(behindLive.has(far!) && behindNeutral.has(far!))) for (const n of side) lineNodes.delete(n);
    return far;
  };
  const groups = new Map<number, number[]>();
  for (const n of seen)
    if (!lineNodes.has(n) && unit.isSteady(n)) groups.set(sets.find(n), [...(groups.get(sets.find(n)) ?? []), n]);
  const supplies = new Set(unit.plan.converters.map((c) => unit.node(c.supply)));
  const capped = new Set(smoothing.flatMap((d) => [d.nodes[0]!, d.nodes[1]!]));
  const found2 = new Set([...found].flatMap((d) => d.nodes));
  const reservoirs = [...groups.values()].flatMap((nodes): Reservoir[] => {
    const lowest = nodes.find(
      (n) => junctions.some((d) => d.nodes[0] === n) && !junctions.some((d) => d.nodes[1] === n),
    );
    const oneWay = lowest === undefined || nodes.every((n) => n === lowest || junctions.every((d) => d.nodes[1] !== n));
    const back = oneWay ? returnOf(nodes) : undefined;
    // A rail below the line: what stands above it is the line's own side.
    if (lowest !== undefined && back !== undefined) nodes.push(back);
    const low = lowest ?? back;
    if (low === undefined) return [];
    const near = (n: number): boolean =>
      [...found].some(
        (d) => d.model.kind === 'resistor' && parameters[d.at]! < 2 && d.nodes.includes(n) && d.nodes.includes(low),
      );
    const ups = nodes.filter((n) => n !== low && !near(n) && (capped.has(n) || touching.has(n)));
    const between = new Set(ups.filter((n) => n !== back && !touching.has(n) && !found2.has(n)));
    const apart = new DisjointSets(circuit.nodeNames.length);
    for (const d of found)
      if (d.nodes.length === 2 && d.model.kind !== 'junction' && !d.nodes.includes(low))
        apart.union(d.nodes[0]!, d.nodes[1]!);
    for (const d of smoothing) if (!d.nodes.includes(low)) apart.union(d.nodes[0]!, d.nodes[1]!);
    const parts = new Map<number, number[]>();
    for (const n of ups) parts.set(apart.find(n), [...(parts.get(apart.find(n)) ?? []), n]);
    return [...parts.values()].map((own) => {
      const main =
        own.find((n) => supplies.has(n)) ?? own.find((n) => junctions.some((d) => d.nodes[1] === n)) ?? own[0]!;
      return {
        low,
        nodes: own.filter((n) => !between.has(n)),
        main,
        between,
        lows: new Set([low, ...nodes.filter(near)]),
        onLine: lowest === undefined,
        siemens: 1e-5,
      };
    });
  });
  // What clamps a rectified rail does so within each period.
  const clamps = circuit.devices.filter(
    (d) =>
      d.model.kind === 'junction' &&
      parameters[d.at + BREAKDOWN]! < MOST_ZENER &&
      !found.has(d) &&
      !unit.isInsideIc(d) &&
      reservoirs.some(
        (r) =>
          r.low === d.nodes[0] && r.nodes.includes(d.nodes[1]!) && junctions.some((x) => r.nodes.includes(x.nodes[1]!)),
      ),
  );
  return { reservoirs, lineNodes, clamps };
}
