import { THERMAL_VOLTS } from '../part';
import type { TransistorFigures } from '../part';
import type { DeviceModel } from './evaluation';
import { JUNCTION_GMIN } from './junction';

/**
 * The parameters of a transistor: polarity (+1 NPN, -1 PNP), IS, BF, BR, NF Vt, NR Vt; the factors multiply its
 * saturation current and its forward gain.
 */
export function transistorParameters(figures: TransistorFigures, saturation = 1, gain = 1): readonly number[] {
  return [
    figures.polarity,
    figures.saturationAmps * saturation,
    figures.forwardGain * gain,
    figures.reverseGain,
    figures.forwardEmission * THERMAL_VOLTS,
    figures.reverseEmission * THERMAL_VOLTS,
  ];
}

/**
 * One of the two transport currents of a transistor: IS (exp(v/slope) - 1), into `out` as [amps, siemens].
 * Source: J. J. Ebers and J. L. Moll, Proc. IRE 42 (1954), in the transport form.
 */
export function transportAt(saturation: number, slope: number, volts: number, out: Float64Array): void {
  const total = saturation * Math.exp(Math.min(volts / slope, 300));
  out[0] = total - saturation + JUNCTION_GMIN * volts;
  out[1] = total / slope + JUNCTION_GMIN;
}

const AT = new Float64Array(2);

/** A transistor; terminals collector, base, emitter. */
export const TRANSISTOR: DeviceModel = {
  kind: 'transistor',
  terminals: 3,
  states: 0,
  drawn: ['saturation', 'gain'],
  evaluate(p, o, x, out) {
    const sign = p[o]!;
    const bf = p[o + 2]!;
    const br = p[o + 3]!;
    transportAt(p[o + 1]!, p[o + 4]!, sign * (x[1]! - x[2]!), AT);
    const forward = AT[0]!;
    const gf = AT[1]!;
    transportAt(p[o + 1]!, p[o + 5]!, sign * (x[1]! - x[0]!), AT);
    const backward = AT[0]!;
    const gr = AT[1]!;
    const { flow, slope, flowByLog } = out;
    const gained = (sign * forward) / bf;
    flow[0] = sign * (forward - backward - backward / br);
    flow[1] = gained + (sign * backward) / br;
    flow[2] = -flow[0] - flow[1];
    slope[0] = gr + gr / br;
    slope[1] = gf - gr - gr / br;
    slope[2] = -gf;
    slope[3] = -gr / br;
    slope[4] = gf / bf + gr / br;
    slope[5] = -gf / bf;
    slope[6] = -gr;
    slope[7] = gr - gf - gf / bf;
    slope[8] = gf + gf / bf;
    // Every current goes with IS; the gain's only the base's share of the forward one.
    flowByLog[0] = flow[0];
    flowByLog[2] = flow[1];
    flowByLog[4] = flow[2];
    flowByLog[3] = -gained;
    flowByLog[5] = gained;
  },
};
