import { nearestPreferred } from '../quantity';

/** What is printed on the unit, as typed so far. SI units; absent where not typed. */
export interface PlateFigures {
  readonly source: 'mains' | 'dc' | 'battery';
  readonly inputMin?: number | undefined;
  readonly inputMax?: number | undefined;
  readonly outputVolts?: number | undefined;
  readonly outputAmps?: number | undefined;
  readonly fuseAmps?: number | undefined;
}

/**
 * Sanity of a nameplate.
 *
 * outputWatts, inputAmps   worst case at the lowest input; efficiency and power factor are assumed and say so.
 * fuseFrom, fuseTo         plausible fuse rating, amperes.
 * remarks                  what does not fit together.
 */
export interface PlateSanity {
  readonly outputWatts: number | null;
  readonly inputAmps: number | null;
  readonly fuseFrom: number | null;
  readonly fuseTo: number | null;
  readonly why: string;
  readonly remarks: readonly string[];
}

const EFFICIENCY = 0.85;
/** Power factor of a capacitor-input rectifier without correction. */
const POWER_FACTOR = 0.6;
/** Above this a mains supply is taken to correct its power factor. */
const CORRECTED_WATTS = 75;

/** Checks what a nameplate claims while it is typed: power, worst-case input current, plausible fuse. */
export function nameplateSanity(plate: PlateFigures): PlateSanity {
  const { source, inputMin, inputMax, outputVolts, outputAmps, fuseAmps } = plate;
  const remarks: string[] = [];
  if (inputMin !== undefined && inputMax !== undefined && inputMin > inputMax)
    remarks.push('The lowest input is above the highest.');
  const outputWatts = outputVolts !== undefined && outputAmps !== undefined ? outputVolts * outputAmps : null;
  if (outputWatts === null || inputMin === undefined || inputMin <= 0) {
    return { outputWatts, inputAmps: null, fuseFrom: null, fuseTo: null, why: '', remarks };
  }
  const factor = source === 'mains' ? (outputWatts > CORRECTED_WATTS ? 0.95 : POWER_FACTOR) : 1;
  const inputAmps = outputWatts / (EFFICIENCY * factor * inputMin);
  const fuseFrom = nearestFuse(inputAmps * 1.3);
  const fuseTo = nearestFuse(inputAmps * 3);
  const why = `${round(outputWatts)} W / (0.85 efficiency x ${factor} power factor x ${inputMin} V) = ${round(inputAmps)} A; fuse 1.3 to 3 times that`;
  if (fuseAmps !== undefined && fuseAmps > fuseTo * 1.5)
    remarks.push('The fuse is larger than this power needs: check that it is the right one.');
  if (fuseAmps !== undefined && fuseAmps < inputAmps)
    remarks.push('The fuse is smaller than the claimed load would draw: the claim may be too high.');
  if (source === 'mains' && inputMax !== undefined && inputMax > 300)
    remarks.push('The highest line is above 300 V: is this a three-phase or industrial inlet?');
  return { outputWatts, inputAmps, fuseFrom, fuseTo, why, remarks };
}

/** Fuse ratings follow R10 of preferred numbers; E12 is near enough for a plausibility band. */
function nearestFuse(amps: number): number {
  return nearestPreferred(amps, 'E12');
}

function round(value: number): number {
  return Number(value.toPrecision(3));
}
