import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { LEADS_OHMS, coordinate, outcomeSpread, pointKey, settleSeconds } from '../diagnose';
import type { ColdPoint, Observation, OutcomeSpread } from '../diagnose';
import { probe, solverFor, workshopMeter } from '../meter';
import type { ColdMode, OtherRange } from '../meter';
import { fillStart, startVolts } from '../solve';
import type { DcSolver, StartVolts } from '../solve';
import { LEAK_OHMS, findThreats } from './threats';
import type { FedPath, Threat } from './threats';

/** A reading must lie this many sigma above what a threat would read before it rules that threat out. */
const SURE_SIGMA = 5;
/** A healthy board reads at most this many sigma below its mean. */
const HEALTHY_SIGMA = 4;
/** A threat across less than this share of the reading's volts cannot pull it down far enough to be told. */
const LEAST_SHARE = { diode: 0.15, ohms: 0.04, continuity: 0.04 } as const;
const NEVER = 1e-6;
const SMALLER_LEAKS = [LEAK_OHMS, 8, 3, 1, 0.1] as const;

/** A board nearly the same as another one, and where it starts from that one's solution. */
interface Like {
  readonly solver: DcSolver;
  readonly start: StartVolts;
}

/** The board with what some threats burn open, like the healthy one. */
interface Base extends Like {
  readonly threats: readonly number[];
}

/**
 * What the meter would show on a healthy board and under each threat, computed where it is asked for and kept.
 *
 * A threat only ever lowers a reading (more conductance between two nets of a passive network; Rayleigh's
 * monotonicity law), and opening parts only raises it. So the leak of the most ohms with everything burnt open that it
 * can burn is the hardest to see: what rules that out rules out every smaller leak there, and the short.
 */
export class ThreatReadings {
  readonly path: FedPath;
  readonly healthySolver: DcSolver;
  private readonly bases: readonly Base[];
  private readonly solvers = new Map<number, Like>();
  private readonly voltsAt = new Map<string, Float64Array>();
  private readonly healthyAt = new Map<string, OutcomeSpread>();
  private readonly threatsAt = new Map<string, ReadonlyMap<number, OutcomeSpread>>();

  constructor(readonly board: Board) {
    this.healthySolver = solverFor(board, []);
    const path = findThreats(board);
    const solvers = new Map<string, DcSolver>([['', this.healthySolver]]);
    const burnt = (opens: readonly string[]): DcSolver => {
      const key = opens.toSorted().join(' ');
      const solver =
        solvers.get(key) ??
        solverFor(
          board,
          opens.map((ref) => ({ kind: 'open', ref })),
        );
      solvers.set(key, solver);
      return solver;
    };
    this.path = { ...path, threats: path.threats.map((t) => told(t, burnt)) };
    const groups = new Map<DcSolver, number[]>();
    this.path.threats.forEach((t, i) => {
      const base = burnt(t.opens);
      groups.set(base, [...(groups.get(base) ?? []), i]);
    });
    this.bases = [...groups].map(([solver, threats]) => ({ ...like(this.healthySolver, solver), threats }));
  }

  /** Whether both nets are on the board. */
  knows(point: Pick<ColdPoint, 'red' | 'black'>): boolean {
    const { nodeOfNet } = this.healthySolver.network;
    return nodeOfNet.has(netKey(point.red)) && nodeOfNet.has(netKey(point.black));
  }

  private nodeOf(net: string): number {
    return this.healthySolver.network.nodeOfNet.get(netKey(net)) ?? -1;
  }

  /** Whether two nets lie in one galvanic island. */
  together(a: string, b: string): boolean {
    const island = this.path.islandOf.get(netKey(a));
    return island !== undefined && island === this.path.islandOf.get(netKey(b));
  }

  /** Seconds until a healthy reading stands still. */
  settle({ mode, red, black }: ColdPoint): number {
    const [r, b] = [this.nodeOf(red), this.nodeOf(black)];
    if (r === b || !this.healthySolver.connected(r, b)) return 0;
    const computed = probe(this.healthySolver, mode, r, b, { anySolution: true });
    return computed.ok && computed.value.amps > 0
      ? settleSeconds(this.board, this.healthySolver, r, b, computed.value.amps)
      : 0;
  }

