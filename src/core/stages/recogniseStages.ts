import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { DisjointSets } from '../graph';
import { partText } from '../part';
import type { Part } from '../part';
import type { Anatomy } from './anatomy';
import type { ClaimBook, Scene } from './claims';
import { claimControllers } from './controlStages';
import type { Explanation } from './explain';
import { claimDirectInlet, claimLine } from './inputStages';
import { describeCrossings, describeIslands } from './islandFindings';
import type { Crossing, IslandFinding } from './islandFindings';
import { isolationLinks } from './islands';
import { claimBootstraps, claimDiverters, claimLeftovers } from './leftovers';
import { farEnd } from './partGraph';
import type { Branch } from './partGraph';
import type { PinFinding } from './pinRoles';
import { claimConverter, claimDriveCores, claimRail, claimLoneSwitches } from './powerStages';
import { isRail, isReference } from './rails';
import { readScene } from './readScene';
import { claimBarrier, claimSecondaries } from './secondaryStages';
import type { CorePurpose } from './shapes';
import { claimIndicators, claimPasses, claimRegulators, claimSignals } from './signalStages';
import { STAGE_KINDS } from './stageKinds';
import type { StageKind } from './stageKinds';
import { isSupposed } from './supposed';
import { claimThyristors } from './thyristors';
import { nameTopology } from './topology';

/** One stage: its parts, how sure, and for each part the reason. */
export interface Stage {
  readonly kind: StageKind;
  readonly parts: readonly string[];
  readonly confidence: number;
  readonly reasons: Readonly<Record<string, string>>;
}

/** What a board is made of, all derived from its netlist. */
export interface StageMap {
  readonly stages: readonly Stage[];
  readonly unplaced: readonly { readonly ref: string; readonly why: string }[];
  readonly topology: string;
  readonly topologyWhy: readonly string[];
  /** How sure the topology is, 0 to 1. */
  readonly topologyConfidence: number;
  /** Each converter with how sure it is, what else it may be, and what would settle that. */
  readonly converters: readonly Explanation[];
  readonly pins: Readonly<Record<string, readonly PinFinding[]>>;
  readonly islands: readonly IslandFinding[];
  readonly crossings: readonly Crossing[];
  /** Windings that share a core, and what that is for. */
  readonly cores: readonly { readonly refs: readonly string[]; readonly purpose: CorePurpose }[];
  /** What the board must have and nobody has traced yet, a sentence each. */
  readonly missing: readonly string[];
}

/** Part refs whose stage is set by hand. */
export type StageOverrides = Readonly<Record<string, StageKind>>;

/**
 * Recognises the stages, topology, pin roles and islands of a board from its netlist alone.
 *
 * What is unmistakable comes first (windings, rectifiers, islands), then switches and converters, then the pins of
 * controllers by what surrounds them; every rule then lays claim to branches, and each branch goes to the strongest
 * claim. `overrides` (by hand) win over everything.
 */
export function recogniseStages(board: Board, overrides?: StageOverrides): StageMap {
  if (overrides) return readStages(board, overrides);
  const known = recognised.get(board);
  if (known) return known;
  const map = readStages(board, {});
  recognised.set(board, map);
  return map;
}

/** A board never changes: what was recognised of it is kept as long as it is. */
const recognised = new WeakMap<Board, StageMap>();

function readStages(board: Board, overrides: StageOverrides): StageMap {
  const scene = readScene(board);
  const crossing = claimAll(scene);
  return describe(scene, overrides, crossing);
}

/** Lays every rule's claims; gives what crosses from one island to another. */
export function claimAll(scene: Scene): readonly Branch[] {
  const { a } = scene;
  for (const line of a.lines) claimLine(scene, line);
  for (const c of scene.converters) claimConverter(scene, c);
  claimLoneSwitches(scene);
  claimDriveCores(scene);
  claimSecondaries(scene);
  for (const supply of directSupplies(scene)) claimDirectInlet(scene, supply);
  for (const c of scene.converters) {
    for (const rail of c.outputs)
      if (!isLinePlus(a, rail)) claimRail(scene, rail, c.topology === 'boost-pfc' ? 'bulk' : 'output-filter');
  }
  claimThyristors(scene);
  claimBootstraps(scene);
  claimControllers(scene);
  claimDiverters(scene);
  claimIndicators(scene);
  claimRegulators(scene);
  claimPasses(scene);
  const crossing = claimBarrier(scene);
  claimSignals(scene);
  claimLeftRails(scene);
  claimLeftovers(scene);
  spreadToNeighbours(scene);
  return crossing;
}

