import { placeOn } from './scale';
import type { Predicted, Predictor } from './experiment';
import type { ProbePoint } from './probePoint';
import { OUTLIER_SHARE, saysItAgain } from './likelihood';
import { figureBelow, mainMode, outcomeModes, overloadChance } from './outcome';
import type { OutcomeMode, OutcomeSpread } from './outcome';
import { CONSTANTS_TO_SETTLE } from './settling';
import { conditioned } from './sharedDraws';
import type { DrawState } from './sharedDraws';
import { pointKey, readPoints } from './posterior';
import type { ReadPoint, TakenReading } from './posterior';

/** A planned reading: what it tells in bits, what it costs in seconds, and how it splits the suspects. */
export interface PlannedReading {
  readonly point: Predicted;
  readonly gainBits: number;
  readonly seconds: number;
  /** Groups with more than 1 % among which it decides: sizes of the parts it splits them into, largest first. */
  readonly split: readonly number[];
  /** The point was read before: once more tells whether that reading meant anything. */
  readonly again: boolean;
  /** Too slow to be waited for: it is read while it still creeps. */
  readonly creep: Creep | null;
}

/**
 * A reading that a capacitor makes creep up for longer than a person waits: how long to wait, what it has passed by then
 * on the healthy board, and what it would come to. From nothing upwards: the meter charges what is discharged.
 */
export interface Creep {
  readonly seconds: number;
  readonly passed: number;
  readonly towards: number;
}

/** As long as a person holds two probes on a figure that moves, seconds. */
const PATIENCE_SECONDS = 15;

/** How a point creeps on the healthy board; null where it settles in time or shows no figure. */
export function creepOf(point: Predicted): Creep | null {
  const [towards = Infinity] = point.raws;
  if (point.settle <= PATIENCE_SECONDS || !(towards > 0) || overloadChance(point.spreads[0]!) > 0.5) return null;
  const passed = towards * (1 - Math.exp((-CONSTANTS_TO_SETTLE * PATIENCE_SECONDS) / point.settle));
  return { seconds: PATIENCE_SECONDS, passed, towards };
}

/** Outcome bins of a point: per class the probability of each bin, overload last. */
export interface OutcomeBins {
  readonly bins: number;
  readonly classes: readonly Float64Array[];
  readonly entropies: Float64Array;
  /** Where one bin ends and the next begins, in the coordinate. */
  readonly edges: readonly number[];
}

/** The bins of a point; of a slow one also those while it still creeps. */
export interface PointBins extends OutcomeBins {
  readonly slow: { readonly creep: Creep; readonly bins: OutcomeBins } | null;
}

/** The bins as they are while a figure still creeps: whatever lies above what it has passed comes out the same. */
function whileCreeping({ classes, edges, bins }: OutcomeBins, passed: number): OutcomeBins {
  const kept = edges.filter((e) => e < passed).length + 1;
  const rows = classes.map((row) => {
    const cut = new Float64Array(kept + 1);
    for (let b = 0; b < bins; b++) cut[Math.min(b, kept)] = cut[Math.min(b, kept)]! + row[b]!;
    return cut;
  });
  return { bins: kept + 1, classes: rows, entropies: Float64Array.from(rows, entropy), edges: edges.slice(0, kept) };
}

/** Below this a reading tells nothing worth a probe. Bits. */
export const LEAST_GAIN_BITS = 0.002;

/** Bins for every point of a predictor; computed once, used at each decision. */
export function binOutcomes(predictor: Pick<Predictor, 'points'>): readonly PointBins[] {
  return predictor.points.map((point) => {
    const bins = binPoint(point.spreads);
    const creep = creepOf(point);
    const slow = creep && { creep, bins: whileCreeping(bins, placeOn(point.scale, creep.passed)) };
    return { ...bins, slow };
  });
}