  /** What a healthy board shows. */
  healthy(point: ColdPoint): OutcomeSpread {
    const key = pointKey(point);
    const known = this.healthyAt.get(key);
    if (known) return known;
    const made = shown(this.healthySolver, point);
    this.healthyAt.set(key, made);
    this.voltsAt.set(key, standing(this.healthySolver));
    return made;
  }

  /** What the meter shows under each threat that touches this reading, by the threat's number. */
  under(point: ColdPoint): ReadonlyMap<number, OutcomeSpread> {
    const key = pointKey(point);
    const known = this.threatsAt.get(key);
    if (known) return known;
    const made = new Map<number, OutcomeSpread>();
    for (const base of this.bases) {
      const touched = this.touched(base, point);
      const near = touched.length > 0 ? this.near(base.solver, point) : null;
      for (const i of touched) {
        const { solver, start } = this.threatened(base, i);
        made.set(i, shown(solver, point, near ? fillStart(start, near(this.path.threats[i]!)) : undefined));
      }
    }
    this.threatsAt.set(key, made);
    return made;
  }

  /** The threats of one base that can change a reading at all: those across which it puts volts, or that close its way. */
  private touched({ solver, start, threats }: Base, point: ColdPoint): readonly number[] {
    const { nodeOfNet, component } = solver.network;
    const node = (net: string): number => nodeOfNet.get(netKey(net))!;
    const [red, black] = [node(point.red), node(point.black)];
    if (red === black) return [];
    const list = this.path.threats;
    const ends = (i: number): readonly [number, number] => [node(list[i]!.red), node(list[i]!.black)];
    if (!solver.connected(red, black)) {
      return threats.filter((i) => {
        const [a, b] = ends(i).map((n) => component[n]);
        return (a === component[red] && b === component[black]) || (b === component[red] && a === component[black]);
      });
    }
    const own = threats.filter((i) => ends(i).every((n) => component[n] === component[red]));
    if (own.length === 0) return [];
    this.healthy(point);
    fillStart(start, this.voltsAt.get(pointKey(point))!);
    if (!probe(solver, point.mode, red, black, { anySolution: true, start: start.volts }).ok) return own;
    const across = Math.abs(solver.voltsOf(red) - solver.voltsOf(black));
    return own.filter((i) => {
      const [a, b] = ends(i);
      return Math.abs(solver.voltsOf(a) - solver.voltsOf(b)) >= LEAST_SHARE[point.mode] * across;
    });
  }

  private threatened({ solver: base }: Base, i: number): Like {
    const known = this.solvers.get(i);
    if (known) return known;
    const made = like(base, threatSolver(this.board, this.path.threats[i]!));
    this.solvers.set(i, made);
    return made;
  }

  /**
   * Volts of the base's nodes near a reading's solution under a threat, from what the base was just solved to: by its factors
   * with the leak added, as far as that goes. Null where the base has no way between the leads.
   */
  private near(base: DcSolver, { red, black }: ColdPoint): ((threat: Threat) => Float64Array) | null {
    const { nodeOfNet, nodeCount } = base.network;
    const node = (net: string): number => nodeOfNet.get(netKey(net))!;
    if (!base.connected(node(red), node(black))) return null;
    const stood = standing(base);
    const kept = base.keep(node(red));
    const out = new Float64Array(nodeCount);
    const allowed = NEAR_SHARE * workshopMeter().diodeAmps;
    return (threat) => {
      const ends = Int32Array.of(node(threat.red), node(threat.black));
      return base.nearby(kept, ends, Float64Array.of(1 / threat.ohms), out, allowed) ? out : stood;
    };
  }
}

/** Volts of all nodes in the last solution. */
const standing = (solver: DcSolver): Float64Array =>
  Float64Array.from({ length: solver.network.nodeCount }, (_, n) => solver.voltsOf(n));

/** What of the test current may be unaccounted for where a solution begins. */
const NEAR_SHARE = 1e-3;

