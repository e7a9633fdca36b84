import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { probe, solverFor } from '../meter';
import type { ColdMode, ComputedReading } from '../meter';
import type { DcSolver, Network } from '../solve';
import type { Hypothesis } from './hypotheses';
import { distinguishable, outcomeSpread } from './outcome';
import type { OutcomeSpread } from './outcome';
import { probePairs } from './probePairs';
import { keepSolution, noneCanChange } from './unaffected';
import type { HealthySolution } from './unaffected';
import { settleSeconds } from './settling';
import { SteadyPoints } from './steadyPoints';

/** A reading that may be taken. Nets are named as on the board. */
export interface ProbePoint {
  readonly mode: ColdMode;
  readonly red: string;
  readonly black: string;
}

/**
 * A point with what every hypothesis predicts there. Hypotheses that predict the same share a class;
 * class 0 is the healthy board's.
 *
 * raws, sigmas  computed value and the parts' share of its sigma, per class; `spreads` the whole outcome.
 * classOf       per hypothesis the number of its class.
 */
export interface PredictedPoint extends ProbePoint {
  readonly raws: readonly number[];
  readonly spreads: readonly OutcomeSpread[];
  readonly classOf: Uint16Array;
  readonly settle: number;
}

/** The cold fault dictionary of a board: every hypothesis at every point, and how much work it was. */
export interface FaultDictionary {
  readonly board: Board;
  readonly hypotheses: readonly Hypothesis[];
  readonly points: readonly PredictedPoint[];
  readonly counts: DictionaryCounts;
}

export interface DictionaryCounts {
  readonly entries: number;
  readonly skipped: number;
  readonly solved: number;
}

interface PointDraft extends ProbePoint {
  readonly redNode: number;
  readonly blackNode: number;
  readonly healthy: HealthySolution | null;
  readonly raws: number[];
  readonly spreads: OutcomeSpread[];
  readonly classOf: Uint16Array;
  readonly settle: number;
  readonly several: boolean;
  unsteady: boolean;
}

/**
 * Builds the dictionary step by step: yields the share done (0..1) after each hypothesis, so that the caller can show
 * progress, hand the thread back or stop; returns the dictionary.
 *
 * points  where to predict; by default diode both ways and ohms over every probe pair.
 */
export function* buildDictionary(
  board: Board,
  hypotheses: readonly Hypothesis[],
  points: readonly ProbePoint[] = defaultPoints(board),
): Generator<number, FaultDictionary> {
  const healthy = solverFor(board, []);
  const steadiness = new SteadyPoints(board);
  const drafts = points
    .map((p) => draftPoint(board, healthy, p, hypotheses.length))
    .filter((d) => steadiness.steady(d, healthy, d.spreads[0]!) || keepUnsteady(d, points.length));
  let skipped = 0;
  let solved = 0;
  for (let h = 1; h < hypotheses.length && drafts.some((d) => !d.unsteady); h++) {
    const { faults } = hypotheses[h]!;
    let solver: DcSolver | null = null;
    let from: Int32Array | null = null;
    for (const draft of drafts) {
      if (draft.unsteady) continue;
      if (draft.healthy && noneCanChange(board, healthy, draft.healthy, faults)) {
        skipped++;
        continue;
      }
      solver ??= solverFor(board, faults);
      from ??= matchNodes(healthy.network, solver.network);
      solved++;
      predict(solver, draft, h, from);
    }
    yield h / hypotheses.length;
  }
  return {
    board,
    hypotheses,
    points: drafts.map(({ mode, red, black, raws, spreads, classOf, settle }) => ({
      mode,
      red,
      black,
      raws,
      spreads,
      classOf,
      settle,
    })),
    counts: { entries: (hypotheses.length - 1) * drafts.length, skipped, solved },
  };
}

