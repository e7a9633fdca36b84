import type { Predicted, Predictor } from './experiment';
import { pointLikelihood, sameReadings } from './likelihood';
import type { Observation } from './likelihood';
import { pointKey, readPoints } from './posterior';
import type { TakenReading } from './posterior';
import type { ProbePoint } from './probePoint';
import { separates } from './separates';

/** A point that was read, with what was seen there last, how often it was read, and how much likelier a suspect makes it. */
export interface Witness {
  readonly point: ProbePoint;
  readonly seen: Observation;
  readonly times: number;
  /** Natural log of its likelihood under the suspect over that on a healthy board. */
  readonly weight: number;
}

/**
 * What speaks for and against a suspect.
 *
 * for, against  points by falling weight; those that say next to nothing are left out.
 * apart         the quickest reading not taken yet that tells it from the next suspect, and which that is.
 */
export interface Evidence {
  readonly for: readonly Witness[];
  readonly against: readonly Witness[];
  readonly apart: { readonly point: ProbePoint; readonly from: string } | null;
}

/**
 * Readings that rather mean nothing if a suspect is what is broken (`none`: if nothing is): a slipped lead, another net.
 * Of a point that was read again and came out otherwise, those that the others outweigh.
 */
export function doubtfulReadings(
  predictor: Predictor,
  readings: readonly TakenReading[],
  fault: string,
): readonly TakenReading[] {
  const own = predictor.hypotheses.findIndex((h) => h.label === fault);
  return readPoints(predictor, readings).flatMap(({ point, groups, readings: list }) => {
    const { scale, spreads, classOf } = predictor.at(point);
    return groups.flatMap(({ seen }, i) => {
      const last = [...groups.filter((_, k) => k !== i), groups[i]!];
      const { total, last: meant } = pointLikelihood(scale, spreads[classOf[own]!]!, spreads[0]!, last);
      return meant < 0.5 * total ? list.filter((r) => sameReadings(scale, [seen, r.seen]).length === 1) : [];
    });
  });
}

/** A suspect as far as its evidence asks. */
interface Placed {
  readonly fault: string;
  readonly invisible: boolean;
}

/** A reading that is less than three times likelier one way or the other says next to nothing. */
const SAYS = Math.log(3);

/**
 * Whether one point alone puts a suspect before another, and the other may read so as well: a part far from what is printed on
 * it would do.
 */
export function restsOnOnePoint(
  predictor: Predictor,
  readings: readonly TakenReading[],
  fault: string,
  rival: string,
): boolean {
  const [own, other] = [fault, rival].map((label) => predictor.hypotheses.findIndex((h) => h.label === label));
  let [most, sum] = [0, 0];
  let mayReadSo = false;
  for (const { point, groups } of readPoints(predictor, readings)) {
    const { scale, spreads, classOf } = predictor.at(point);
    const likely = (h: number): ReturnType<typeof pointLikelihood> =>
      pointLikelihood(scale, spreads[classOf[h]!]!, spreads[0]!, groups);
    const against = likely(other!);
    const weight = Math.max(Math.log(likely(own!).total / against.total), 0);
    sum += weight;
    if (weight <= most) continue;
    most = weight;
    mayReadSo = against.last > 0.5 * against.total;
  }
  return mayReadSo && most > ALONE * sum;
}

/** One point that makes this much of all that speaks for a suspect stands alone. */
const ALONE = 0.8;

/** Every point that was read, with what it says of a suspect. */
export function witnessesOf(
  predictor: Predictor,
  readings: readonly TakenReading[],
  fault: string,
): readonly Witness[] {
  const own = predictor.hypotheses.findIndex((h) => h.label === fault);
  return readPoints(predictor, readings).map(({ point: { mode, red, black }, groups, readings: list }) => {
    const { scale, spreads, classOf } = predictor.at(list[0]!);
    const healthy = spreads[0]!;
    const under = pointLikelihood(scale, spreads[classOf[own]!]!, healthy, groups).total;
    const sound = pointLikelihood(scale, healthy, healthy, groups).total;
    const weight = Math.log(under / sound);
    return { point: { mode, red, black }, seen: groups.at(-1)!.seen, times: list.length, weight };
  });
}

/** The readings that speak for and against a visible suspect, and what would tell it from the next one. */
export function evidenceOf(
  predictor: Predictor,
  readings: readonly TakenReading[],
  suspects: readonly Placed[],
  suspect: Placed,
): Evidence {
  const numberOf = (label: string): number => predictor.hypotheses.findIndex((h) => h.label === label);
  const own = numberOf(suspect.fault);
  const sorted = [...witnessesOf(predictor, readings, suspect.fault)].sort(
    (a, b) => Math.abs(b.weight) - Math.abs(a.weight),
  );
  const rival = suspects.find((s) => s.fault !== suspect.fault && !s.invisible) ?? suspects.find((s) => s.invisible);
  const read = new Set(readings.map(pointKey));
  const telling =
    rival === undefined
      ? []
      : predictor.points.filter((p) => !read.has(pointKey(p)) && separates(p, own, numberOf(rival.fault)));
  const seconds = (p: Predicted): number => predictor.seconds(p, readings.at(-1) ?? null);
  const quickest = telling.reduce<Predicted | null>(
    (best, p) => (best === null || seconds(p) < seconds(best) ? p : best),
    null,
  );
  const apart = quickest && {
    point: { mode: quickest.mode, red: quickest.red, black: quickest.black },
    from: rival!.fault,
  };
  return {
    for: sorted.filter((w) => w.weight > SAYS),
    against: sorted.filter((w) => w.weight < -SAYS),
    apart,
  };
}
