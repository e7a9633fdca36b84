import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { DisjointSets } from '../graph';
import type { Part } from '../part';
import type { StageMap } from '../stages';

/** Where on the sheet something belongs: before the barrier, behind it, on it. */
export type SheetSide = 'left' | 'right' | 'barrier';

/** The two sides of a sheet: what the power comes from is left, what is isolated from it right. */
export interface SheetSides {
  readonly parted: boolean;
  /** The side of what is joined to these nets. */
  of(nets: readonly string[]): SheetSide;
  /** Whether a connector brings or takes an alternating voltage: neither of its nets is a reference. */
  isAlternating(part: Part): boolean;
}

const ORDER = { mains: 0, hv: 1, battery: 2, elv: 3 } as const;

export function sheetSides(board: Board, map: StageMap): SheetSides {
  const island = new Map(map.islands.flatMap((x, i) => x.nets.map((n) => [netKey(n), i] as const)));
  const apart = isolated(board, map, island);
  const references = new Set(map.islands.flatMap((x) => x.references.map(netKey)));
  const sideOf = (net: string): 'left' | 'right' => (apart.has(island.get(netKey(net)) ?? -1) ? 'right' : 'left');
  return {
    parted: apart.size > 0,
    of(nets) {
      const known = nets.filter((n) => island.has(netKey(n)));
      const sides = new Set((known.length > 0 ? known : nets).map(sideOf));
      return sides.size > 1 ? 'barrier' : ([...sides][0] ?? 'left');
    },
    isAlternating: (part) =>
      !part.nets.some((n) => references.has(netKey(n))) &&
      board.parts.some((p) => p.kind === 'bridge' || p.kind === 'diode') &&
      map.islands[island.get(netKey(part.nets[0]!)) ?? -1]?.hazard === 'mains',
  };
}

/**
 * The island that the power comes in on: of the nameplate's inlet, else the one whose power is switched into a core, else the
 * most dangerous one with a connector.
 */
function firstIsland(board: Board, map: StageMap, island: ReadonlyMap<string, number>): number {
  const inlet = board.nameplate?.inputRail;
  const told = inlet === undefined ? undefined : island.get(netKey(inlet));
  if (told !== undefined) return told;
  const byRef = new Map(board.parts.map((p) => [p.ref, p]));
  const islandsOf = (refs: readonly string[]): ReadonlySet<number> =>
    new Set(refs.flatMap((ref) => byRef.get(ref)?.nets.flatMap((n) => island.get(netKey(n)) ?? []) ?? []));
  const cores = islandsOf(map.cores.flatMap((c) => (c.purpose === 'transformer' ? c.refs : [])));
  const switched = islandsOf(map.stages.flatMap((s) => (s.kind === 'switch' ? s.parts : [])));
  const joined = islandsOf(board.parts.flatMap((p) => (p.kind === 'connector' ? [p.ref] : [])));
  const candidates = map.islands.map((x, i) => ({
    i,
    order:
      ORDER[x.hazard] + (joined.has(i) ? 0 : 10) + (cores.size > 0 && !(switched.has(i) && cores.has(i)) ? 100 : 0),
  }));
  return candidates.sort((a, b) => a.order - b.order)[0]?.i ?? 0;
}

/** Whether more than a lone winding stands on an island: then it has a side of its own. */
function standsApart(board: Board, island: ReadonlyMap<string, number>, i: number): boolean {
  return board.parts.filter((p) => p.nets.some((n) => island.get(netKey(n)) === i)).length > 1;
}

/**
 * The islands behind the barrier: those that a core, an opto or a relay joins to where the power comes in, or, where that is
 * not traced so far, to the most dangerous one of theirs. What nothing joins is no side of its own.
 */
function isolated(board: Board, map: StageMap, island: ReadonlyMap<string, number>): ReadonlySet<number> {
  const first = firstIsland(board, map, island);
  const joined = new DisjointSets(map.islands.length);
  const linked = new Set<number>();
  const byRef = new Map(board.parts.map((p) => [p.ref, p]));
  const join = (nets: readonly string[]): void => {
    const [a, ...rest] = [...new Set(nets.flatMap((n) => island.get(netKey(n)) ?? []))];
    for (const b of rest) {
      joined.union(a!, b);
      linked.add(a!).add(b);
    }
  };
  for (const { refs } of map.cores) join(refs.flatMap((ref) => byRef.get(ref)?.nets ?? []));
  for (const p of board.parts) if (p.kind === 'opto' || p.kind === 'relay') join(p.nets);
  const before = new Map<number, number>([[joined.find(first), first]]);
  const worst = [...linked].sort((a, b) => ORDER[map.islands[a]!.hazard] - ORDER[map.islands[b]!.hazard] || a - b);
  for (const i of worst) if (!before.has(joined.find(i))) before.set(joined.find(i), i);
  return new Set([...linked].filter((i) => before.get(joined.find(i)) !== i && standsApart(board, island, i)));
}
