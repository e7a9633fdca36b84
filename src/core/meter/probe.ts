import { ok } from '../problem';
import type { Result } from '../problem';
import { normalCdf } from '../quantity';
import type { DcSolver, MainDraws, NoConvergence } from '../solve';
import { workshopMeter } from './profile';
import type { MeterProfile } from './profile';
import type { ColdMode, MeterReading } from './reading';

/**
 * A computed reading with the spread that the parts around it give.
 *
 * value     volts or ohm; null when the meter shows OL.
 * other     what the neighbouring range would show, ohm, where the parts' spread may bring it into use, and the chance of that.
 * several   an earlier solution was found below the one that Newton reached.
 * raw       volts across the leads (diode) or ohm before the overload limit; Infinity with no path at all.
 * sigma     one sigma of `raw` from the spread of the parts, 0 unless asked for; same unit as `raw`; main: the draws that make
 *           the most of it, with the effect of one sigma of each.
 * amps      test current of the range used, amperes.
 */
export interface ComputedReading {
  readonly reading: MeterReading;
  readonly raw: number;
  readonly sigma: number;
  readonly amps: number;
  readonly other?: OtherRange;
  readonly several?: boolean;
  readonly main?: MainDraws;
}

/** A range that may be used instead: what it shows and one sigma of it from the parts, ohm, and how likely it is. */
export interface OtherRange {
  readonly ohms: number;
  readonly sigma: number;
  readonly chance: number;
}

/**
 * How to compute a reading. withSigma: also the spread. start: voltages of a nearly equal network at this reading,
 * in the order of the solver's network nodes, or the current with which the solver's last solve drove these leads: 0 where it only has the voltages.
 */
export interface ProbeOptions {
  readonly withSigma?: boolean;
  readonly meter?: MeterProfile;
  readonly start?: Float64Array | { readonly amps: number } | undefined;
  /** Takes the first solution found, without looking for an earlier one below it. */
  readonly anySolution?: boolean;
  /** Stops when the reading is right, for tables of many readings: nodes that cannot change it may still move. */
  readonly readingOnly?: boolean;
  /** Tells the neighbouring range however seldom it is used. */
  readonly everyRange?: boolean;
}

/** How right a reading is where nothing else matters; what tells the range; and how near to its edge that is looked at once more. */
export const READING_SHARE = 1e-4;
const RANGE_SHARE = 1e-2;
const EDGE = 3 * RANGE_SHARE;

const OVERLOAD: MeterReading = { kind: 'overload' };

/**
 * What the meter shows on an unpowered board between two nodes of a solver's network.
 *
 * Where a controlled device conducts, the leads' voltage is raised from zero in steps, so that of several
 * solutions the first one reached is read (contract).
 * Refuses with `no-convergence`.
 */
export function probe(
  solver: DcSolver,
  mode: ColdMode,
  red: number,
  black: number,
  options: ProbeOptions = {},
): Result<ComputedReading, NoConvergence> {
  const { meter = workshopMeter(), start } = options;
  if (red === black) return ok({ reading: { kind: 'figure', value: 0 }, raw: 0, sigma: 0, amps: meter.diodeAmps });
  if (!solver.connected(red, black)) return ok({ reading: OVERLOAD, raw: Infinity, sigma: 0, amps: 0 });
  if (start instanceof Float64Array) solver.startFrom(red, start);
  const warm = start !== undefined;
  if (mode === 'diode') return probeDiode(solver, red, black, warm, options, meter);
  return probeOhms(solver, mode, red, black, warm, options, meter);
}

function probeDiode(
  solver: DcSolver,
  red: number,
  black: number,
  warm: boolean,
  { withSigma = false, anySolution = false, readingOnly = false, start }: ProbeOptions,
  meter: MeterProfile,
): Result<ComputedReading, NoConvergence> {
  const drive = { kind: 'current', amps: meter.diodeAmps, limitVolts: meter.diodeLimitVolts } as const;
  // Solved already with this very current: it is read off.
  const known = anySolution && start !== undefined && 'amps' in start && start.amps === meter.diodeAmps;
  const solved = known ? null : solver.solve(red, black, drive, warm, readingOnly ? READING_SHARE : 0);
  if (solved && !solved.ok) return solved;
  const found = solved ? solved.value.volts : solver.voltsOf(red) - solver.voltsOf(black);
  let volts = found;
  if (!anySolution && solver.controlledAmps(red) > 1e-6 * meter.diodeAmps) {
    volts = firstReached(solver, red, black, meter.diodeAmps, volts);
    if (withSigma) solver.solve(red, black, drive);
  }
  const overload = volts >= meter.diodeOverloadVolts;
  // In a table the spread of what the meter's own limit shows tells nothing.
  const told = withSigma && !(readingOnly && volts >= meter.diodeLimitVolts - AT_LIMIT_VOLTS);
  const spread = told ? solver.readingSigma(red, black, readingOnly ? meter.diodeAmps : 0) : null;
  return ok({
    reading: overload ? OVERLOAD : { kind: 'figure', value: volts },
    raw: volts,
    sigma: spread ? Math.min(spread.sigma, 1) : 0,
    ...(spread ? { main: spread.main } : {}),
    amps: meter.diodeAmps,
    several: volts < found * 0.9999,
  });
}

