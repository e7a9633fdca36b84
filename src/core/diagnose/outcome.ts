import { DEFAULT_METER, meterSigma } from '../meter';
import type { ColdMode, MeterProfile } from '../meter';

/** A figure in the coordinate in which readings are weighed: volts, or the log of ohm plus one. */
export interface OutcomeSpread {
  readonly mean: number;
  readonly sigma: number;
  /** Probability of overload. */
  readonly overload: number;
}

/** What was observed at a point. `at-least` is a creeping reading: its last figure is a lower limit. */
export type Observation =
  | { readonly kind: 'figure'; readonly value: number }
  | { readonly kind: 'at-least'; readonly value: number }
  | { readonly kind: 'overload' }
  | { readonly kind: 'agrees' };

/** Share of readings that mean nothing (slipped probe, wrong net): no single reading convicts or clears. */
export const OUTLIER_SHARE = 0.02;
const OUTLIER_OVERLOAD = 0.3;
const DIODE_MODEL_VOLTS = 0.005;
const OHMS_MODEL_FRACTION = 0.01;
const LEAD_OHMS = 0.2;
const FIGURE_SPAN = { diode: 2.5, ohms: Math.log(60e6), continuity: Math.log(60e6) } as const satisfies Record<
  ColdMode,
  number
>;

/** The coordinate of a figure: volts as they are, resistance as ln(ohm + 1). */
export function coordinate(mode: ColdMode, value: number): number {
  return mode === 'diode' ? value : Math.log(Math.max(value, -0.5) + 1);
}

/**
 * The spread of what a meter will show, given what was computed.
 *
 * raw        volts or ohm before the overload limit; Infinity for no path.
 * partSigma  one sigma of `raw` from the parts, same unit.
 * other      ohm on the neighbouring range where either may be used: the spread then covers both.
 * Spread is meter, parts, leads and model error, added in squares (`netlist.md` section 3, `engine.md` section 7).
 */
export function outcomeSpread(
  mode: ColdMode,
  raw: number,
  partSigma: number,
  other: number | null = null,
  meter: MeterProfile = DEFAULT_METER,
): OutcomeSpread {
  if (mode === 'diode') {
    const volts = Math.min(raw, meter.diodeLimitVolts);
    const sigma = Math.hypot(meterSigma(mode, volts, meter), Math.min(partSigma, 0.5), DIODE_MODEL_VOLTS);
    // Far above the limit nothing but a slipped lead brings the figure back.
    const overload = raw >= meter.diodeLimitVolts - 0.02 ? 1 : normalCdf((volts - meter.diodeOverloadVolts) / sigma);
    return { mean: volts, sigma, overload };
  }
  if (!Number.isFinite(raw)) return { mean: Math.log(meter.ohmsOverload), sigma: 1, overload: 1 };
  const noise = Math.hypot(meterSigma(mode, raw, meter), partSigma, OHMS_MODEL_FRACTION * raw, LEAD_OHMS);
  const gap = other === null ? 0 : coordinate(mode, Math.min(other, meter.ohmsOverload)) - coordinate(mode, raw);
  const mean = coordinate(mode, raw) + gap / 2;
  const sigma = Math.min(noise / (Math.max(raw, 0) + 1) + Math.abs(gap) / 2, 3);
  return { mean, sigma, overload: normalCdf((mean - Math.log(meter.ohmsOverload)) / sigma) };
}

/** Natural log of the likelihood of an observation. `healthy` gives meaning to "agrees, no figure". */
export function logLikelihood(
  mode: ColdMode,
  spread: OutcomeSpread,
  healthy: OutcomeSpread,
  seen: Observation,
): number {
  const keep = 1 - OUTLIER_SHARE;
  switch (seen.kind) {
    case 'overload':
      return Math.log(keep * spread.overload + OUTLIER_SHARE * OUTLIER_OVERLOAD);
    case 'figure': {
      const z = (coordinate(mode, seen.value) - spread.mean) / spread.sigma;
      const density = Math.exp(-0.5 * z * z) / (spread.sigma * Math.sqrt(2 * Math.PI));
      return Math.log(
        keep * (1 - spread.overload) * density + (OUTLIER_SHARE * (1 - OUTLIER_OVERLOAD)) / FIGURE_SPAN[mode],
      );
    }
    case 'at-least': {
      const above = 1 - normalCdf((coordinate(mode, seen.value) - spread.mean) / spread.sigma);
      return Math.log(keep * (spread.overload + (1 - spread.overload) * above) + OUTLIER_SHARE * 0.5);
    }
    case 'agrees': {
      const inBand =
        normalCdf((healthy.mean + 2.5 * healthy.sigma - spread.mean) / spread.sigma) -
        normalCdf((healthy.mean - 2.5 * healthy.sigma - spread.mean) / spread.sigma);
      const same = healthy.overload > 0.5 ? spread.overload : (1 - spread.overload) * inBand;
      return Math.log(keep * same + OUTLIER_SHARE * 0.3);
    }
  }
}

/**
 * Whether two predictions differ by more than three combined sigma, or in overload (contract: what groups faults).
 */
export function distinguishable(a: OutcomeSpread, b: OutcomeSpread): boolean {
  if (Math.abs(a.overload - b.overload) > 0.9) return true;
  if (a.overload > 0.5 || b.overload > 0.5) return false;
  return Math.abs(a.mean - b.mean) > 3 * Math.hypot(a.sigma, b.sigma);
}

/** Normal distribution function. Source: Abramowitz and Stegun, Handbook of Mathematical Functions, 7.1.26; error below 2e-7. */
export function normalCdf(z: number): number {
  if (z > 8) return 1;
  if (z < -8) return 0;
  const x = Math.abs(z) / Math.SQRT2;
  const t = 1 / (1 + 0.3275911 * x);
  const erf =
    1 -
    ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t * Math.exp(-x * x);
  return z >= 0 ? 0.5 * (1 + erf) : 0.5 * (1 - erf);
}
