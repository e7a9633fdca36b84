import { simulateReading, solverFor } from '../meter';
import type { DcSolver } from '../solve';
import type { Random } from '../quantity';
import { MOST_READINGS } from './diagnose';
import type { Diagnoser } from './diagnose';
import type { Diagnosis, Standing } from './standing';
import type { Fault } from '../fault';
import type { PartDraw } from '../device';
import type { ProbePoint } from './probePoint';
import type { TakenReading } from './posterior';

/** Chooses the next point from what is known; null ends the hunt. */
export type PointChooser = (standing: Standing, diagnoser: Diagnoser) => ProbePoint | null;

/** How a simulated hunt ended. */
export interface Hunt {
  readonly readings: readonly TakenReading[];
  readonly diagnosis: Diagnosis;
  readonly ended: 'named' | 'cannot-tell' | 'nothing-left' | 'too-many';
}

/**
 * Follows a plan on a simulated broken board until a group is named, nothing more can be told, or 60 readings.
 *
 * faults  hidden in the simulated board; draw: how its parts differ; random: the meter's noise.
 * choose  the plan; by default the best next reading.
 */
export function huntFault(
  diagnoser: Diagnoser,
  faults: readonly Fault[],
  draw: PartDraw,
  random: Random,
  choose: PointChooser = bestNext,
): Hunt {
  const solver: DcSolver = solverFor(diagnoser.predictor.board, faults, draw);
  const readings: TakenReading[] = [];
  for (;;) {
    const standing = diagnoser.standing(readings);
    const named = diagnoser.mayCall(standing);
    const point = named || readings.length >= MOST_READINGS ? null : choose(standing, diagnoser);
    if (point === null) {
      const diagnosis = diagnoser.diagnose(readings);
      const tooMany = readings.length >= MOST_READINGS && diagnosis.verdict === 'open';
      return {
        readings: [...readings],
        diagnosis,
        ended: tooMany ? 'too-many' : diagnosis.verdict === 'open' ? 'nothing-left' : diagnosis.verdict,
      };
    }
    const seen = simulateReading(solver, point.mode, point.red, point.black, random);
    readings.push({ mode: point.mode, red: point.red, black: point.black, seen });
  }
}

/** Follows the plan: the best next reading. */
export const bestNext: PointChooser = (standing, diagnoser) => {
  const plan = diagnoser.plan(standing, 12);
  return diagnoser.mayCall(standing, plan) || diagnoser.through(standing, plan) ? null : plan[0]!.point;
};
