import type { ExpectedReading } from './expectReading';

/** What was seen at a point, as the Probe screen takes it. */
export type SeenReading =
  | { readonly kind: 'figure'; readonly value: number; readonly unsteady?: boolean }
  | { readonly kind: 'overload' }
  | { readonly kind: 'agrees' };

/** The three outcomes. `noted`: kept, no opinion. */
export type Outcome = 'agree' | 'disagree' | 'noted';

/** Only below these is a figure wrong whatever the unknown parts are. */
const DEAD_SHORT_OHMS = 30;
const DEAD_SHORT_VOLTS = 0.1;
/** A figure this many sigma off disagrees. */
const DISAGREE_SIGMA = 3;

/**
 * Judges a reading against what was expected.
 *
 * Where the expectation hangs on an assumed part or an unknown IC pin, only a dead short (or one where none could be)
 * disagrees; all else is noted: a false alarm costs more trust than ten right ones win.
 */
export function judge(expected: ExpectedReading, seen: SeenReading): Outcome {
  if (seen.kind === 'agrees') return 'agree';
  if (expected.unit === 'cycles') return judgeRing(expected, seen);
  if (!expected.judged) {
    if (expected.unit === 'F') return 'noted';
    const limit = expected.unit === 'V' ? DEAD_SHORT_VOLTS : DEAD_SHORT_OHMS;
    const wouldBe = expected.nominal ?? Infinity;
    return seen.kind === 'figure' && seen.value < limit && wouldBe > 3 * limit ? 'disagree' : 'noted';
  }
  if (expected.nominal === null) {
    if (seen.kind === 'overload') return 'agree';
    const low = expected.low ?? Infinity;
    return seen.value >= low * 0.97 ? 'agree' : seen.unsteady ? 'noted' : 'disagree';
  }
  if (seen.kind === 'overload') {
    const nearLimit = expected.unit === 'V' ? 2.5 - 3 * expected.sigma : 60e6 / 1.5;
    return expected.nominal >= nearLimit ? 'agree' : 'disagree';
  }
  const wide = expected.high !== null && expected.low !== null ? 0.25 * (expected.high - expected.low) : 0;
  const low = (expected.low ?? 0) - wide * (DISAGREE_SIGMA - 2);
  const high = (expected.high ?? Infinity) + wide * (DISAGREE_SIGMA - 2);
  if (seen.value >= low && seen.value <= high) return 'agree';
  return seen.unsteady && seen.value < low ? 'noted' : 'disagree';
}

/** A ring under what is expected is doubtful down to this share of it, and wrong below (`engine.md` section 7: 10, 4 to 9, 3). */
const DOUBTFUL_RING = 1 / 3;

/** A winding may ring longer than expected, whatever its core takes. */
function judgeRing({ low, judged }: ExpectedReading, seen: SeenReading): Outcome {
  if (!judged || low === null) return 'noted';
  if (seen.kind !== 'figure' || seen.value >= low) return 'agree';
  return seen.value < DOUBTFUL_RING * low && seen.unsteady !== true ? 'disagree' : 'noted';
}

/**
 * Whether a figure is a whole decade, or three, away from what was expected: a slip of the prefix rather than a fault.
 * Gives the figure that was likely meant, or null.
 */
export function decadeSlip(expected: ExpectedReading, value: number): number | null {
  if (
    expected.nominal === null ||
    expected.unit === 'cycles' ||
    expected.nominal <= 0 ||
    value <= 0 ||
    judge(expected, { kind: 'figure', value }) === 'agree'
  )
    return null;
  for (const power of [1, 3, -1, -3]) {
    const meant = value * 10 ** power;
    if (Math.abs(meant / expected.nominal - 1) < 0.03) return meant;
  }
  return null;
}