/** A diode test this close to what the meter's source can give shows no more than that: nothing of the board. */
export const AT_LIMIT_VOLTS = 0.02;

const RAMP_STEPS = 8;

/**
 * Raises the leads' voltage from zero towards a solution and gives the first voltage at which the wanted current
 * flows: the solution itself, unless an earlier one lies below it.
 */
function firstReached(solver: DcSolver, red: number, black: number, amps: number, solution: number): number {
  const currentAt = (volts: number, keep: boolean): number => {
    const solved = solver.solve(red, black, { kind: 'voltage', volts }, keep);
    return solved.ok ? solved.value.amps : NaN;
  };
  let low = 0;
  for (let step = 1; step < RAMP_STEPS; step++) {
    const volts = (solution * step) / RAMP_STEPS;
    if (currentAt(volts, low > 0) >= amps) {
      let high = volts;
      while (high - low > 1e-7) {
        const middle = (low + high) / 2;
        if (currentAt(middle, true) >= amps) high = middle;
        else low = middle;
      }
      return high;
    }
    low = volts;
  }
  return solution;
}

function probeOhms(
  solver: DcSolver,
  mode: 'ohms' | 'continuity',
  red: number,
  black: number,
  warm: boolean,
  options: ProbeOptions,
  meter: MeterProfile,
): Result<ComputedReading, NoConvergence> {
  const { withSigma = false, readingOnly = false, start } = options;
  const volts = (): number => Math.abs(solver.voltsOf(red) - solver.voltsOf(black));
  const drive = (amps: number) => ({ kind: 'current', amps, limitVolts: meter.diodeLimitVolts }) as const;
  const sigmaOf = (amps: number): { readonly sigma: number; readonly main?: MainDraws } => {
    if (!withSigma) return { sigma: 0 };
    const { sigma, main } = solver.readingSigma(red, black, readingOnly ? amps : 0);
    return { sigma: sigma / amps, main: { ...main, effects: main.effects.map((e) => e / amps) } };
  };
  // Solved already on one range: what it shows, should that be the range.
  const known = start !== undefined && 'amps' in start && start.amps > 0 ? start.amps : null;
  const solved = known === null ? null : { amps: known, volts: volts(), ...sigmaOf(known) };
  if (solved && solved.volts > 1e-9) solver.scaleStart(red, meter.ohmsRangeVolts / solved.volts);
  // The lowest range on which |V| <= 0.3 V is the one whose current 0.3 V can push: one solve tells.
  const limit = { kind: 'voltage', volts: meter.ohmsRangeVolts } as const;
  let reach = solver.solve(red, black, limit, warm, readingOnly ? RANGE_SHARE : 0);
  if (readingOnly && reach.ok) {
    const { amps } = reach.value;
    if (meter.ohmsAmps.some((edge) => Math.abs(amps - edge) < EDGE * edge))
      reach = solver.solve(red, black, limit, true, READING_SHARE);
  }
  if (!reach.ok) return reach;
  const reachAmps = reach.value.amps;
  const ranges = mode === 'continuity' ? meter.ohmsAmps.slice(0, 1) : meter.ohmsAmps;
  const first = meter.ohmsAmps.findIndex((amps) => amps <= reachAmps * (1 + 1e-4));
  const usable = first < 0 ? meter.ohmsAmps.length - 1 : first;
  for (let range = usable; range < meter.ohmsAmps.length; range++) {
    const amps = meter.ohmsAmps[range]!;
    let own = solved;
    if (own?.amps !== amps) {
      if (readingOnly && reachAmps > 0)
        solver.scaleStart(red, amps / (range === usable ? reachAmps : meter.ohmsAmps[range - 1]!));
      const made = solver.solve(red, black, drive(amps), true, readingOnly ? READING_SHARE : 0);
      if (!made.ok) return made;
      own = { amps, volts: made.value.volts, ...sigmaOf(amps) };
    }
    const last = range === meter.ohmsAmps.length - 1;
    if (Math.abs(own.volts) > meter.ohmsRangeVolts * (1 + 1e-9) && !last) continue;
    const ohms = own.volts / amps;
    const { sigma, main } = own;
    const over = range >= ranges.length || Math.abs(ohms) > meter.ohmsOverload;
    const spread = ohms === 0 ? 0 : sigma / Math.abs(ohms);
    const other = withSigma ? otherRange(solver, red, black, range, reachAmps, ohms, spread, meter, options) : null;
    return ok({
      reading: over ? OVERLOAD : { kind: 'figure', value: ohms },
      raw: ohms,
      sigma,
      amps,
      ...(main ? { main } : {}),
      ...(other === null ? {} : { other }),
    });
  }
  return ok({ reading: OVERLOAD, raw: Infinity, sigma: 0, amps: 0 });
}

