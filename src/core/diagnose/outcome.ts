import { AT_LIMIT_VOLTS, meterSigma, workshopMeter } from '../meter';
import type { ColdMode, MeterProfile, OtherRange } from '../meter';
import { normalCdf } from '../quantity';
import type { MainDraws } from '../solve';
import { NONE_FIRST, firstOfSeveral } from './firstOfSeveral';
import { leakOf, straightened } from './leak';
import type { Leak } from './leak';
import { placeOn } from './scale';
import type { OutcomeScale } from './scale';

/** One way a figure may come out: a normal distribution in the coordinate, with its share. */
export interface OutcomeMode {
  readonly mean: number;
  readonly sigma: number;
  readonly weight: number;
  /** What the parts make of sigma; left out where that is all of it. */
  readonly parts?: number;
  /** It comes out so on the neighbouring range of the instrument, when the parts bring that into use. */
  readonly neighbour?: true;
}

/**
 * What a meter will show, in the coordinate in which readings are weighed: volts, or the log of ohm plus one.
 *
 * mean, sigma  cover every way it may come out, both ranges where either may be used; overload: its probability, as widely.
 * modes        the ways one by one, their shares adding up to one; beyond: the probability of overload by them. Left out
 *              where there is but one.
 */
export interface OutcomeSpread {
  readonly mean: number;
  readonly sigma: number;
  readonly overload: number;
  readonly modes?: readonly OutcomeMode[];
  readonly beyond?: number;
  /** The draws of parts that make the most of the spread, in the coordinate; other readings may hang on the same ones. */
  readonly main?: MainDraws;
  /** The junction beside which it is read, or the gain that it hangs on, where that makes its spread lopsided. */
  readonly leak?: Leak;
  /** Of something that may be more or less so (a drift): how it comes out in the middle, for telling it from others. */
  readonly middle?: OutcomeSpread;
}

const DIODE_MODEL_VOLTS = 0.005;
const OHMS_MODEL_FRACTION = 0.01;
/** What leads add, ohm: zeroed, and as they are. */
const ZEROED_LEADS_OHMS = 0.05;
export const LEADS_OHMS = 0.2;

/** The coordinate of a figure: volts as they are, resistance as ln(ohm + 1). */
export function coordinate(mode: ColdMode, value: number): number {
  return placeOn({ kind: scaleKind(mode) }, value);
}

/** Volts are read as they are, ohms by their logarithm. */
export function scaleKind(mode: ColdMode): OutcomeScale['kind'] {
  return mode === 'diode' ? 'linear' : 'logarithmic';
}

/** Above this, ohm, and with this much of it from the parts, a reading hangs on what junctions leak: its tails are long. */
const LEAKING_OHMS = 1e5;
const LEAKING_SPREAD = 0.12;
const TAIL_SHARE = 0.1;
const TAIL_FACTOR = 4;

/**
 * The spread of what a meter will show, given what was computed.
 *
 * raw        volts or ohm before the overload limit; Infinity for no path.
 * partSigma  one sigma of `raw` from the parts, same unit.
 * other      the neighbouring range where either may be used: the spread then covers both.
 * main       the draws of parts that make the most of it, with their effect on `raw`.
 * leadOhms   what the leads may add; zeroed as a rule.
 * Spread is meter, parts, leads and model error, added in squares (`netlist.md` section 3, `engine.md` section 7).
 */
export function outcomeSpread(
  mode: ColdMode,
  raw: number,
  partSigma: number,
  other: OtherRange | null | undefined = null,
  main: MainDraws | null | undefined = null,
  meter: MeterProfile = workshopMeter(),
  leadOhms = ZEROED_LEADS_OHMS,
): OutcomeSpread {
  const first = mode === 'diode' && main ? firstOfSeveral(main) : NONE_FIRST;
  const spread = Math.sqrt(Math.max(partSigma * partSigma + first.variance, 0));
  const own = spreadOf(mode, raw - first.lower, spread, other ?? null, meter, leadOhms);
  const scale = mode === 'diode' ? 1 : 1 / (Math.max(raw, 0) + 1);
  const shown = main?.effects.map((e) => e * scale);
  // What the meter blurs as much as the parts tells nothing of them.
  const felt = shown && Math.sqrt(squaresOf(shown)) > LEAST_FELT * mainMode(own).sigma && overloadChance(own) < 0.5;
  if (!felt) return own;
  const told = { ...main!, effects: shown };
  const leak = own.modes ? null : leakOf(told, own.mean, own.sigma, mode === 'diode' ? 'gain' : 'leak');
  return leak ? { ...own, main: told, leak } : { ...own, main: told };
}

