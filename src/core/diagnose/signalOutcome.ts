import { normalCdf } from '../quantity';
import {
  CAP_LIMIT_OHMS,
  ESR_LIMIT_OHMS,
  LEAST_REACTIVE,
  SIGNAL_NOISE,
  figureChange,
  figureOf,
  signalSigma,
} from '../signal';
import type { DrawEffect, OneTone } from '../signal';
import type { Complex } from '../linear';
import type { OutcomeSpread } from './outcome';
import { placeOn } from './scale';
import type { OutcomeScale } from './scale';

/** What a model of the board leaves open, and what zeroed clips add, ohm. */
const MODEL_SHARE = 0.02;
const CLIP_OHMS = 0.005;

/** Figures are told on a ratio scale from here on: a good electrolytic's series resistance spreads by a factor. */
const LEAST_TOLD_OHMS = 0.02;
const LEAST_TOLD_FARADS = 1e-12;
const MOST_FARADS = 10;

/** The scales on which small signals are read: ohms and farads by their logarithm. */
export const SIGNAL_SCALES: Readonly<Record<OneTone, OutcomeScale>> = {
  esr: scale(LEAST_TOLD_OHMS, ESR_LIMIT_OHMS, SIGNAL_NOISE.esr),
  cap: scale(LEAST_TOLD_FARADS, MOST_FARADS, SIGNAL_NOISE.cap),
};

function scale(unit: number, most: number, noise: { readonly share: number; readonly floor: number }): OutcomeScale {
  const limit = Math.log(most / unit + 1);
  return { kind: 'logarithmic', unit, span: limit, limit, noise: { ...noise, floorTo: Infinity } };
}

/** How sharp the limits of overload are, one sigma of a log. */
const EDGE = 0.15;

/** The chance that there is no figure; sigma: how far it spreads, of its log. */
function overloadOf(mode: OneTone, z: Complex, sigma: number): number {
  if (mode === 'esr') return z.re <= 0 ? 0 : normalCdf(Math.log(z.re / ESR_LIMIT_OHMS) / Math.hypot(EDGE, sigma));
  const size = Math.hypot(z.re, z.im);
  const share = z.im < 0 ? -z.im / size : 0;
  const resistive = share > 0 ? normalCdf(Math.log(LEAST_REACTIVE / share) / EDGE) : 1;
  return Math.max(resistive, normalCdf(Math.log(size / CAP_LIMIT_OHMS) / EDGE));
}

/** Draws that make less than this share of the variance are not told; at most so many are. */
const LEAST_TOLD = 0.02;
const MOST_TOLD = 6;
/** Least share of a sigma that the parts must make for their draws to be told. */
const LEAST_FELT = 0.5;

/**
 * The spread of what an instrument shows of an impedance, ohm; null: nothing joins the leads. `effects` are those of one sigma
 * of each draw on it.
 */
export function signalOutcome(mode: OneTone, z: Complex | null, effects: readonly DrawEffect[]): OutcomeSpread {
  const { unit = 1, limit } = SIGNAL_SCALES[mode];
  const none = { mean: limit, sigma: 1, overload: 1 };
  if (z === null) return none;
  const figure = figureOf(mode, z);
  // What the figure hangs on, in the coordinate.
  const perUnit = 1 / (Math.max(figure / unit, 0) + 1) / unit;
  const felt = effects.map((one) => figureChange(mode, z, one) * perUnit);
  const parts = felt.reduce((sum, e) => sum + e * e, 0);
  const meter = Math.hypot(signalSigma(mode, figure), MODEL_SHARE * figure, mode === 'esr' ? CLIP_OHMS : 0);
  const sigma = Math.min(Math.sqrt(parts + (meter * perUnit) ** 2), MOST_SIGMA);
  const overload = overloadOf(mode, z, sigma);
  if (overload > 0.9999) return none;
  const mean = placeOn(SIGNAL_SCALES[mode], figure);
  const told = felt
    .map((e, i) => ({ e, i }))
    .filter(({ e }) => e * e > LEAST_TOLD * parts)
    .sort((a, b) => Math.abs(b.e) - Math.abs(a.e))
    .slice(0, MOST_TOLD);
  if (told.length === 0 || Math.sqrt(parts) < LEAST_FELT * sigma || overload > 0.5) return { mean, sigma, overload };
  const main = {
    draws: told.map(({ i }) => effects[i]!.draw),
    effects: told.map(({ e }) => e),
    spreads: told.map(({ i }) => effects[i]!.sigma),
  };
  return { mean, sigma, overload, main };
}

const MOST_SIGMA = 3;