/** Builds the whole dictionary at once. */
export function buildWholeDictionary(
  board: Board,
  hypotheses: readonly Hypothesis[],
  points?: readonly ProbePoint[],
): FaultDictionary {
  const steps = buildDictionary(board, hypotheses, points);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

/** Diode both ways and ohms over every pair of nets that some part bridges. */
export function defaultPoints(board: Board): readonly ProbePoint[] {
  return probePairs(board).flatMap(({ a, b }) => [
    { mode: 'diode' as const, red: a, black: b },
    { mode: 'diode' as const, red: b, black: a },
    { mode: 'ohms' as const, red: a, black: b },
  ]);
}

function draftPoint(board: Board, solver: DcSolver, point: ProbePoint, count: number): PointDraft {
  const redNode = solver.network.nodeOfNet.get(netKey(point.red))!;
  const blackNode = solver.network.nodeOfNet.get(netKey(point.black))!;
  const computed = probe(solver, point.mode, redNode, blackNode, { withSigma: true });
  const value: ComputedReading = computed.ok
    ? computed.value
    : { reading: { kind: 'overload' }, raw: Infinity, sigma: 0, amps: 0 };
  const solved = computed.ok && value.amps > 0 && redNode !== blackNode;
  // The last solve may have been on a neighbouring range: the kept solution is the one that was read.
  if (solved) probe(solver, point.mode, redNode, blackNode);
  const healthy = solved && value.raw !== 0 ? keepSolution(board, solver, redNode, blackNode, value.amps) : null;
  return {
    ...point,
    redNode,
    blackNode,
    healthy,
    raws: [value.raw],
    spreads: [outcomeSpread(point.mode, value.raw, value.sigma, value.other ?? null)],
    classOf: new Uint16Array(count),
    unsteady: false,
    several: computed.ok && computed.value.several === true,
    settle: solved ? settleSeconds(board, solver, redNode, blackNode, value.amps) : 0,
  };
}

/** For each node of the faulty network the node of the healthy one with the same name, or -1. */
function matchNodes(healthy: Network, faulty: Network): Int32Array {
  const byName = new Map(healthy.nodeNames.map((name, i) => [netKey(name), i]));
  byName.delete('nc');
  return Int32Array.from(faulty.nodeNames, (name) => byName.get(netKey(name)) ?? -1);
}

function predict(solver: DcSolver, draft: PointDraft, h: number, from: Int32Array): void {
  const { nodeOfNet } = solver.network;
  const known = draft.healthy?.volts;
  const start = known && Float64Array.from(from, (node) => (node < 0 ? 0 : known[node]!));
  const red = nodeOfNet.get(netKey(draft.red))!;
  const black = nodeOfNet.get(netKey(draft.black))!;
  const computed = probe(solver, draft.mode, red, black, {
    withSigma: true,
    start,
    anySolution: !draft.several,
  });
  if (!computed.ok) return; // Where nothing can be computed nothing is claimed: the healthy class stands.
  const spread = outcomeSpread(draft.mode, computed.value.raw, computed.value.sigma, computed.value.other ?? null);
  const raw = computed.value.raw;
  const same = draft.spreads.findIndex((s, c) => alike(s, spread) && nearly(draft.raws[c]!, raw));
  if (same >= 0) {
    draft.classOf[h] = same;
    return;
  }
  draft.raws.push(computed.value.raw);
  draft.spreads.push(spread);
  draft.classOf[h] = draft.spreads.length - 1;
}

/**
 * An unsteady point is left out of a plan; asked for by itself it is kept, with a spread that claims nothing.
 */
function keepUnsteady(draft: PointDraft, asked: number): boolean {
  if (asked > 1) return false;
  draft.unsteady = true;
  draft.spreads[0] = { mean: 1.25, sigma: 1, overload: 0.5 };
  return true;
}

/** The same figure for any meter: within a promille. */
function nearly(a: number, b: number): boolean {
  return a === b || Math.abs(a - b) <= 1e-3 * Math.abs(a) + 1e-5;
}

/** Two predictions that no meter could ever tell apart share a class. */
function alike(a: OutcomeSpread, b: OutcomeSpread): boolean {
  if (Math.abs(a.overload - b.overload) > 1e-3) return false;
  if (a.overload > 0.999) return true;
  return Math.abs(a.mean - b.mean) < 0.03 * Math.min(a.sigma, b.sigma) && Math.abs(a.sigma - b.sigma) < 0.03 * a.sigma;
}

/** Whether two hypotheses can be told apart at a point. */
export function separates(point: PredictedPoint, g: number, h: number): boolean {
  const [a, b] = [point.classOf[g]!, point.classOf[h]!];
  return a !== b && distinguishable(point.spreads[a]!, point.spreads[b]!);
}