/** Root of the sum of squares of what makes up a spread. */
const lengthOf = (a: number, b: number, c: number, d: number): number => Math.sqrt(a * a + b * b + c * c + d * d);

function squaresOf(parts: readonly number[]): number {
  let sum = 0;
  for (const p of parts) sum += p * p;
  return sum;
}

/** Least share of a sigma that draws must make for them to be told. */
const LEAST_FELT = 0.5;

function spreadOf(
  mode: ColdMode,
  raw: number,
  partSigma: number,
  other: OtherRange | null,
  meter: MeterProfile,
  leadOhms: number,
): OutcomeSpread {
  if (mode === 'diode') {
    const volts = Math.min(raw, meter.diodeLimitVolts);
    const sigma = lengthOf(meterSigma(mode, volts, meter), Math.min(partSigma, 0.5), DIODE_MODEL_VOLTS, 0);
    // Far above the limit nothing but a slipped lead brings the figure back.
    const overload =
      raw >= meter.diodeLimitVolts - AT_LIMIT_VOLTS ? 1 : normalCdf((volts - meter.diodeOverloadVolts) / sigma);
    return { mean: volts, sigma, overload };
  }
  const limit = Math.log(meter.ohmsOverload);
  if (!Number.isFinite(raw)) return { mean: limit, sigma: 1, overload: 1 };
  const own = ohmsMode(mode, raw, partSigma, meter, leadOhms);
  const there =
    other === null ? own : ohmsMode(mode, Math.min(other.ohms, meter.ohmsOverload), other.sigma, meter, leadOhms);
  const gap = there.mean - own.mean;
  const mean = own.mean + gap / 2;
  const sigma = Math.min(own.sigma + Math.abs(gap) / 2, 3);
  const overload = normalCdf((mean - limit) / sigma);
  const chance = other === null || Math.abs(gap) < own.sigma / 2 || other.chance < 1e-3 ? 0 : other.chance;
  if (chance === 0 && !hasTails(raw, partSigma)) return { mean, sigma, overload };
  const modes = [
    ...withTails(own, 1 - chance, raw, partSigma),
    ...(chance === 0 ? [] : withTails(there, chance, other!.ohms, other!.sigma)).map((m) => ({
      ...m,
      neighbour: true as const,
    })),
  ];
  if (modes.length < 2) return { mean, sigma, overload };
  const beyond = modes.reduce((sum, m) => sum + m.weight * normalCdf((m.mean - limit) / m.sigma), 0);
  return { mean, sigma, overload, modes, beyond };
}

/** A resistance on one range: what the meter, the parts, the leads and the model leave of it, on the log scale. */
function ohmsMode(mode: ColdMode, ohms: number, partSigma: number, meter: MeterProfile, leadOhms: number): MeterMode {
  const noise = lengthOf(meterSigma(mode, ohms, meter), partSigma, OHMS_MODEL_FRACTION * ohms, leadOhms);
  const scale = Math.max(ohms, 0) + 1;
  return { mean: coordinate(mode, ohms), sigma: Math.min(noise / scale, 3), parts: Math.min(partSigma / scale, 3) };
}

type MeterMode = Omit<OutcomeMode, 'weight'> & { readonly parts: number };

/** Whether a reading hangs on leakage. */
const hasTails = (ohms: number, partSigma: number): boolean => ohms > LEAKING_OHMS && partSigma > LEAKING_SPREAD * ohms;

/** One range with its share, and the long tails of what hangs on leakage. */
function withTails(one: MeterMode, weight: number, ohms: number, partSigma: number): readonly OutcomeMode[] {
  if (!hasTails(ohms, partSigma)) return [{ ...one, weight }];
  return [
    { ...one, weight: weight * (1 - TAIL_SHARE) },
    {
      mean: one.mean,
      sigma: TAIL_FACTOR * one.sigma,
      parts: TAIL_FACTOR * one.parts,
      weight: weight * TAIL_SHARE,
    },
  ];
}

