import { netKey } from '../circuit';
import type { Board } from '../circuit';
import type { Fault } from '../fault';
import { READING_SHARE, probe, solverFor, workshopMeter } from '../meter';
import type { ComputedReading } from '../meter';
import { floats } from '../linear';
import { fillStart, startVolts } from '../solve';
import type { DcSolver, Network, StartVolts } from '../solve';
import { driftSpread } from './drift';
import type { DriftFault } from './drift';
import { outcomeModes, outcomeSpread, overloadChance } from './outcome';
import type { OutcomeSpread } from './outcome';
import type { ColdPoint } from './probePoint';
import { bentOutcome, steepOutcome } from './steep';
import { changesOf, keepSolution, noneCanChange, solvedNearby } from './unaffected';
import type { Changes, KnownSolution, SolvedReading } from './unaffected';
import { settleSeconds } from './settling';

/** A point being filled: see `PredictedPoint`; `healthy` is the solution that all begin with. */
export interface PointDraft extends ColdPoint {
  readonly healthy: KnownSolution | null;
  readonly raws: number[];
  readonly spreads: OutcomeSpread[];
  readonly classOf: Uint16Array;
  readonly settle: number;
  readonly several: boolean;
  /** What a sound board reads bends away from its tangent: what reads so nearly is spread so too. */
  readonly bent: boolean;
  unsteady: boolean;
}

/**
 * A hypothesis that others build on, with its solution at each point; null where there was nothing to solve. The
 * healthy board is the first of them; a shorted switch is the base of all that it takes along.
 */
export interface Base {
  readonly number: number;
  readonly faults: readonly Fault[];
  readonly known: readonly (KnownSolution | null)[];
}

/**
 * Predicts one hypothesis at every point: where what it adds to one of its bases cannot change that one's reading it
 * shares its class, elsewhere it is solved, from the first one's solution.
 *
 * bases  each with some of its faults, one at least. keep: it will be a base itself.
 */
export function addHypothesis(
  board: Board,
  drafts: readonly PointDraft[],
  h: number,
  faults: readonly Fault[],
  bases: readonly Base[],
  keep: boolean,
): { readonly solved: number; readonly base: Base | null } {
  let solved = 0;
  let solver: DcSolver | null = null;
  const starts = new Map<Network, StartVolts>();
  const changes = new Map<Network, Changes>();
  // Of what the solution knows nothing of, whether its base has it or not.
  const changesTo = ({ network, faults: there }: KnownSolution): Changes => {
    let made = changes.get(network);
    if (!made) {
      const more = faults.filter((f) => !there.includes(f));
      changes.set(network, (made = changesOf(board, network, more)));
    }
    return made;
  };
  const own: (KnownSolution | null)[] = [];
  const [only] = faults;
  const drift = faults.length === 1 && only?.kind === 'value' ? only : null;
  drafts.forEach((draft, p) => {
    const known = bases[0]!.known[p] ?? null;
    if (keep) own.push(known);
    if (draft.unsteady) return;
    draft.classOf[h] = draft.classOf[bases[0]!.number]!;
    let near: Float64Array | null = null;
    let change: Changes | undefined;
    for (let w = 0; w < bases.length; w++) {
      const base = bases[w]!;
      const stood = base.known[p];
      if (!stood) continue;
      const added = changesTo(stood);
      let same = noneCanChange(stood, added);
      if (w === 0) {
        change = added;
        if (!same) near = nearbyStart(stood, added);
        same ||= near !== null && !draft.several && unchanged(stood, near[stood.red]! - near[stood.black]!);
      }
      if (!same) continue;
      draft.classOf[h] = draft.classOf[base.number]!;
      if (keep) own[p] = stood;
      return;
    }
    solver ??= solverFor(board, faults);
    let start: Start | null = null;
    if (known) {
      let from = starts.get(known.network);
      if (!from) starts.set(known.network, (from = startVolts(known.network, solver.network)));
      start = { known, volts: fillStart(from, near ?? known.volts), far: near === null && change?.added !== null };
    }
    solved++;
    const found = predict(board, solver, draft, h, faults, start, keep, drift);
    if (keep) own[p] = found;
  });
  return { solved, base: keep ? { number: h, faults, known: own } : null };
}

let nearbyVolts = new Float64Array(0);

/** Voltages to start from where the fault is all but linear: those are the solution. */
function nearbyStart(known: KnownSolution, change: Changes): Float64Array | null {
  const { nodeCount } = known.network;
  if (nearbyVolts.length !== nodeCount) nearbyVolts = floats(nodeCount);
  return solvedNearby(known, change, nearbyVolts) ? nearbyVolts : null;
}

/** Whether so many volts between the leads are the known reading. */
function unchanged({ reading }: KnownSolution, volts: number): boolean {
  return Math.abs(Math.abs(volts) - reading) <= UNCHANGED * reading + 1e-6;
}

/** The healthy board's reading at a point, with what is kept of it. */
export function draftPoint(board: Board, solver: DcSolver, point: ColdPoint, count: number): PointDraft {
  const redNode = solver.network.nodeOfNet.get(netKey(point.red))!;
  const blackNode = solver.network.nodeOfNet.get(netKey(point.black))!;
  const computed = probe(solver, point.mode, redNode, blackNode, { withSigma: true });
  const value: ComputedReading = computed.ok
    ? computed.value
    : { reading: { kind: 'overload' }, raw: Infinity, sigma: 0, amps: 0 };
  const solved = computed.ok && value.amps > 0 && redNode !== blackNode;
  const healthy =
    solved && value.raw !== 0
      ? keepWhole({ board, faults: [], solver, red: redNode, black: blackNode, amps: value.amps })
      : null;
  const tangent = outcomeSpread(point.mode, value.raw, value.sigma, value.other, value.main);
  const bent = bentOutcome(board, point, value, tangent);
  return {
    ...point,
    healthy,
    bent: bent !== null,
    raws: [value.raw],
    spreads: [bent ?? tangent],
    classOf: new Uint16Array(count),
    unsteady: false,
    several: computed.ok && computed.value.several === true,
    settle: solved ? settleSeconds(board, solver, redNode, blackNode, value.amps) : 0,
  };
}