function isLinePlus(a: Anatomy, net: string): boolean {
  return a.lines.some((l) => l.rectifier.plus === net);
}

/** Supplies of converters that no other converter and no line rectifier makes. */
function directSupplies({ a, converters }: Scene): readonly string[] {
  const made = new Set(converters.flatMap((c) => [...c.outputs]));
  const line = a.lines.length > 0;
  return [...new Set(converters.map((c) => c.supply))].filter(
    (s) => s !== '' && !made.has(s) && !(line && a.islands[0]?.nets.has(s)),
  );
}

/** Rails that nothing has spoken for yet: capacitors and loads across them. */
function claimLeftRails(scene: Scene): void {
  for (const net of scene.a.graph.nets.keys()) {
    if (scene.a.grounds.has(net) || !isRail(scene.a, net)) continue;
    const kind = isReference(scene.a, net) ? 'controller' : 'output-filter';
    if (kind === 'output-filter' && fromConnector(scene.a, net)) claimDirectInlet(scene, net);
    for (const { branch } of scene.a.graph.on(net)) if (!scene.book.has(branch)) claimRail(scene, net, kind);
  }
}

/** Whether a rail lies behind a connector, through what lets a supply in: a diode, a fuse, a small resistor. */
function fromConnector(a: Anatomy, net: string): boolean {
  const behind = (n: string): readonly string[] => [
    n,
    ...a.graph.on(n, 'fuse').map((p) => farEnd(p.branch, n)),
    ...a.graph.on(n, 'resistor').flatMap((p) => (p.branch.value! <= 100 ? [farEnd(p.branch, n)] : [])),
  ];
  const diodes = a.graph.on(net, 'diode').flatMap((p) => (p.pin === 1 ? [p.branch.nets[0]!] : []));
  return diodes.flatMap(behind).some((n) => !a.grounds.has(n) && a.graph.on(n, 'connector').length > 0);
}

/** Branches without a claim go with the neighbours they share a signal net with. */
function spreadToNeighbours({ a, book }: Scene): void {
  for (let round = 0; round < 4; round++) {
    const found: [Branch, StageKind][] = [];
    for (const branch of a.graph.branches) {
      if (book.has(branch)) continue;
      const votes = new Map<StageKind, number>();
      for (const net of branch.nets) {
        const shared = a.grounds.has(net) ? 0.05 : isRail(a, net) ? 0.2 : 1;
        for (const near of a.graph.touching(net)) {
          const kind = near === branch ? undefined : book.best(near)?.first.kind;
          if (kind && kind !== 'connector') votes.set(kind, (votes.get(kind) ?? 0) + shared);
        }
      }
      const best = mostVotes(votes);
      if (best) found.push([branch, best]);
    }
    for (const [branch, kind] of found) book.add(branch, kind, 0.3, 'stands beside parts of this stage');
  }
}

/** The kind with most votes; of several with as many the one that power meets first. */
function mostVotes(votes: ReadonlyMap<StageKind, number>): StageKind | undefined {
  return [...votes].sort((x, y) => y[1] - x[1] || STAGE_KINDS.indexOf(x[0]) - STAGE_KINDS.indexOf(y[0]))[0]?.[0];
}

function describe(scene: Scene, overrides: StageOverrides, crossing: readonly Branch[]): StageMap {
  const { a, book } = scene;
  const fitted = whatIfFitted(a.board);
  const placed: { part: Part; kind: StageKind; confidence: number; why: string; nets: readonly string[] }[] = [];
  const unplaced: { ref: string; why: string }[] = [];
  for (const part of a.board.parts) {
    if (isSupposed(part.ref)) continue;
    const branch = a.graph.branchOf(part.ref);
    const nets = part.nets.map(netKey);
    const word = partText(part, 'stage');
    const forced = overrides[part.ref] ?? STAGE_KINDS.find((k) => k === word);
    const best = branch ? book.best(branch) : emptyPosition(scene, fitted, part);
    if (forced) placed.push({ part, kind: forced, confidence: 1, why: 'set by hand', nets });
    else if (best) {
      const confidence =
        best.first.weight * (1 - 0.5 * Math.max(0, (best.second?.weight ?? 0) / best.first.weight - 0.6));
      placed.push({ part, kind: best.first.kind, confidence, why: best.first.why, nets });
    } else unplaced.push({ ref: part.ref, why: 'nothing that it is joined to is recognised' });
  }
  const named = nameTopology(scene);
  return {
    stages: groupStages(a, placed),
    unplaced,
    topology: named.topology,
    topologyWhy: named.topologyWhy,
    topologyConfidence: Number(named.confidence.toFixed(3)),
    converters: named.converters,
    pins: pinsByRef(scene),
    missing: scene.missing,
    cores: a.cores.map((c) => ({
      refs: c.windings.flatMap((w) => w.parts.map((p) => p.ref)).filter((ref) => !isSupposed(ref)),
      purpose: scene.switches.driveCores.includes(c) ? 'drive' : c.purpose,
    })),
    islands: describeIslands(scene),
    crossings: describeCrossings([...crossing, ...isolationLinks(a.board, a.graph, a.cores)]),
  };
}