const like = (base: DcSolver, solver: DcSolver): Like => ({ solver, start: startVolts(base.network, solver.network) });

/** Where a few ohm belong between the two nets, the largest leak that an ohms reading there can still tell from them. */
function told(threat: Threat, burnt: (opens: readonly string[]) => DcSolver): Threat {
  if (threat.kind === 'barrier') return threat;
  const healthy = shown(burnt(threat.opens), { mode: 'ohms', red: threat.red, black: threat.black });
  const belongs = Math.exp(healthy.mean) - 1;
  if (healthy.overload > 0.5 || belongs > 20 * threat.ohms) return threat;
  const ohms = SMALLER_LEAKS.find((r) => separates(unzeroed('ohms', (belongs * r) / (belongs + r), 0), healthy));
  return ohms === undefined ? threat : { ...threat, ohms };
}

/** A solver for the board with a threat on it. */
export function threatSolver(board: Board, { red, black, ohms, opens }: Threat): DcSolver {
  const leak = {
    kind: 'resistor',
    ref: 'R!threat',
    nets: [red, black],
    keys: [],
    numbers: { tol: 0 },
    fitted: true,
    basis: 'measured',
    value: ohms,
    valueText: String(ohms),
  } as const;
  return solverFor(
    { ...board, parts: [...board.parts, leak] },
    opens.map((ref) => ({ kind: 'open', ref })),
  );
}

/** What the meter shows. start: where the solution begins, by the solver's nodes. */
function shown(solver: DcSolver, { mode, red, black }: ColdPoint, start?: Float64Array): OutcomeSpread {
  const { nodeOfNet } = solver.network;
  const computed = probe(solver, mode, nodeOfNet.get(netKey(red))!, nodeOfNet.get(netKey(black))!, {
    withSigma: true,
    anySolution: true,
    everyRange: true,
    start,
    readingOnly: start !== undefined,
  });
  if (!computed.ok) return { mean: NaN, sigma: Infinity, overload: 0.5 };
  const { raw, sigma, other } = computed.value;
  return unzeroed(mode, raw, sigma, other);
}

/** With leads that nobody zeroed: a permit does not rest on that. */
function unzeroed(mode: ColdMode, raw: number, sigma: number, other?: OtherRange): OutcomeSpread {
  return outcomeSpread(mode, raw, sigma, other, null, workshopMeter(), LEADS_OHMS);
}

/** Whether an observation is too high for what a threat would read: then the threat is not there. */
export function rulesOut(point: ColdPoint, threat: OutcomeSpread, healthy: OutcomeSpread, seen: Observation): boolean {
  switch (seen.kind) {
    case 'overload':
      // A continuity test overloads from its only range on.
      if (point.mode === 'continuity')
        return threat.mean + SURE_SIGMA * threat.sigma < Math.log(workshopMeter().lowRangeOhms);
      return threat.overload < NEVER;
    case 'figure':
    case 'at-least':
      return threat.overload < 0.5 && coordinate(point.mode, seen.value) > threat.mean + SURE_SIGMA * threat.sigma;
    case 'agrees':
      return separates(threat, healthy);
  }
}

/** Whether a healthy board's reading is sure to rule a threat out. */
export function separates(threat: OutcomeSpread, healthy: OutcomeSpread): boolean {
  const sureOverload = healthy.overload > 1 - NEVER && threat.overload < NEVER;
  const low = healthy.mean - HEALTHY_SIGMA * healthy.sigma;
  const above = threat.overload < NEVER && low > threat.mean + SURE_SIGMA * threat.sigma;
  return sureOverload || above;
}

/** Whether an observation is well below what a healthy board shows. */
export function belowHealthy(point: ColdPoint, healthy: OutcomeSpread, seen: Observation): boolean {
  if (seen.kind !== 'figure') return false;
  if (healthy.overload > 0.5) {
    const reach = healthy.overload > 1 - NEVER ? healthy.mean - 0.05 : healthy.mean - SURE_SIGMA * healthy.sigma;
    return coordinate(point.mode, seen.value) < reach;
  }
  return coordinate(point.mode, seen.value) < healthy.mean - SURE_SIGMA * healthy.sigma;
}