/** A reading that changed by less than this share, and a microvolt, is the base's. */
const UNCHANGED = 2e-4;

/** Where a solve begins: at the volts of a like network, whose solution is known; far: that is not near the answer. */
interface Start {
  readonly known: KnownSolution;
  readonly volts: Float64Array;
  readonly far: boolean;
}

/** Solves one entry and files it under its class. Gives the solution where it is to be kept and there is one. */
function predict(
  board: Board,
  solver: DcSolver,
  draft: PointDraft,
  h: number,
  faults: readonly Fault[],
  start: Start | null,
  keep: boolean,
  drift: DriftFault | null,
): KnownSolution | null {
  const { nodeOfNet } = solver.network;
  const red = nodeOfNet.get(netKey(draft.red))!;
  const black = nodeOfNet.get(netKey(draft.black))!;
  const warm = start !== null && solver.connected(red, black) && red !== black;
  const known = start?.known ?? null;
  let solvedAmps = 0;
  if (warm) solver.startFrom(red, start.volts, start.known.states);
  if (warm && start.far && draft.mode !== 'diode') {
    // Far from the base's it reads something else, on another range as a rule: that is looked for at once.
    solver.scaleStart(red, workshopMeter().ohmsRangeVolts / start.known.reading);
  } else if (warm) {
    const { known } = start;
    // First at the base's own test current: most faults change nothing here, and then this is the whole work.
    const drive = { kind: 'current', amps: known.amps, limitVolts: workshopMeter().diodeLimitVolts } as const;
    const first = solver.solve(red, black, drive, true, READING_SHARE);
    if (first.ok) solvedAmps = known.amps;
    if (first.ok && !draft.several && unchanged(known, first.value.volts))
      return keep ? keepWhole({ board, faults, solver, red, black, amps: known.amps }) : null;
  }
  const computed = probe(solver, draft.mode, red, black, {
    withSigma: true,
    start: warm ? { amps: solvedAmps } : undefined,
    anySolution: !draft.several,
    readingOnly: true,
  });
  if (!computed.ok) return null; // Where nothing can be computed nothing is claimed: the base's class stands.
  const { raw, sigma, other, main, amps } = computed.value;
  if (draft.bent && Math.abs(Math.log(raw / draft.raws[0]!)) < LIKE_SOUND) draft.classOf[h] = 0;
  else {
    const range = drift && known ? driftSpread(board, known, drift, draft.mode, computed.value) : null;
    const spread = range ?? outcomeSpread(draft.mode, raw, sigma, other, main);
    const drawn = range ? null : steepOutcome(board, faults, draft, computed.value, draft.spreads[0]!, spread);
    draft.classOf[h] = fileUnder(draft, raw, drawn ?? spread);
  }
  if (!keep || amps === 0 || raw === 0 || red === black) return null;
  return keepWhole({ board, faults, solver, red, black, amps });
}

/** Readings whose logs differ by less are spread alike. */
const LIKE_SOUND = 0.05;

/** How right a solution is that others build on: far inside what counts as no change. */
const KEPT_SHARE = READING_SHARE / 100;

/** Keeps a solution that others build on: of the range that was read. */
function keepWhole(at: SolvedReading): KnownSolution | null {
  const { solver, red, black, amps } = at;
  const drive = { kind: 'current', amps, limitVolts: workshopMeter().diodeLimitVolts } as const;
  return solver.solve(red, black, drive, true, KEPT_SHARE).ok ? keepSolution(at) : null;
}

/** The classes of a point as they fill: the figure and the outcome of each. */
export interface Classes {
  readonly raws: number[];
  readonly spreads: OutcomeSpread[];
}

/** The class of what is predicted, a new one where there is none yet; least: figures closer than this are one, in their unit. */
export function fileUnder({ raws, spreads }: Classes, raw: number, spread: OutcomeSpread, least = 1e-5): number {
  const same = spreads.findIndex((s, c) => nearly(raws[c]!, raw, least) && alike(s, spread));
  if (same >= 0) return same;
  raws.push(raw);
  return spreads.push(spread) - 1;
}

/** The same figure for any meter: within a promille. */
function nearly(a: number, b: number, least: number): boolean {
  return a === b || Math.abs(a - b) <= 1e-3 * Math.abs(a) + least;
}

/** Two predictions that no meter could ever tell apart share a class. */
function alike(a: OutcomeSpread, b: OutcomeSpread): boolean {
  if (Math.abs(a.overload - b.overload) > 1e-3 || Math.abs(overloadChance(a) - overloadChance(b)) > 1e-3) return false;
  if (overloadChance(a) > 0.999) return true;
  const [x, y] = [outcomeModes(a), outcomeModes(b)];
  return (
    x.length === y.length &&
    x.every((m, i) => {
      const n = y[i]!;
      return (
        Math.abs(m.mean - n.mean) < 0.03 * Math.min(m.sigma, n.sigma) &&
        Math.abs(m.sigma - n.sigma) < 0.03 * m.sigma &&
        Math.abs(m.weight - n.weight) < 0.01
      );
    })
  );
}
