import { faultWords } from '../fault';
import type { FaultDictionary, PredictedPoint } from './dictionary';
import { coordinate, logLikelihood } from './outcome';
import { readingSeconds } from './nextReading';
import { posterior, pointKey, weighReadings } from './posterior';
import type { Predictions, TakenReading } from './posterior';

/** Probability of a short in the supply path, or across an output, from which power is refused. */
export const GATE_LIMIT = 0.05;
/** The barrier must read at least this, ohm. */
const BARRIER_OHMS = 1e6;
const MOST_CLEARING = 12;

/**
 * Whether the board may be powered, as far as the cold readings say.
 *
 * mass      probability of a short in the supply path or across an output.
 * reasons   why not, one sentence each; empty when allowed.
 * clearing  the readings that would clear it if they come out healthy; empty when allowed or when nothing would.
 */
export interface PowerGate {
  readonly allowed: boolean;
  readonly mass: number;
  readonly reasons: readonly string[];
  readonly clearing: readonly PredictedPoint[];
}

/**
 * Judges the power gate. Only readings whose place on the real board is confirmed count.
 */
export function judgeGate(predictions: Predictions, readings: readonly TakenReading[]): PowerGate {
  const { dictionary } = predictions;
  const counted = readings.filter((r) => r.placeConfirmed !== false);
  const weights = weighReadings(predictions, counted);
  const probabilities = new Float64Array(weights.length);
  posterior(weights, probabilities);
  const mass = shortMass(dictionary, probabilities);
  const reasons: string[] = [];
  if (mass > GATE_LIMIT) reasons.push(massReason(dictionary, probabilities, mass, counted.length));
  for (const part of dictionary.board.parts) {
    if (!part.fitted && (part.kind === 'mosfet' || part.kind === 'opto' || part.kind === 'shunt-reference')) {
      reasons.push(
        `${part.ref} is not fitted: without ${part.kind === 'mosfet' ? 'the switch' : 'its feedback'} it must not be powered.`,
      );
    }
  }
  for (const r of counted) {
    const healthy = predictions.at(r).raws[0]!;
    if (r.mode === 'ohms' && healthy === Infinity && r.seen.kind === 'figure' && r.seen.value < BARRIER_OHMS) {
      reasons.push(`${r.red} to ${r.black} lies across the barrier and read below 1 MΩ.`);
    }
  }
  const clearing = mass > GATE_LIMIT ? clearingReadings(predictions, counted, weights) : [];
  return { allowed: reasons.length === 0, mass, reasons, clearing };
}

function shortMass(dictionary: FaultDictionary, probabilities: Float64Array): number {
  let mass = 0;
  dictionary.hypotheses.forEach((h, i) => {
    if (h.short !== null) mass += probabilities[i]!;
  });
  return mass;
}

function massReason(dictionary: FaultDictionary, probabilities: Float64Array, mass: number, readings: number): string {
  let worst = 0;
  dictionary.hypotheses.forEach((h, i) => {
    if (h.short !== null && (dictionary.hypotheses[worst]!.short === null || probabilities[i]! > probabilities[worst]!))
      worst = i;
  });
  const percent = Math.max(1, Math.round(mass * 100));
  const where = dictionary.hypotheses[worst]!.short === 'input' ? 'the supply path' : 'an output rail';
  const what =
    readings === 0
      ? 'Nothing has been read yet'
      : `${faultWords(dictionary.board, dictionary.hypotheses[worst]!.label)} leads`;
  return `A short in ${where} stands at ${percent} % (${what}).`;
}

/** Greedy choice: each step the reading that, if healthy, takes most of the short's mass away per second. */
function clearingReadings(
  predictions: Predictions,
  readings: readonly TakenReading[],
  weights: Float64Array,
): readonly PredictedPoint[] {
  const { dictionary } = predictions;
  const work = Float64Array.from(weights);
  const probabilities = new Float64Array(weights.length);
  const chosen: PredictedPoint[] = [];
  const done = new Set(readings.map(pointKey));
  while (chosen.length < MOST_CLEARING) {
    posterior(work, probabilities);
    const mass = shortMass(dictionary, probabilities);
    if (mass <= GATE_LIMIT) return chosen;
    let best: { point: PredictedPoint; logs: readonly number[] } | null = null;
    let bestWorth = 0;
    for (const point of dictionary.points) {
      if (done.has(pointKey(point))) continue;
      const logs = healthyLogs(point);
      let short = 0;
      let total = 0;
      for (let h = 0; h < probabilities.length; h++) {
        const p = probabilities[h]! * Math.exp(logs[point.classOf[h]!]! - logs[0]!);
        total += p;
        if (dictionary.hypotheses[h]!.short !== null) short += p;
      }
      const worth = (mass - short / total) / readingSeconds(point, chosen.at(-1) ?? null);
      if (worth > bestWorth) [best, bestWorth] = [{ point, logs }, worth];
    }
    if (!best) return [];
    chosen.push(best.point);
    done.add(pointKey(best.point));
    for (let h = 0; h < work.length; h++) work[h] = work[h]! + best.logs[best.point.classOf[h]!]!;
  }
  return [];
}

/** Log likelihood of each class at a point if the reading comes out exactly as on a healthy board. */
function healthyLogs(point: PredictedPoint): readonly number[] {
  const healthy = point.spreads[0]!;
  const seen =
    healthy.overload > 0.5 ? ({ kind: 'overload' } as const) : ({ kind: 'figure', value: point.raws[0]! } as const);
  if (seen.kind === 'figure' && !Number.isFinite(coordinate(point.mode, seen.value))) return point.spreads.map(() => 0);
  return point.spreads.map((s) => logLikelihood(point.mode, s, healthy, seen));
}
