import { netKey } from '../circuit';
import { marking } from '../part';
import type { Anatomy } from './anatomy';
import type { Scene } from './claims';
import { hazardOf } from './hazards';
import type { IslandHazard } from './hazards';
import type { Branch } from './partGraph';

export interface IslandFinding {
  /** Net names as written. */
  readonly nets: readonly string[];
  readonly reference: string;
  readonly references: readonly string[];
  readonly hazard: IslandHazard;
}

/** A part that joins two islands, and whether it is one that may. */
export interface Crossing {
  readonly ref: string;
  readonly allowed: boolean;
  readonly why: string;
}

export function describeIslands(scene: Scene): readonly IslandFinding[] {
  const { a } = scene;
  const written = new Map(a.board.parts.flatMap((p) => p.nets.map((n) => [netKey(n), n] as const)));
  const name = (net: string): string => written.get(net) ?? net;
  return a.islands
    .map((island) => ({
      nets: [...new Set([...island.nets, ...insideNets(a, island.nets)])].map(name).filter((n) => !n.startsWith('nc ')),
      reference: name(island.references[0]!),
      references: island.references.map(name),
      hazard: hazardOf(scene, island),
    }))
    .filter((i) => i.nets.length > 1);
}

/** Nets between the parts of a series chain: they belong where its ends do. */
function insideNets(a: Anatomy, nets: ReadonlySet<string>): readonly string[] {
  return a.graph.branches.flatMap((b) => {
    const conducts = ['resistor', 'inductor', 'diode', 'fuse', 'ntc', 'lamp'].includes(b.kind) && b.parts.length > 1;
    if (!conducts || !b.nets.every((n) => nets.has(n))) return [];
    return b.parts.flatMap((p) => p.nets.map(netKey)).filter((n) => !nets.has(n) && n !== 'nc');
  });
}

/** A capacitor of the safety class or at most this may bridge the barrier. */
const BARRIER_FARADS = 12e-9;

export function describeCrossings(crossing: readonly Branch[]): readonly Crossing[] {
  return crossing.flatMap((branch) =>
    branch.parts.map((part) => {
      const bleeder = branch.kind === 'resistor' && branch.value! >= 0.999e6;
      const safety =
        branch.kind === 'capacitor' && (/Y[12]/u.test(marking(part) ?? '') || branch.value! <= BARRIER_FARADS);
      const allowed = bleeder || safety;
      const why = allowed
        ? bleeder
          ? 'a high-value bleeder'
          : 'a Y capacitor'
        : `${part.ref} joins two sides that should be isolated`;
      return { ref: part.ref, allowed, why };
    }),
  );
}
