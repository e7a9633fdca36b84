import { formatQuantity } from '../quantity';

/**
 * One step of a verification sweep: what is set, and what the output must then be.
 *
 * setBy  which column of the sweep is set. `off`: at most a tenth of the rail's volts.
 */
export interface ExpectedStep {
  readonly setBy: 'vin' | 'iout';
  readonly set: number;
  readonly words: string;
  readonly nominal: number;
  readonly low: number;
  readonly high: number;
  readonly off: boolean;
}

/** A step at which the output must be there, within a band of volts. */
export function stepOn(
  setBy: ExpectedStep['setBy'],
  set: number,
  words: string,
  [low, nominal, high]: readonly [number, number, number],
): ExpectedStep {
  return { setBy, set: rounded(set), words, nominal, low, high, off: false };
}

/** A step at which the output must be away. */
export function stepOff(setBy: ExpectedStep['setBy'], set: number, words: string, rail: number): ExpectedStep {
  return { setBy, set: rounded(set), words, nominal: 0, low: -0.1 * rail, high: 0.1 * rail, off: true };
}

function rounded(value: number): number {
  return Number(value.toPrecision(3));
}

/** What is to be read at a step, in words. */
export function stepExpectation(step: ExpectedStep): string {
  if (step.off) return `off: below ${formatQuantity(step.high, 'V')}`;
  return `${formatQuantity(step.low, 'V')} to ${formatQuantity(step.high, 'V')}`;
}

/** A row of readings as far as a step asks. */
export interface StepReading {
  readonly vin?: number | null | undefined;
  readonly iout?: number | null | undefined;
  readonly vout?: number | null | undefined;
}

export interface StepResult {
  readonly step: ExpectedStep;
  readonly row: number | null;
  readonly vout: number | null;
  readonly verdict: 'agrees' | 'disagrees' | 'open';
}

/** A row belongs to a step when it was set within this share of it (or this much, near zero). */
const SET_SHARE = 0.05;
const SET_LEAST = 0.05;

/** Lays readings, in the order taken, to the steps they answer; each row answers one step, the first that is open. */
export function judgeSteps(steps: readonly ExpectedStep[], rows: readonly StepReading[]): readonly StepResult[] {
  const results: StepResult[] = steps.map((step) => ({ step, row: null, vout: null, verdict: 'open' }));
  rows.forEach((row, i) => {
    const at = results.findIndex(({ step, row: taken }) => {
      const set = row[step.setBy];
      if (taken !== null || set === null || set === undefined || typeof row.vout !== 'number') return false;
      return Math.abs(set - step.set) <= Math.max(SET_LEAST, SET_SHARE * Math.abs(step.set));
    });
    const found = results[at];
    if (!found) return;
    const vout = row.vout as number;
    const agrees = vout >= found.step.low && vout <= found.step.high;
    results[at] = { ...found, row: i, vout, verdict: agrees ? 'agrees' : 'disagrees' };
  });
  return results;
}
