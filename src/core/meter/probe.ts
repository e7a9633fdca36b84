import { ok } from '../problem';
import type { Result } from '../problem';
import { normalCdf } from '../quantity';
import type { DcSolver, NoConvergence } from '../solve';
import { DEFAULT_METER } from './profile';
import type { MeterProfile } from './profile';
import type { ColdMode, MeterReading } from './reading';

/**
 * A computed reading with the spread that the parts around it give.
 *
 * value     volts or ohm; null when the meter shows OL.
 * other     what the neighbouring range would show, ohm, where the parts' spread may bring it into use, and the chance of that.
 * several   an earlier solution was found below the one that Newton reached.
 * raw       volts across the leads (diode) or ohm before the overload limit; Infinity with no path at all.
 * sigma     one sigma of `raw` from the spread of the parts, 0 unless asked for; same unit as `raw`.
 * amps      test current of the range used, amperes.
 */
export interface ComputedReading {
  readonly reading: MeterReading;
  readonly raw: number;
  readonly sigma: number;
  readonly amps: number;
  readonly other?: OtherRange;
  readonly several?: boolean;
}

/** A range that may be used instead: what it shows and one sigma of it from the parts, ohm, and how likely it is. */
export interface OtherRange {
  readonly ohms: number;
  readonly sigma: number;
  readonly chance: number;
}

/**
 * How to compute a reading. withSigma: also the spread. start: voltages of a nearly equal network at this reading,
 * in the order of the solver's network nodes, or `present` for those of the solver's last solve between these leads.
 */
export interface ProbeOptions {
  readonly withSigma?: boolean;
  readonly meter?: MeterProfile;
  readonly start?: Float64Array | 'present' | undefined;
  /** Takes the first solution found, without looking for an earlier one below it. */
  readonly anySolution?: boolean;
  /** Stops when the reading is right, for tables of many readings: nodes that cannot change it may still move. */
  readonly readingOnly?: boolean;
}

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
  const { meter = DEFAULT_METER, start } = options;
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
  { withSigma = false, anySolution = false, readingOnly = false }: ProbeOptions,
  meter: MeterProfile,
): Result<ComputedReading, NoConvergence> {
  const drive = { kind: 'current', amps: meter.diodeAmps, limitVolts: meter.diodeLimitVolts } as const;
  const solved = solver.solve(red, black, drive, warm, readingOnly);
  if (!solved.ok) return solved;
  const found = solved.value.volts;
  let volts = found;
  if (!anySolution && solver.controlledAmps(red) > 1e-6 * meter.diodeAmps) {
    volts = firstReached(solver, red, black, meter.diodeAmps, volts);
    if (withSigma) solver.solve(red, black, drive);
  }
  const overload = volts >= meter.diodeOverloadVolts;
  return ok({
    reading: overload ? OVERLOAD : { kind: 'figure', value: volts },
    raw: volts,
    sigma: withSigma ? Math.min(solver.readingSigma(red, black), 1) : 0,
    amps: meter.diodeAmps,
    several: volts < found * 0.9999,
  });
}

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
  // The lowest range on which |V| <= 0.3 V is the one whose current 0.3 V can push: one solve tells.
  const reach = solver.solve(red, black, { kind: 'voltage', volts: meter.ohmsRangeVolts }, warm, options.readingOnly);
  if (!reach.ok) return reach;
  const ranges = mode === 'continuity' ? meter.ohmsAmps.slice(0, 1) : meter.ohmsAmps;
  const first = meter.ohmsAmps.findIndex((amps) => amps <= reach.value.amps * (1 + 1e-4));
  const usable = first < 0 ? meter.ohmsAmps.length - 1 : first;
  for (let range = usable; range < meter.ohmsAmps.length; range++) {
    const amps = meter.ohmsAmps[range]!;
    const drive = { kind: 'current', amps, limitVolts: meter.diodeLimitVolts } as const;
    const solved = solver.solve(red, black, drive, true, options.readingOnly);
    if (!solved.ok) return solved;
    const last = range === meter.ohmsAmps.length - 1;
    if (Math.abs(solved.value.volts) > meter.ohmsRangeVolts * (1 + 1e-9) && !last) continue;
    const ohms = solved.value.volts / amps;
    const over = range >= ranges.length || Math.abs(ohms) > meter.ohmsOverload;
    const sigma = options.withSigma ? solver.readingSigma(red, black) / amps : 0;
    const spread = ohms === 0 ? 0 : sigma / Math.abs(ohms);
    const other = options.withSigma
      ? otherRange(solver, red, black, range, reach.value.amps, ohms, spread, meter)
      : null;
    return ok({
      reading: over ? OVERLOAD : { kind: 'figure', value: ohms },
      raw: ohms,
      sigma,
      amps,
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
  const solved = solver.solve(red, black, { kind: 'current', amps, limitVolts: meter.diodeLimitVolts }, true);
  if (!solved.ok) return null;
  // The lower range is used when its volts stay within the limit, the higher one when those of its own do not.
  const deciding = Math.abs(amps > own ? solved.value.volts : ohms * own);
  const sigmas = Math.log(meter.ohmsRangeVolts / Math.max(deciding, 1e-12)) / Math.max(spread, 1e-3);
  return {
    ohms: solved.value.volts / amps,
    sigma: solver.readingSigma(red, black) / amps,
    chance: normalCdf(amps > own ? sigmas : -sigmas),
  };
}

/** Whether a continuity reading beeps. */
export function beeps(reading: MeterReading, meter: MeterProfile = DEFAULT_METER): boolean {
  return reading.kind === 'figure' && reading.value < meter.beepOhms;
}

/** One sigma of what the meter itself adds to a reading, in the unit of the mode (contract, section 3). */
export function meterSigma(mode: ColdMode, value: number, meter: MeterProfile = DEFAULT_METER): number {
  if (mode === 'diode') return Math.abs(value) * meter.diodeFraction + meter.diodeFloorVolts;
  const floor = Math.abs(value) <= meter.lowRangeOhms ? meter.lowRangeFloorOhms : 0;
  return Math.abs(value) * meter.ohmsFraction + floor;
}