/** The ways an outcome may come out, at least one. */
export function outcomeModes(s: OutcomeSpread): readonly OutcomeMode[] {
  return s.modes ?? [{ mean: s.mean, sigma: s.sigma, weight: 1 }];
}

/** The likeliest way. */
export function mainMode(s: OutcomeSpread): Omit<OutcomeMode, 'weight'> {
  return !s.modes ? s : outcomeModes(s).reduce((best, m) => (m.weight > best.weight ? m : best));
}

/** Probability of overload. */
export function overloadChance(s: OutcomeSpread): number {
  return s.beyond ?? s.overload;
}

/** Density of a figure at a coordinate, given that it is one. */
export function density(s: OutcomeSpread, x: number): number {
  if (!s.leak) return evenDensity(s, x);
  const { x: there, slope } = straightened(s.leak, x);
  return slope * evenDensity(s, there);
}

/** The same as if no junction leaked to one side. */
function evenDensity(s: OutcomeSpread, x: number): number {
  if (!s.modes) return normalDensity(x, s.mean, s.sigma);
  let sum = 0;
  for (const m of s.modes) sum += m.weight * normalDensity(x, m.mean, m.sigma);
  return sum;
}

/** Probability that a figure, given that it is one, lies below a coordinate. */
export function figureBelow(s: OutcomeSpread, figure: number): number {
  const x = s.leak ? straightened(s.leak, figure).x : figure;
  if (!s.modes) return normalCdf((x - s.mean) / s.sigma);
  let sum = 0;
  for (const m of s.modes) sum += m.weight * normalCdf((x - m.mean) / m.sigma);
  return sum;
}

function normalDensity(x: number, mean: number, sigma: number): number {
  const z = (x - mean) / sigma;
  return Math.exp(-0.5 * z * z) / (sigma * Math.sqrt(2 * Math.PI));
}

/** Two predictions are told apart where one is taken for the other less often than this (contract, section 4). */
export const MISTAKEN = 0.003;

/**
 * The chance of mistaking one prediction for the other by the reading alone, both equally likely beforehand: half of
 * what their distributions share, overload included. 0.5 for two that are the same.
 */
export function mistakeChance(a: OutcomeSpread, b: OutcomeSpread): number {
  const [oa, ob] = [overloadChance(a), overloadChance(b)];
  return (Math.min(oa, ob) + sharedFigures(a, 1 - oa, b, 1 - ob)) / 2;
}

/** Whether two predictions are told apart by the reading; of a drift its middle counts. */
export function distinguishable(a: OutcomeSpread, b: OutcomeSpread): boolean {
  return mistakeChance(a.middle ?? a, b.middle ?? b) < MISTAKEN;
}

/** What the figures of two outcomes share: the area under the lower of the two densities, each times its own share. */
function sharedFigures(a: OutcomeSpread, shareA: number, b: OutcomeSpread, shareB: number): number {
  if (shareA === 0 || shareB === 0) return 0;
  const [x, y] = [outcomeModes(a), outcomeModes(b)];
  if (x.every((m) => y.every((n) => Math.abs(m.mean - n.mean) > 7 * (m.sigma + n.sigma)))) return 0;
  // Over the ways of either in turn: a broad one may step over what a narrow one shares with it.
  return Math.max(sharedOver(x, a, shareA, b, shareB), sharedOver(y, b, shareB, a, shareA));
}

const STEPS = 48;
const REACH = 5;

function sharedOver(
  modes: readonly OutcomeMode[],
  a: OutcomeSpread,
  shareA: number,
  b: OutcomeSpread,
  shareB: number,
): number {
  let sum = 0;
  for (const { mean, sigma, weight } of modes) {
    const width = (2 * REACH * sigma) / STEPS;
    for (let k = 0; k < STEPS; k++) {
      const x = mean - REACH * sigma + (k + 0.5) * width;
      const own = shareA * evenDensity(a, x);
      if (own === 0) continue;
      sum += width * shareA * weight * normalDensity(x, mean, sigma) * Math.min(1, (shareB * evenDensity(b, x)) / own);
    }
  }
  return Math.min(sum, shareA, shareB);
}
