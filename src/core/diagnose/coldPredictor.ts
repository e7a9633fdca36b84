import { netKey } from '../circuit';
import { DEFAULT_METER } from '../meter';
import type { ColdMode, MeterProfile } from '../meter';
import type { Predicted } from './experiment';
import { scaleKind } from './outcome';
import type { OutcomeScale } from './scale';
import type { ProbePoint } from './probePoint';

/** Seconds that a cold reading costs at the bench; every figure may be changed (`engine.md` section 7). */
export const READING_SECONDS = {
  sameBlackSameMode: 5,
  bothMove: 10,
  modeChange: 3,
  /** Beyond this a settling time is charged several times over: the plan should find another way. */
  patience: 5,
  impatience: 4,
} as const;

/** What a cold reading costs after the last one, in seconds, settling included. */
export function readingSeconds(
  point: ProbePoint & Pick<Predicted, 'settle'>,
  last: ProbePoint | null,
  settle = point.settle,
): number {
  const blackStays = last !== null && netKey(last.black) === netKey(point.black);
  const moved = blackStays ? READING_SECONDS.sameBlackSameMode : READING_SECONDS.bothMove;
  const changed = last !== null && last.mode !== point.mode ? READING_SECONDS.modeChange : 0;
  const { patience, impatience } = READING_SECONDS;
  const waiting = settle <= patience ? settle : patience + impatience * (settle - patience);
  return moved + changed + waiting;
}

/** The scale on which a meter mode is read: volts, or ohms by their logarithm. */
export function scaleOf(mode: ColdMode, meter: MeterProfile = DEFAULT_METER): OutcomeScale {
  const kind = scaleKind(mode);
  if (kind === 'linear') {
    const { diodeFraction, diodeFloorVolts, diodeOverloadVolts } = meter;
    return {
      kind,
      span: diodeOverloadVolts,
      limit: diodeOverloadVolts,
      noise: { share: diodeFraction, floor: diodeFloorVolts, floorTo: Infinity },
    };
  }
  const { ohmsFraction, lowRangeFloorOhms, lowRangeOhms, ohmsOverload } = meter;
  return {
    kind,
    span: Math.log(ohmsOverload),
    limit: Math.log(ohmsOverload + 1),
    noise: { share: ohmsFraction, floor: lowRangeFloorOhms, floorTo: lowRangeOhms },
  };
}