/** An empty position goes with its like beside it, or else is what it would be if it were fitted. */
function emptyPosition({ a, book }: Scene, fitted: Scene | null, part: Part): ReturnType<ClaimBook['best']> {
  const keys = part.nets.map(netKey);
  const twin = keys.length === 2 ? a.graph.between(keys[0]!, keys[1]!, part.kind)[0] : undefined;
  const like = twin && book.best(twin);
  if (like) return { first: { ...like.first, weight: 0.7, why: 'an empty position beside its like' }, second: null };
  const branch = fitted?.a.graph.branchOf(part.ref);
  const would = branch && fitted?.book.best(branch);
  return would
    ? { first: { ...would.first, why: `an empty position; fitted: ${would.first.why}` }, second: would.second }
    : null;
}

const ALONG_RAILS: readonly StageKind[] = [
  'bulk',
  'output-filter',
  'aux-supply',
  'emi-filter',
  'mains-input',
  'surge',
  'transformer',
  'regulator',
  'pfc',
  'rectifier',
];

function groupStages(
  a: Anatomy,
  placed: readonly { part: Part; kind: StageKind; confidence: number; why: string; nets: readonly string[] }[],
): readonly Stage[] {
  const sets = new DisjointSets(placed.length);
  const seen = new Map<string, number>();
  const join = (key: string, i: number): void => {
    const first = seen.get(key);
    if (first === undefined) seen.set(key, i);
    else sets.union(first, i);
  };
  placed.forEach((p, i) => {
    for (const net of p.nets) {
      if (
        net === 'nc' ||
        a.islands.some((x) => x.references[0] === net) ||
        (isRail(a, net) && !ALONG_RAILS.includes(p.kind))
      )
        continue;
      join(`${p.kind} ${net}`, i);
    }
    const core = a.cores.findIndex((c) => c.windings.some((w) => w.parts.includes(p.part)));
    if (core >= 0) join(`${p.kind} core ${core}`, i);
    const branch = a.graph.branchOf(p.part.ref);
    if (branch) join(`${p.kind} ${branch.parts[0]!.ref}`, i);
  });
  const groups = new Map<number, number[]>();
  placed.forEach((_, i) => groups.set(sets.find(i), [...(groups.get(sets.find(i)) ?? []), i]));
  return [...groups.values()]
    .map((members) => {
      const own = members.map((i) => placed[i]!);
      return {
        kind: own[0]!.kind,
        parts: own.map((p) => p.part.ref),
        confidence: Number((own.reduce((sum, p) => sum + p.confidence, 0) / own.length).toFixed(3)),
        reasons: Object.fromEntries(own.map((p) => [p.part.ref, p.why])),
      };
    })
    .sort((x, y) => STAGE_KINDS.indexOf(x.kind) - STAGE_KINDS.indexOf(y.kind));
}

function pinsByRef({ a, pins }: Scene): Readonly<Record<string, readonly PinFinding[]>> {
  const found: Record<string, readonly PinFinding[]> = {};
  for (const [ic, findings] of pins) found[ic.parts[0]!.ref] = findings;
  for (const r of a.graph.all('regulator')) {
    const roles = ['VIN', 'GND', 'VOUT'] as const;
    found[r.parts[0]!.ref] = roles.map((role, i) => ({
      pin: String(i + 1),
      role,
      score: 1,
      runnerUp: null,
      reasons: ['a three-terminal regulator'],
    }));
  }
  return found;
}

/** All claims on a board as if every position were fitted: what an empty one would be. */
export function whatIfFitted(board: Board): Scene | null {
  if (board.parts.every((p) => p.fitted)) return null;
  const scene = readScene({ ...board, parts: board.parts.map((p) => ({ ...p, fitted: true })) });
  claimAll(scene);
  return scene;
}
