import { THERMAL_VOLTS } from '../part';
import type { JunctionFigures } from '../part';
import type { DeviceModel } from './evaluation';
import { twoByTwo, twoEnds } from './passives';

/**
 * Solves w + ln w = c for w > 0 (the Wright omega function on the real line).
 * Source: R. M. Corless and D. J. Jeffrey, "The Wright ω function" (2002); Halley steps from an asymptotic start.
 */
export function wrightOmega(c: number): number {
  if (c < -7) {
    // w = e - e² + 3/2 e³ - 8/3 e⁴ + 125/24 e⁵ …: five terms are exact to 1e-14 here.
    const e = Math.exp(c);
    return e * (1 - e * (1 - e * (1.5 - e * (8 / 3 - (e * 125) / 24))));
  }
  let w = c > 1 ? c - Math.log(c) : c > -2 ? 0.56714329 + 0.36189625 * c + 0.0738 * c * c : Math.exp(c);
  if (!(w > 0)) w = Math.exp(c);
  for (let i = 0; i < 5; i++) {
    const r = c - w - Math.log(w);
    const step = (w * r * (1 + w + (2 / 3) * r)) / ((1 + w) * (1 + w + (2 / 3) * r) - 0.5 * r);
    w = Math.max(w + step, w * 1e-3);
    // The steps are of third order or better: after a small one the next would be lost in rounding.
    if (Math.abs(step) < 1e-5 * w) break;
  }
  return w;
}

/** Conductance kept across every junction, siemens; below the 1e-14 that the contract of accuracy allows. */
export const JUNCTION_GMIN = 1e-15;

/** Where each number that describes a junction stands. */
export const [SATURATION, SLOPE, SERIES, BREAKDOWN, BREAKDOWN_AMPS, FARADS, LOG_DRIVE, LOG_BREAKDOWN] = [
  0, 1, 2, 3, 4, 5, 6, 7,
] as const;

/** The parameters of a junction; `scale` multiplies its saturation current. The last two are ln(I RS / N Vt), kept for speed. */
export function junctionParameters(figures: JunctionFigures, scale = 1): readonly number[] {
  const saturation = figures.saturationAmps * scale;
  const slope = figures.emission * THERMAL_VOLTS;
  const { seriesOhms: series, breakdownVolts, breakdownAmps, zeroBiasFarads } = figures;
  return [
    saturation,
    slope,
    series,
    breakdownVolts,
    breakdownAmps,
    zeroBiasFarads,
    series > 0 ? Math.log((saturation * series) / slope) : 0,
    series > 0 ? Math.log((breakdownAmps * series) / THERMAL_VOLTS) : 0,
  ];
}

/**
 * Current of a junction at a terminal voltage, its series resistance inside; written into `out` as
 * [amps, siemens, amps per ln(IS)]. p: parameters, from index o.
 *
 * Forward IS (exp(V/N Vt) - 1); in breakdown -IBV exp(-(V+BV)/Vt), the saturation current on top.
 * Source: contract, section 3; W. Shockley, Bell System Tech. J. 28 (1949).
 */
export function junctionAt(p: Float64Array, o: number, volts: number, out: Float64Array): void {
  const saturation = p[o]!;
  const series = p[o + SERIES]!;
  const breakdown = p[o + BREAKDOWN]!;
  if (volts < -0.5 * breakdown) {
    const over = -volts - breakdown;
    let amps: number;
    let siemens: number;
    let share = 1;
    if (series > 0) {
      const w = wrightOmega(p[o + LOG_BREAKDOWN]! + (over - saturation * series) / THERMAL_VOLTS);
      amps = (w * THERMAL_VOLTS) / series;
      siemens = w / (series * (1 + w));
      share = 1 / (1 + w);
    } else {
      amps = p[o + BREAKDOWN_AMPS]! * Math.exp(Math.min(over / THERMAL_VOLTS, 300));
      siemens = amps / THERMAL_VOLTS;
    }
    out[0] = -amps - saturation + JUNCTION_GMIN * volts;
    out[1] = siemens + JUNCTION_GMIN;
    out[2] = -saturation * share;
    return;
  }
  const slope = p[o + SLOPE]!;
  let total: number;
  let siemens: number;
  let share = 1;
  if (series > 0) {
    const w = wrightOmega(p[o + LOG_DRIVE]! + (volts + saturation * series) / slope);
    total = (w * slope) / series;
    siemens = w / (series * (1 + w));
    share = 1 / (1 + w);
  } else {
    total = saturation * Math.exp(Math.min(volts / slope, 300));
    siemens = total / slope;
  }
  const amps = total - saturation;
  out[0] = amps + JUNCTION_GMIN * volts;
  out[1] = siemens + JUNCTION_GMIN;
  out[2] = amps * share;
}

const AT = new Float64Array(3);

/** A junction; terminals anode, cathode. Its capacitance is the zero-bias one at every voltage (contract). */
export const JUNCTION: DeviceModel = {
  kind: 'junction',
  terminals: 2,
  states: 0,
  drawn: ['saturation'],
  evaluate(p, o, x, out) {
    const volts = x[0]! - x[1]!;
    junctionAt(p, o, volts, AT);
    twoEnds(out.flow, AT[0]!);
    twoByTwo(out.slope, 2, AT[1]!);
    twoEnds(out.flowByLog, AT[2]!);
    twoEnds(out.charge, p[o + FARADS]! * volts);
    twoByTwo(out.capacity, 2, p[o + FARADS]!);
  },
};

/**
 * Limits the step of a junction voltage so that the exponential cannot run away between two Newton steps.
 * Source: L. W. Nagel, memorandum ERL-M520, University of California, Berkeley (1975), on junction-voltage limiting.
 */
export function limitJunction(next: number, last: number, slope: number, critical: number): number {
  if (next <= critical || Math.abs(next - last) <= 2 * slope) return next;
  if (last <= 0)
    return next > 0 ? Math.max(slope * Math.log(Math.max(next / slope, 1)), Math.min(next, critical)) : next;
  const grown = 1 + (next - last) / slope;
  return grown > 0 ? last + slope * Math.log(grown) : critical;
}

/** The voltage above which limiting starts: where the curve bends most. */
export function criticalVolts(saturation: number, slope: number): number {
  return slope * Math.log(slope / (Math.SQRT2 * saturation));
}
