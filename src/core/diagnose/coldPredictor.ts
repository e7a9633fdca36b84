import { netKey } from '../circuit';
import { isCold, workshopMeter } from '../meter';
import type { ColdMode, MeterProfile } from '../meter';
import type { Predicted } from './experiment';
import { scaleKind } from './outcome';
import { workshopCosts } from './readingCost';
import type { OutcomeScale } from './scale';
import type { ProbePoint } from './probePoint';

/** What a cold reading costs after the last one, in seconds, settling included. */
export function readingSeconds(
  point: ProbePoint & Pick<Predicted, 'settle'>,
  last: ProbePoint | null,
  settle = point.settle,
): number {
  const costs = workshopCosts();
  if (!isCold(point.mode)) return costs.instrument;
  const blackStays = last !== null && netKey(last.black) === netKey(point.black);
  const moved = blackStays ? costs.sameBlackSameMode : costs.bothMove;
  const changed = last !== null && last.mode !== point.mode ? costs.modeChange : 0;
  const { patience, impatience } = costs;
  const waiting = settle <= patience ? settle : patience + impatience * (settle - patience);
  return moved + changed + waiting;
}

/** The scale on which a meter mode is read: volts, or ohms by their logarithm. */
export function scaleOf(mode: ColdMode, meter: MeterProfile = workshopMeter()): OutcomeScale {
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
