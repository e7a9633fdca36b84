import { netKey } from '../circuit';
import type { Board } from '../circuit';
import type { Fault } from '../fault';
import { isCold, probe, solverFor, workshopMeter } from '../meter';
import { atOnce } from '../problem';
import type { DcSolver } from '../solve';
import { readingSeconds, scaleOf } from './coldPredictor';
import { addHypothesis, draftPoint, fileUnder } from './dictionaryEntries';
import type { Base, PointDraft } from './dictionaryEntries';
import type { Predicted, Predictor } from './experiment';
import type { Hypothesis } from './hypotheses';
import { pointKey } from './posterior';
import { predictSignal } from './signals';
import { circuitKey } from './sameCircuit';
import { neighbourPins, probePairs } from './probePairs';
import type { ColdPoint, ProbePoint } from './probePoint';
import { SteadyPoints } from './steadyPoints';

/** The cold fault dictionary of a board: every hypothesis at every point, and how much work it was. */
export interface FaultDictionary extends Predictor {
  readonly points: readonly (Predicted & ColdPoint)[];
  readonly counts: DictionaryCounts;
}

export interface DictionaryCounts {
  readonly entries: number;
  readonly skipped: number;
  readonly solved: number;
}

/** How far a dictionary has come, with what there is of it so far. */
export interface DictionaryStep {
  /** Hypotheses worked out, the healthy board among them, of how many. */
  readonly done: number;
  readonly of: number;
  /** The dictionary of those. */
  snapshot(): FaultDictionary;
}

/** One of several that work on a dictionary together: which, of how many. */
export interface DictionaryShare {
  readonly part: number;
  readonly of: number;
}

const ALONE: DictionaryShare = { part: 0, of: 1 };

/**
 * Builds the dictionary step by step, the likeliest hypotheses first: yields after each, so that the caller can show how
 * far it is, work with what there is, hand the thread back or stop; returns the dictionary.
 *
 * asked  where to predict; by default `defaultPoints`.
 * share  which of the hypotheses, besides the healthy board; by default all. `joinParts` puts the parts together.
 */
export function* buildDictionary(
  board: Board,
  hypotheses: readonly Hypothesis[],
  asked?: readonly ColdPoint[],
  share: DictionaryShare = ALONE,
): Generator<DictionaryStep, FaultDictionary> {
  const healthy = solverFor(board, []);
  const points = asked ?? defaultPoints(board, healthy);
  const steadiness = new SteadyPoints(board);
  const drafts = points
    .map((p) => draftPoint(board, healthy, p, hypotheses.length))
    .filter((d) => steadiness.steady(d, healthy, d.spreads[0]!, d.healthy?.volts) || keepUnsteady(d, points.length));
  return yield* fillDictionary(board, hypotheses, drafts, share);
}

/** Works out a dictionary at points of the healthy board as `buildDictionary` does; drafts: filled. */
export function* fillDictionary(
  board: Board,
  hypotheses: readonly Hypothesis[],
  drafts: readonly PointDraft[],
  share: DictionaryShare = ALONE,
): Generator<DictionaryStep, FaultDictionary> {
  const bottom: Base = { number: 0, faults: [], known: drafts.map((d) => d.healthy) };
  const done = [0];
  let solved = 0;
  const snapshot = (): FaultDictionary => {
    // In the order of the list, whatever order they were worked out in.
    const order = Int32Array.from(done).sort();
    const entries = (done.length - 1) * drafts.filter((d) => !d.unsteady).length;
    const points = drafts.map(({ mode, red, black, raws, spreads, classOf, settle }) => {
      const own = Uint16Array.from(order, (h) => classOf[h]!);
      return { mode, red, black, raws: [...raws], spreads: [...spreads], classOf: own, settle };
    });
    return dictionaryOf(board, hypotheses, order, points, { entries, skipped: entries - solved, solved });
  };
  const keys = hypotheses.map(({ faults }) => circuitKey(board, faults));
  const families = shareOf(familiesOf(hypotheses), keys, share);
  if (drafts.every((d) => d.unsteady)) done.push(...families.flat());
  else {
    const worked = new Map<string, number>();
    const isNew = (h: number): boolean => !worked.has(keys[h]!);
    for (const family of families) {
      const bases = [bottom];
      for (const h of family) {
        const { faults } = hypotheses[h]!;
        const taken = family.some((more) => more !== h && isNew(more) && holds(hypotheses[more]!.faults, faults));
        if (isNew(h) || (h === family[0] && taken)) {
          const under = bases.filter((base) => holds(faults, base.faults));
          const nearest = under.filter((b) => !under.some((c) => c !== b && holds(c.faults, b.faults)));
          const made = addHypothesis(board, drafts, h, faults, nearest, taken);
          solved += made.solved;
          if (made.base) bases.unshift(made.base);
          worked.set(keys[h]!, h);
        } else {
          const twin = worked.get(keys[h]!)!;
          for (const draft of drafts) draft.classOf[h] = draft.classOf[twin]!;
        }
        done.push(h);
        yield { done: done.length, of: hypotheses.length, snapshot };
      }
    }
  }
  return snapshot();
}