function binPoint(spreads: readonly OutcomeSpread[]): OutcomeBins {
  const modes = spreads
    .filter((s) => overloadChance(s) <= 0.999)
    .flatMap((s) => outcomeModes(s).filter((m) => m.weight > 0.02))
    .sort((x, y) => x.mean - y.mean);
  const edges: number[] = [];
  let from = -Infinity;
  let previous: OutcomeMode | null = null;
  for (const mode of modes) {
    const { mean, sigma } = mode;
    if (previous !== null) {
      const wide = mean - from > 2.5 * sigma;
      const gap = mean - previous.mean > 1.5 * Math.min(sigma, previous.sigma);
      if (gap || wide) {
        edges.push((previous.mean * sigma + mean * previous.sigma) / (sigma + previous.sigma));
        from = mean;
      }
    } else from = mean;
    previous = mode;
  }
  const bins = edges.length + 2;
  const classes = spreads.map((s) => {
    const row = new Float64Array(bins);
    const overload = overloadChance(s);
    let below = 0;
    for (let b = 0; b <= edges.length; b++) {
      const upTo = b === edges.length ? 1 : figureBelow(s, edges[b]!);
      row[b] = (1 - overload) * Math.max(0, upTo - below);
      below = upTo;
    }
    row[bins - 1] = overload;
    for (let b = 0; b < bins; b++) row[b] = (1 - OUTLIER_SHARE) * row[b]! + OUTLIER_SHARE / bins;
    return row;
  });
  return { bins, classes, entropies: Float64Array.from(classes, entropy), edges };
}

function entropy(row: Float64Array): number {
  let sum = 0;
  for (let b = 0; b < row.length; b++) if (row[b]! > 0) sum -= row[b]! * Math.log2(row[b]!);
  return sum;
}

/** Expected information of a reading about which hypothesis is true, in bits. */
export function expectedGain(
  point: Predicted,
  bins: OutcomeBins,
  probabilities: Float64Array,
  work: Float64Array,
): number {
  const count = bins.classes.length;
  if (count === 1) return 0;
  work.fill(0, 0, count);
  for (let h = 0; h < probabilities.length; h++) {
    const c = point.classOf[h]!;
    work[c] = work[c]! + probabilities[h]!;
  }
  if (work[0]! > 1 - 1e-12) return 0;
  let known = 0;
  let total = 0;
  for (let b = 0; b < bins.bins; b++) {
    let p = 0;
    for (let c = 0; c < count; c++) if (work[c]! > 0) p += work[c]! * bins.classes[c]![b]!;
    if (p > 0) total -= p * Math.log2(p);
  }
  for (let c = 0; c < count; c++) known += work[c]! * bins.entropies[c]!;
  return Math.max(0, total - known);
}

type Ranked = Omit<PlannedReading, 'split'>;

/** How many beyond those wanted are looked at more closely. */
const NEAR = 12;

/**
 * Where no quick reading tells more than this, bits, one that tells so much is worth a wait of up to so many seconds with the
 * leads clipped on.
 */
const NOTHING_QUICK = 0.05;
const WORTH_WAITING = 0.5;
const LONGEST_WAIT = 3600;

/** A point is not asked for again once it was read this often. */
const MOST_TIMES = 4;

/** Expected information of reading a point once more: whether it says the same tells what it was worth. Bits. */
function gainOfAgain(point: Predicted, read: ReadPoint, probabilities: Float64Array): number {
  const healthy = point.spreads[0]!;
  const same = point.spreads.map((s) => saysItAgain(point.scale, s, healthy, read.groups));
  let [agreed, known] = [0, 0];
  for (let h = 0; h < probabilities.length; h++) {
    const p = probabilities[h]!;
    const q = same[point.classOf[h]!]!;
    agreed += p * q;
    known += p * twoWay(q);
  }
  return Math.max(0, twoWay(agreed) - known);
}

function twoWay(p: number): number {
  return p <= 0 || p >= 1 ? 0 : -p * Math.log2(p) - (1 - p) * Math.log2(1 - p);
}

/**
 * The readings worth taking next, best first: expected bits per second, so that a slow reading must tell more; where nothing
 * quick tells anything any more, one that does is first, slow as it is. Points already read come again only for what
 * reading them once more would tell.
 *
 * groups       group of each hypothesis, for the split that is shown.
 * skipped      points to leave out.
 * most         how many to give.
 */
