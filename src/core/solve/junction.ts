import { JUNCTION_GMIN, THERMAL_VOLTS } from './network';

/**
 * Solves w + ln w = c for w > 0 (the Wright omega function on the real line).
 * Source: R. M. Corless and D. J. Jeffrey, "The Wright ω function" (2002); Halley steps from an asymptotic start.
 */
export function wrightOmega(c: number): number {
  if (c < -16) {
    // w = e - e² + 1.5 e³ …: two terms are exact to 1e-14 here.
    const e = Math.exp(c);
    return e * (1 - e);
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

/** ln(IS RS / N Vt): the constant of a junction with series resistance; 0 without any. */
export function logSeriesDrive(saturation: number, slope: number, series: number): number {
  return series > 0 ? Math.log((saturation * series) / slope) : 0;
}

/**
 * Current and conductance of a junction at a terminal voltage; written into `out` as [amps, siemens, amps per ln(IS)].
 * logDrive: `logSeriesDrive` of the junction, where it is known already.
 */
export function junctionCurrent(
  volts: number,
  saturation: number,
  slope: number,
  series: number,
  breakdown: number,
  breakdownAmps: number,
  out: Float64Array,
  logDrive: number = logSeriesDrive(saturation, slope, series),
): void {
  if (volts < -0.5 * breakdown) {
    // Breakdown: -IBV exp(-(V+BV)/Vt), the saturation current on top.
    const over = -volts - breakdown;
    let amps: number;
    let siemens: number;
    if (series > 0) {
      const w = wrightOmega(
        Math.log((breakdownAmps * series) / THERMAL_VOLTS) + (over - saturation * series) / THERMAL_VOLTS,
      );
      amps = (w * THERMAL_VOLTS) / series;
      siemens = w / (series * (1 + w));
    } else {
      amps = breakdownAmps * Math.exp(Math.min(over / THERMAL_VOLTS, 300));
      siemens = amps / THERMAL_VOLTS;
    }
    out[0] = -amps - saturation + JUNCTION_GMIN * volts;
    out[1] = siemens + JUNCTION_GMIN;
    out[2] = saturation;
    return;
  }
  let total: number;
  let siemens: number;
  let share = 1;
  if (series > 0) {
    const w = wrightOmega(logDrive + (volts + saturation * series) / slope);
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
