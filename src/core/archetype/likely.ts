import type { Nameplate } from '../circuit';

/** What is printed on a unit, as far as it tells which circuit is in it: V, A; undefined: not printed. */
export interface PrintedPlate {
  readonly source?: 'mains' | 'dc' | 'battery' | undefined;
  readonly inputMin?: number | undefined;
  readonly inputMax?: number | undefined;
  readonly outputVolts?: number | undefined;
  readonly outputAmps?: number | undefined;
}

/**
 * How far typical circuits are from what is printed, the nearest first; those that agree equally keep their order. What feeds
 * it counts most, then the volts and the power it gives, on a ratio scale.
 */
export function likeliestFirst<T extends { readonly nameplate: Nameplate }>(
  circuits: readonly T[],
  plate: PrintedPlate,
): readonly T[] {
  const far = new Map(circuits.map((c) => [c, distance(c.nameplate, plate)]));
  return [...circuits].sort((a, b) => far.get(a)! - far.get(b)!);
}

/** What another kind of source weighs, against a factor of e between two figures. */
const OTHER_SOURCE = 4;
/** The same for direct volts in place of alternating ones. */
const OTHER_OUTPUT = 2;
const MAINS_VOLTS = [115, 230];

function distance(own: Nameplate, plate: PrintedPlate): number {
  const apart = (a: number | undefined, b: number | undefined): number =>
    a === undefined || b === undefined || !(a > 0) || !(b > 0) ? 0 : Math.abs(Math.log(a / b));
  const [output] = own.outputs ?? [];
  const watts = (volts?: number, amps?: number): number | undefined =>
    volts === undefined || amps === undefined ? undefined : volts * amps;
  // A battery and a direct source are alike but for their name.
  const direct = (s: string | undefined): boolean => s === 'dc' || s === 'battery';
  const other =
    plate.source === undefined || plate.source === own.source
      ? 0
      : direct(plate.source) && direct(own.source)
        ? 0.5
        : OTHER_SOURCE;
  // Mains is mains: what range of it is printed tells little.
  const input = plate.source === 'mains' ? 0.2 : 1;
  // What is fed with direct volts and gives those of the mains gives them alternating.
  const alternates = plate.source !== 'mains' && MAINS_VOLTS.some((v) => apart(v, plate.outputVolts ?? 1) < 0.1);
  return (
    other +
    (alternates && output?.kind !== 'ac' ? OTHER_OUTPUT : 0) +
    apart(own.inputMin, plate.inputMin) * input +
    apart(own.inputMax, plate.inputMax) * input +
    apart(output?.volts, plate.outputVolts) +
    0.5 * apart(watts(output?.volts, output?.amps), watts(plate.outputVolts, plate.outputAmps))
  );
}