export function planReadings(
  predictor: Predictor,
  bins: readonly PointBins[],
  groups: Int32Array,
  probabilities: Float64Array,
  { readings, states }: { readonly readings: readonly TakenReading[]; readonly states: readonly DrawState[] },
  skipped: readonly ProbePoint[],
  most: number,
): readonly PlannedReading[] {
  const read = readPoints(predictor, readings);
  const done = new Set([...skipped, ...readings].map(pointKey));
  const last = readings.at(-1) ?? skipped.at(-1) ?? null;
  const work = new Float64Array(predictor.hypotheses.length);
  const ranked: Ranked[] = [];
  let telling: Ranked | null = null;
  const rank = (point: Predicted, gainBits: number, again: boolean, creep: Creep | null = null): void => {
    if (gainBits < LEAST_GAIN_BITS) return;
    ranked.push({ point, gainBits, seconds: predictor.seconds(point, last, creep?.seconds), again, creep });
  };
  predictor.points.forEach((point, i) => {
    if (done.has(pointKey(point))) return;
    const gain = expectedGain(point, bins[i]!, probabilities, work);
    const { slow } = bins[i]!;
    // A slow one is waited for, or read on its way: whichever tells more for its time.
    const short = slow ? expectedGain(point, slow.bins, probabilities, work) : 0;
    const hurried =
      slow !== null &&
      short / predictor.seconds(point, last, slow.creep.seconds) > gain / predictor.seconds(point, last);
    rank(point, hurried ? short : gain, false, hurried ? slow.creep : null);
    if (gain > (telling?.gainBits ?? WORTH_WAITING) && point.settle <= LONGEST_WAIT)
      telling = { point, gainBits: gain, seconds: predictor.seconds(point, last), again: false, creep: null };
  });
  const left = new Set(skipped.map(pointKey));
  for (const one of read) {
    const times = one.groups.reduce((sum, g) => sum + g.count, 0);
    if (times >= MOST_TIMES || left.has(pointKey(one.point))) continue;
    const point = predictor.at(one.point);
    rank(point, gainOfAgain(point, one, probabilities), true);
  }
  const worth = (r: Ranked): number => r.gainBits / r.seconds;
  ranked.sort((a, b) => worth(b) - worth(a));
  // What was read has told of the draws: of the best it is worked out what they would tell beyond that.
  const closer = (r: Ranked): Ranked => {
    const left = r.again || r.creep ? r.point.spreads : leftOf(r.point, probabilities, states);
    if (left === r.point.spreads) return r;
    return { ...r, gainBits: expectedGain(r.point, binPoint(left), probabilities, work) };
  };
  const near = ranked.slice(0, most + NEAR).map(closer);
  const best = near.filter((r) => r.gainBits >= LEAST_GAIN_BITS).sort((a, b) => worth(b) - worth(a));
  const slow = telling !== null && !(best[0] && best[0].gainBits >= NOTHING_QUICK) ? closer(telling) : null;
  if (slow !== null && slow.gainBits > WORTH_WAITING)
    best.splice(0, best.length, slow, ...best.filter((r) => r.point !== slow.point));
  return best.slice(0, most).map((r) => ({ ...r, split: splitOf(r.point, groups, probabilities) }));
}

/**
 * What each class at a point is left with by what its likeliest hypothesis has told of the draws; the spreads themselves
 * where that is nothing.
 */
function leftOf(point: Predicted, probabilities: Float64Array, states: readonly DrawState[]): readonly OutcomeSpread[] {
  const { scale, spreads, classOf } = point;
  if (spreads.length < 2 || !spreads.some((s) => s.main)) return spreads;
  const best = new Int32Array(spreads.length).fill(-1);
  for (let h = 0; h < probabilities.length; h++) {
    const c = classOf[h]!;
    if (best[c]! < 0 || probabilities[h]! > probabilities[best[c]!]!) best[c] = h;
  }
  let changed = false;
  const left = spreads.map((s, c) => {
    if (best[c]! < 0 || probabilities[best[c]!]! < 1e-6) return s;
    const made = conditioned(scale, s, states[best[c]!]!);
    changed ||= made !== s;
    return made;
  });
  return changed ? left : spreads;
}

/** Into how many groups of suspects (above 1 %) a reading splits them, by nominal outcome. */
function splitOf(point: Predicted, groups: Int32Array, probabilities: Float64Array): readonly number[] {
  const mass = new Map<number, { total: number; best: number; bestP: number }>();
  for (let h = 0; h < probabilities.length; h++) {
    const entry = mass.get(groups[h]!) ?? { total: 0, best: h, bestP: 0 };
    entry.total += probabilities[h]!;
    if (probabilities[h]! > entry.bestP) [entry.best, entry.bestP] = [h, probabilities[h]!];
    mass.set(groups[h]!, entry);
  }
  const live = [...mass.values()].filter((m) => m.total > 0.01);
  const clusters: { mean: number; sigma: number; overload: boolean; size: number }[] = [];
  for (const { best } of live) {
    const spread = point.spreads[point.classOf[best]!]!;
    const s = mainMode(spread);
    const overload = overloadChance(spread) > 0.5;
    const near = clusters.find(
      (c) => c.overload === overload && (overload || Math.abs(c.mean - s.mean) <= 2 * Math.hypot(c.sigma, s.sigma)),
    );
    if (near) near.size++;
    else clusters.push({ mean: s.mean, sigma: s.sigma, overload, size: 1 });
  }
  return clusters.map((c) => c.size).sort((a, b) => b - a);
}