/** A point with what is predicted there, without what is the same for all of its mode: it may go from thread to thread. */
type PlainPoint = Omit<Predicted & ColdPoint, 'scale'>;

/** What one of several has worked out, as it goes from thread to thread: which hypotheses, in the order of the list. */
export interface DictionaryPart {
  readonly numbers: Int32Array;
  readonly points: readonly PlainPoint[];
  readonly counts: DictionaryCounts;
}

function dictionaryOf(
  board: Board,
  hypotheses: readonly Hypothesis[],
  numbers: Int32Array,
  plain: readonly PlainPoint[],
  counts: DictionaryCounts,
): FaultDictionary {
  const those = Array.from(numbers, (h) => hypotheses[h]!);
  const points = plain.map((point) => ({ ...point, scale: scaleOf(point.mode) }));
  return {
    board,
    hypotheses: those,
    points,
    left: hypotheses.length - those.length,
    at: anywhere(board, those, points),
    seconds: readingSeconds,
    counts,
  };
}

/** A dictionary as it goes from thread to thread; hypotheses: all there are, of which it holds some. */
export function partOf(
  { hypotheses: own, points, counts }: FaultDictionary,
  hypotheses: readonly Hypothesis[],
): DictionaryPart {
  const numbers = new Map(hypotheses.map((h, i) => [h.label, i]));
  return {
    numbers: Int32Array.from(own, (h) => numbers.get(h.label)!),
    points: points.map(({ mode, red, black, raws, spreads, classOf, settle }) => {
      return { mode, red, black, raws, spreads, classOf, settle };
    }),
    counts,
  };
}

/** The dictionary that several have worked out at the same points. */
export function joinParts(
  board: Board,
  hypotheses: readonly Hypothesis[],
  parts: readonly DictionaryPart[],
): FaultDictionary {
  const places = new Map<number, readonly [part: number, at: number]>();
  parts.forEach(({ numbers }, part) =>
    numbers.forEach((h, at) => {
      if (!places.has(h)) places.set(h, [part, at]);
    }),
  );
  const numbers = Int32Array.from(places.keys()).sort();
  const points = parts[0]!.points.map((first, p): PlainPoint => {
    const classes = { raws: [...first.raws], spreads: [...first.spreads] };
    // Each part has classes of its own, the healthy board's first in all of them.
    const classOf = parts.map(({ points }, part) => {
      const { raws, spreads } = points[p]!;
      return raws.map((raw, c) => (part === 0 || c === 0 ? c : fileUnder(classes, raw, spreads[c]!)));
    });
    const own = Uint16Array.from(numbers, (h) => {
      const [part, at] = places.get(h)!;
      return classOf[part]![parts[part]!.points[p]!.classOf[at]!]!;
    });
    return { ...first, ...classes, classOf: own };
  });
  const sum = (of: keyof DictionaryCounts): number => parts.reduce((all, { counts }) => all + counts[of], 0);
  const counts = { entries: sum('entries'), skipped: sum('skipped'), solved: sum('solved') };
  return dictionaryOf(board, hypotheses, numbers, points, counts);
}

/**
 * The families of one share, in their order: those that make one circuit go together, the others to whoever has the fewest
 * hypotheses so far.
 */