/** A junction's spread can move the current at 0.3 V by this factor either way, and so the range that is used. */
const RANGE_DOUBT = 3;

/**
 * The neighbouring range, where the spread of the parts may bring it into use and it would read differently; null where
 * not. reachAmps: what the range limit voltage pushes through; ohms, spread: the reading on its own range, and one sigma
 * of its natural log from the parts.
 */
function otherRange(
  solver: DcSolver,
  red: number,
  black: number,
  range: number,
  reachAmps: number,
  ohms: number,
  spread: number,
  meter: MeterProfile,
  { readingOnly = false, everyRange = false }: ProbeOptions,
): OtherRange | null {
  const own = meter.ohmsAmps[range]!;
  const below = meter.ohmsAmps[range - 1];
  const above = meter.ohmsAmps[range + 1];
  const amps =
    below !== undefined && reachAmps * RANGE_DOUBT > below
      ? below
      : above !== undefined && reachAmps < own * RANGE_DOUBT
        ? above
        : null;
  if (amps === null) return null;
  const higher = amps < own;
  // As long as it reads the same up to the limit it reads the same on the lower range, or that one is never used. On the
  // higher one it is read far below the limit: of that this tells nothing.
  const straight = Math.abs(meter.ohmsRangeVolts / reachAmps - ohms) <= STRAIGHT * Math.abs(ohms) && spread < 0.05;
  if (straight && !higher && !everyRange) return null;
  const sure = higher && inUse(Math.abs(ohms * own), spread, false, meter) < UNUSED;
  // By how the volts grew with the current from the reading up to the limit.
  const grown = Math.log(meter.ohmsRangeVolts / Math.max(Math.abs(ohms * own), 1e-12));
  const steep = reachAmps > own ? Math.min(1, grown / Math.log(reachAmps / own)) : 1;
  // Half as steeply beyond it, and spread three times as widely, a lower range stays out of use for any draw of the parts.
  const beyond = meter.ohmsRangeVolts * (amps / reachAmps) ** (0.5 * steep);
  if (!everyRange && (sure || (!higher && inUse(beyond, 3 * spread, true, meter) < UNUSED / 10))) return null;
  const drive = { kind: 'current', amps, limitVolts: meter.diodeLimitVolts } as const;
  if (readingOnly) solver.scaleStart(red, Math.exp(steep * Math.log(amps / reachAmps)));
  const solved = solver.solve(red, black, drive, true, readingOnly ? READING_SHARE : 0);
  if (!solved.ok) return null;
  const { volts } = solved.value;
  const { sigma } = solver.readingSigma(red, black, readingOnly ? amps : 0);
  // What decides is the spread of the volts on the lower of the two ranges.
  const chance = higher
    ? inUse(Math.abs(ohms * own), spread, false, meter)
    : inUse(Math.abs(volts), sigma / Math.max(Math.abs(volts), 1e-12), true, meter);
  return chance < UNUSED && !everyRange ? null : { ohms: volts / amps, sigma: sigma / amps, chance };
}

/** Two ranges that read the same within this share read the same. */
const STRAIGHT = 1e-3;
/** A range used less often than this is not used. */
const UNUSED = 1e-3;

/** How often a lower range is used, whose volts must stay within the limit, or a higher one, when those of the own do not. */
function inUse(volts: number, spread: number, lower: boolean, meter: MeterProfile): number {
  const sigmas = Math.log(meter.ohmsRangeVolts / Math.max(volts, 1e-12)) / Math.max(spread, 1e-3);
  return normalCdf(lower ? sigmas : -sigmas);
}

/** Whether a continuity reading beeps. */
export function beeps(reading: MeterReading, meter: MeterProfile = workshopMeter()): boolean {
  return reading.kind === 'figure' && reading.value < meter.beepOhms;
}

/** One sigma of what the meter itself adds to a reading, in the unit of the mode (contract, section 3). */
export function meterSigma(mode: ColdMode, value: number, meter: MeterProfile = workshopMeter()): number {
  if (mode === 'diode') return Math.abs(value) * meter.diodeFraction + meter.diodeFloorVolts;
  const floor = Math.abs(value) <= meter.lowRangeOhms ? meter.lowRangeFloorOhms : 0;
  return Math.abs(value) * meter.ohmsFraction + floor;
}
