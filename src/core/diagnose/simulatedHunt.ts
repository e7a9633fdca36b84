import { DEFAULT_METER, SimulatedBoard } from '../meter';
import type { MeterProfile } from '../meter';
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
  /** Those of them that were taken on other nets than meant. */
  readonly slipped: readonly TakenReading[];
  readonly diagnosis: Diagnosis;
  readonly ended: 'named' | 'cannot-tell' | 'nothing-left' | 'too-many';
}

/**
 * How a simulated hunt goes: the plan, by default the best next reading; the meter, by default the contract's; how often
 * the leads stand on two other nets than meant, as a share of the readings; and after how many readings it is given up.
 */
export interface HuntWays {
  readonly choose?: PointChooser;
  readonly meter?: MeterProfile;
  readonly slips?: number;
  readonly most?: number;
}

/**
 * Follows a plan on a simulated broken board until a group is named, nothing more can be told, or there are too many readings.
 *
 * faults  hidden in the simulated board; draw: how its parts differ; random: the meter's noise, and where leads slip to.
 */
export function huntFault(
  diagnoser: Diagnoser,
  faults: readonly Fault[],
  draw: PartDraw,
  random: Random,
  { choose = bestNext, meter = DEFAULT_METER, slips = 0, most = MOST_READINGS }: HuntWays = {},
): Hunt {
  const { predictor } = diagnoser;
  const unit = new SimulatedBoard(predictor.board, faults, draw);
  const readings: TakenReading[] = [];
  const slipped: TakenReading[] = [];
  for (;;) {
    const standing = diagnoser.standing(readings);
    const plan = standing.surety === 'unless-told' ? diagnoser.plan(standing, 12) : undefined;
    const named = diagnoser.mayCall(standing, plan);
    const point = named || readings.length >= most ? null : choose(standing, diagnoser);
    if (point === null) {
      const diagnosis = diagnoser.diagnose(readings);
      const tooMany = readings.length >= most && diagnosis.verdict === 'open';
      return {
        readings: [...readings],
        slipped,
        diagnosis,
        ended: tooMany ? 'too-many' : diagnosis.verdict === 'open' ? 'nothing-left' : diagnosis.verdict,
      };
    }
    const { mode, red, black } = point;
    const elsewhere =
      slips > 0 && random() < slips ? predictor.points[Math.floor(random() * predictor.points.length)]! : null;
    const at = elsewhere ?? point;
    const taken = { mode, red, black, seen: unit.read(mode, at.red, at.black, random, meter) };
    readings.push(taken);
    if (elsewhere) slipped.push(taken);
  }
}

/** Follows the plan: the best next reading. */
export const bestNext: PointChooser = (standing, diagnoser) => {
  const plan = diagnoser.plan(standing, 12);
  return diagnoser.mayCall(standing, plan) || diagnoser.through(standing, plan) ? null : plan[0]!.point;
};