function shareOf(
  families: readonly (readonly number[])[],
  keys: readonly string[],
  { part, of }: DictionaryShare,
): readonly (readonly number[])[] {
  if (of === 1) return families;
  const loads = new Int32Array(of);
  const holder = new Map<string, number>();
  return families.filter((family) => {
    const known = family.map((h) => holder.get(keys[h]!)).find((share) => share !== undefined);
    const share = known ?? loads.indexOf(Math.min(...loads));
    loads[share] = loads[share]! + family.length;
    for (const h of family) if (!holder.has(keys[h]!)) holder.set(keys[h]!, share);
    return share === part;
  });
}

/** Whether faults take in all of some others of their family. */
function holds(faults: readonly Fault[], some: readonly Fault[]): boolean {
  return some.every((f) => faults.includes(f));
}

/** What is predicted at any point, in the dictionary or worked out now and remembered; its nets must be on the board. */
function anywhere(
  board: Board,
  hypotheses: readonly Hypothesis[],
  points: readonly Predicted[],
): (point: ProbePoint) => Predicted {
  const known = new Map(points.map((p) => [pointKey(p), p]));
  return (point) => {
    const key = pointKey(point);
    const { mode } = point;
    const found =
      known.get(key) ??
      (isCold(mode)
        ? buildWholeDictionary(board, hypotheses, [{ ...point, mode }]).points[0]!
        : predictSignal(board, hypotheses, { ...point, mode }));
    known.set(key, found);
    return found;
  };
}

/** Hypotheses with those that build on them, by number, the likeliest family first. */
function familiesOf(hypotheses: readonly Hypothesis[]): readonly (readonly number[])[] {
  const families: { readonly members: number[]; weight: number }[] = [];
  for (let h = 1; h < hypotheses.length; h++) {
    const { faults, weight } = hypotheses[h]!;
    const last = families.at(-1);
    const linked = last && faults.length > 1 && hypotheses[last.members[0]!]!.faults[0] === faults[0];
    if (linked) last.members.push(h);
    else families.push({ members: [h], weight: 0 });
    families.at(-1)!.weight += weight;
  }
  return families.sort((a, b) => b.weight - a.weight).map((f) => f.members);
}

/** Builds the whole dictionary at once. */
export function buildWholeDictionary(
  board: Board,
  hypotheses: readonly Hypothesis[],
  points?: readonly ColdPoint[],
): FaultDictionary {
  return atOnce(buildDictionary(board, hypotheses, points));
}

/**
 * Diode both ways and ohms over every pair of nets that some part bridges; ohms the other way round too where the board
 * as it should be reads differently so. Ohms also between neighbouring pins of a larger part that nothing joins: a short
 * between them may show nowhere else.
 */
export function defaultPoints(board: Board, healthy: DcSolver = solverFor(board, [])): readonly ColdPoint[] {
  const { nodeOfNet } = healthy.network;
  const ohms = (red: string, black: string): number => {
    const read = probe(healthy, 'ohms', nodeOfNet.get(netKey(red))!, nodeOfNet.get(netKey(black))!);
    return read.ok ? read.value.raw : Infinity;
  };
  const apart = neighbourPins(board)
    .filter(({ a, b }) => ohms(a, b) > workshopMeter().ohmsOverload && ohms(b, a) > workshopMeter().ohmsOverload)
    .map(({ a, b }) => ({ mode: 'ohms' as const, red: a, black: b }));
  const across = probePairs(board).flatMap(({ a, b }) => {
    const [there, back] = [ohms(a, b), ohms(b, a)];
    const turned = there !== back && !(Math.abs(there - back) <= SAME_BOTH_WAYS * Math.min(there, back));
    return [
      { mode: 'diode' as const, red: a, black: b },
      { mode: 'diode' as const, red: b, black: a },
      { mode: 'ohms' as const, red: a, black: b },
      ...(turned ? [{ mode: 'ohms' as const, red: b, black: a }] : []),
    ];
  });
  return [...across, ...apart];
}

/** Ohms that differ by no more than this share either way round are one point. */
const SAME_BOTH_WAYS = 0.004;

/**
 * An unsteady point is left out of a plan; asked for by itself it is kept, with a spread that claims nothing.
 */
function keepUnsteady(draft: PointDraft, asked: number): boolean {
  if (asked > 1) return false;
  draft.unsteady = true;
  draft.spreads[0] = { mean: 1.25, sigma: 1, overload: 0.5 };
  return true;
}
