import { isCold } from '../meter';
import { recogniseStages } from '../stages';
import { faultWords } from '../fault';
import type { Diagnoser } from './diagnose';
import { placeOn } from './scale';
import type { Predicted, Predictor } from './experiment';
import { logLikelihood } from './likelihood';
import { posterior, pointKey, weighReadings } from './posterior';
import type { TakenReading } from './posterior';
import type { ColdPoint } from './probePoint';

/** Odds of a short in the supply path, or across an output, from which power is refused. */
export const GATE_LIMIT = 0.05;
/** From these odds on an open feedback is taken for a fact. */
const FEEDBACK_LIMIT = 0.5;
const MOST_CLEARING = 12;

/**
 * What the odds say about power, on top of the readings that earn a permit: they can only shut it.
 *
 * mass          odds of a short in the supply path or across an output, by prior and readings.
 * reason        that in words.
 * clearing      the readings that would take it below the limit if they come out healthy.
 * feedbackOpen  the reason to refuse a loaded output where the readings say that nothing holds it; null where not.
 */
export class SupplyShorts {
  readonly mass: number;
  readonly reason: string;
  readonly feedbackOpen: string | null;
  private readonly weights: Float64Array;

  constructor(
    private readonly diagnoser: Diagnoser,
    private readonly readings: readonly TakenReading[],
  ) {
    const { predictor } = diagnoser;
    this.weights = weighReadings(predictor, readings).weights;
    const probabilities = new Float64Array(this.weights.length);
    posterior(this.weights, probabilities);
    this.mass = shortMass(predictor, probabilities);
    this.reason = massReason(predictor, probabilities, this.mass, readings.length);
    this.feedbackOpen = readings.length === 0 ? null : openFeedback(predictor, probabilities);
  }

  /** Only a steady current shows that nothing leaks: what an instrument's signal tells is left out. */
  get clearing(): readonly ColdPoint[] {
    return clearingReadings(this.diagnoser.predictor, this.readings, this.weights);
  }
}

/** Whether the readings name an open part of the feedback: with the load on the output would run away. */
function openFeedback(predictor: Predictor, probabilities: Float64Array): string | null {
  const feedback = new Set(
    recogniseStages(predictor.board).stages.flatMap((s) => (s.kind === 'feedback' ? s.parts : [])),
  );
  let mass = 0;
  let worst = -1;
  predictor.hypotheses.forEach(({ faults }, i) => {
    if (!faults.some((f) => f.kind === 'open' && feedback.has(f.ref))) return;
    mass += probabilities[i]!;
    if (worst < 0 || probabilities[i]! > probabilities[worst]!) worst = i;
  });
  if (mass <= FEEDBACK_LIMIT || worst < 0) return null;
  const words = faultWords(predictor.board, predictor.hypotheses[worst]!.label);
  return `Nothing holds the output (${words} at ${Math.round(100 * mass)} %): not with the load on.`;
}

function shortMass(predictor: Predictor, probabilities: Float64Array): number {
  let mass = 0;
  predictor.hypotheses.forEach((h, i) => {
    if (h.short !== null) mass += probabilities[i]!;
  });
  return mass;
}

function massReason(predictor: Predictor, probabilities: Float64Array, mass: number, readings: number): string {
  let worst = 0;
  predictor.hypotheses.forEach((h, i) => {
    if (h.short !== null && (predictor.hypotheses[worst]!.short === null || probabilities[i]! > probabilities[worst]!))
      worst = i;
  });
  const percent = Math.max(1, Math.round(mass * 100));
  const where = predictor.hypotheses[worst]!.short === 'input' ? 'the supply path' : 'an output rail';
  const what =
    readings === 0
      ? 'Nothing has been read yet'
      : `${faultWords(predictor.board, predictor.hypotheses[worst]!.label)} leads`;
  return `A short in ${where} stands at ${percent} % (${what}).`;
}

/** Greedy choice: each step the reading that, if healthy, takes most of the short's mass away per second. */
function clearingReadings(
  predictor: Predictor,
  readings: readonly TakenReading[],
  weights: Float64Array,
): readonly ColdPoint[] {
  const work = Float64Array.from(weights);
  const probabilities = new Float64Array(weights.length);
  const chosen: ColdPoint[] = [];
  const done = new Set(readings.map(pointKey));
  while (chosen.length < MOST_CLEARING) {
    posterior(work, probabilities);
    const mass = shortMass(predictor, probabilities);
    if (mass <= GATE_LIMIT) return chosen;
    let best: { point: Predicted & ColdPoint; logs: readonly number[] } | null = null;
    let bestWorth = 0;
    for (const point of predictor.points) {
      const { mode } = point;
      if (!isCold(mode) || done.has(pointKey(point))) continue;
      const logs = healthyLogs(point);
      let short = 0;
      let total = 0;
      for (let h = 0; h < probabilities.length; h++) {
        const p = probabilities[h]! * Math.exp(logs[point.classOf[h]!]! - logs[0]!);
        total += p;
        if (predictor.hypotheses[h]!.short !== null) short += p;
      }
      const worth = (mass - short / total) / predictor.seconds(point, chosen.at(-1) ?? null);
      if (worth > bestWorth) [best, bestWorth] = [{ point: { ...point, mode }, logs }, worth];
    }
    if (!best) return [];
    chosen.push(best.point);
    done.add(pointKey(best.point));
    for (let h = 0; h < work.length; h++) work[h] = work[h]! + best.logs[best.point.classOf[h]!]!;
  }
  return [];
}

/** Log likelihood of each class at a point if the reading comes out exactly as on a healthy board. */
function healthyLogs(point: Predicted): readonly number[] {
  const healthy = point.spreads[0]!;
  const seen =
    healthy.overload > 0.5 ? ({ kind: 'overload' } as const) : ({ kind: 'figure', value: point.raws[0]! } as const);
  if (seen.kind === 'figure' && !Number.isFinite(placeOn(point.scale, seen.value))) return point.spreads.map(() => 0);
  return point.spreads.map((s) => logLikelihood(point.scale, s, healthy, seen));
}
