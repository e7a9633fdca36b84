import { ok } from '../problem';
import type { Result } from '../problem';
import type { DcSolver, NoConvergence } from '../solve';
import { DEFAULT_METER } from './profile';
import type { MeterProfile } from './profile';
import type { ColdMode, MeterReading } from './reading';

/**
 * A computed reading with the spread that the parts around it give.
 *
 * value     volts or ohm; null when the meter shows OL.
 * raw       volts across the leads (diode) or ohm before the overload limit; Infinity with no path at all.
 * sigma     one sigma of `raw` from the spread of the parts, 0 unless asked for; same unit as `raw`.
 * amps      test current of the range used, amperes.
 */
export interface ComputedReading {
  readonly reading: MeterReading;
  readonly raw: number;
  readonly sigma: number;
  readonly amps: number;
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
  withSigma = false,
  meter: MeterProfile = DEFAULT_METER,
): Result<ComputedReading, NoConvergence> {
  if (red === black) return ok({ reading: { kind: 'figure', value: 0 }, raw: 0, sigma: 0, amps: meter.diodeAmps });
  if (!solver.connected(red, black)) return ok({ reading: OVERLOAD, raw: Infinity, sigma: 0, amps: 0 });
  if (mode === 'diode') return probeDiode(solver, red, black, withSigma, meter);
  return probeOhms(solver, mode, red, black, withSigma, meter);
}

function probeDiode(
  solver: DcSolver,
  red: number,
  black: number,
  withSigma: boolean,
  meter: MeterProfile,
): Result<ComputedReading, NoConvergence> {
  const drive = { kind: 'current', amps: meter.diodeAmps, limitVolts: meter.diodeLimitVolts } as const;
  const solved = solver.solve(red, black, drive);
  if (!solved.ok) return solved;
  let volts = solved.value.volts;
  if (solver.controlledAmps(red) > 1e-6 * meter.diodeAmps) {
    const first = firstReached(solver, red, black, meter.diodeAmps, meter.diodeLimitVolts);
    if (first !== null && first < volts * 0.999) volts = first;
    solver.solve(red, black, drive);
  }
  const overload = volts >= meter.diodeOverloadVolts;
  return ok({
    reading: overload ? OVERLOAD : { kind: 'figure', value: volts },
    raw: volts,
    sigma: withSigma ? Math.min(solver.readingSigma(red, black), 1) : 0,
    amps: meter.diodeAmps,
  });
}

/** Raises the leads' voltage from zero and gives the first voltage at which the wanted current flows, or null. */
function firstReached(solver: DcSolver, red: number, black: number, amps: number, limit: number): number | null {
  const currentAt = (volts: number, keep: boolean): number => {
    const solved = solver.solve(red, black, { kind: 'voltage', volts }, keep);
    return solved.ok ? solved.value.amps : NaN;
  };
  let low = 0;
  for (let volts = 0.05; volts <= limit + 1e-9; volts += 0.05) {
    if (currentAt(volts, low > 0) >= amps) {
      let high = volts;
      for (let i = 0; i < 40 && high - low > 1e-7; i++) {
        const middle = (low + high) / 2;
        if (currentAt(middle, true) >= amps) high = middle;
        else low = middle;
      }
      return high;
    }
    low = volts;
  }
  return null;
}

function probeOhms(
  solver: DcSolver,
  mode: 'ohms' | 'continuity',
  red: number,
  black: number,
  withSigma: boolean,
  meter: MeterProfile,
): Result<ComputedReading, NoConvergence> {
  // The lowest range on which |V| <= 0.3 V is the one whose current 0.3 V can push: one solve tells.
  const reach = solver.solve(red, black, { kind: 'voltage', volts: meter.ohmsRangeVolts });
  if (!reach.ok) return reach;
  const ranges = mode === 'continuity' ? meter.ohmsAmps.slice(0, 1) : meter.ohmsAmps;
  const first = meter.ohmsAmps.findIndex((amps) => amps <= reach.value.amps * (1 + 1e-4));
  const usable = first < 0 ? meter.ohmsAmps.length - 1 : first;
  for (let range = usable; range < meter.ohmsAmps.length; range++) {
    const amps = meter.ohmsAmps[range]!;
    const solved = solver.solve(red, black, { kind: 'current', amps, limitVolts: meter.diodeLimitVolts }, true);
    if (!solved.ok) return solved;
    const last = range === meter.ohmsAmps.length - 1;
    if (Math.abs(solved.value.volts) > meter.ohmsRangeVolts * (1 + 1e-9) && !last) continue;
    const ohms = solved.value.volts / amps;
    const over = range >= ranges.length || Math.abs(ohms) > meter.ohmsOverload;
    return ok({
      reading: over ? OVERLOAD : { kind: 'figure', value: ohms },
      raw: ohms,
      sigma: withSigma ? solver.readingSigma(red, black) / amps : 0,
      amps,
    });
  }
  return ok({ reading: OVERLOAD, raw: Infinity, sigma: 0, amps: 0 });
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
