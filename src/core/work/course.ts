import type { Spot, SwitchedRun } from './switched';

/** What a figure does over a period: its mean, root of its mean square, highest and lowest value. */
export interface Swing {
  readonly mean: number;
  readonly rms: number;
  readonly high: number;
  readonly low: number;
}

/** A figure that does not move. */
export const still = (value: number): Swing => ({ mean: value, rms: Math.abs(value), high: value, low: value });

/** The greatest that a figure is either way. */
export const peakOf = ({ high, low }: Swing): number => Math.max(Math.abs(high), Math.abs(low));

/** What is left of a figure without its mean, rms. */
export const alternatingPart = ({ rms, mean }: Swing): number => Math.sqrt(Math.max(rms * rms - mean * mean, 0));

/** One moment of a switched circuit: volts of its unknowns, amperes of windings, diodes and switches, volts of capacitors. */
export interface Moment {
  readonly seconds: number;
  /** Whether something has switched since the moment before. */
  readonly jumped: boolean;
  readonly volts: Float64Array;
  readonly amps: Float64Array;
  readonly diodes: Float64Array;
  readonly switches: Float64Array;
  readonly capacitors: Float64Array;
  readonly given: Float64Array;
}

/** Volts of a spot at a moment. */
export const voltsAt = (m: Moment, { unknown, given }: Spot): number =>
  (unknown < 0 ? 0 : m.volts[unknown]!) + (given < 0 ? 0 : m.given[given]!);

/** One period of a switched circuit, moment by moment. */
export class Course {
  private readonly moments: Moment[] = [];
  private states = '';

  /** Takes down the step of so many seconds that a run has just made. */
  take(seconds: number, run: SwitchedRun, given: Float64Array): void {
    const states = [...run.switchOn, ...run.diodeOn].join();
    this.moments.push({
      seconds,
      jumped: states !== this.states,
      volts: Float64Array.from(run.volts),
      amps: Float64Array.from(run.amps),
      diodes: Float64Array.from(run.diodeAmps),
      switches: Float64Array.from(run.switchAmps),
      capacitors: Float64Array.from(run.capVolts),
      given: Float64Array.from(given),
    });
    this.states = states;
  }

  /**
   * What a figure of each moment does over the period: straight between two moments, unless something switched. Its highest and
   * lowest value are those that it stands beyond for longer than a spike lasts. passes: moments that do not tell of these, nor
   * do those beside them.
   */
  of(read: (moment: Moment) => number, passes?: (moment: Moment) => boolean): Swing {
    let [time, mean, square] = [0, 0, 0];
    const seen: { readonly value: number; readonly seconds: number }[] = [];
    let last = NaN;
    const passed = passes && this.moments.map(passes);
    const left = (i: number): boolean =>
      passed !== undefined && [i - 2, i - 1, i, i + 1, i + 2].some((k) => passed[k] === true);
    for (const [i, m] of this.moments.entries()) {
      const now = read(m);
      if (left(i)) {
        mean += now * m.seconds;
        square += now * now * m.seconds;
        time += m.seconds;
        last = now;
        continue;
      }
      const from = m.jumped || Number.isNaN(last) ? now : last;
      time += m.seconds;
      mean += ((from + now) / 2) * m.seconds;
      square += ((from * from + from * now + now * now) / 3) * m.seconds;
      seen.push({ value: now, seconds: m.seconds });
      last = now;
    }
    if (!(time > 0) || seen.length === 0) return still(0);
    seen.sort((p, q) => q.value - p.value);
    const high = beyondSpike(seen, SPIKE_SHARE * time);
    const low = beyondSpike(seen.reverse(), SPIKE_SHARE * time);
    return { mean: mean / time, rms: Math.sqrt(square / time), high, low };
  }

  /** The greatest of a figure, however short. */
  peak(read: (moment: Moment) => number): number {
    return this.moments.reduce((most, m) => Math.max(most, read(m)), 0);
  }

  /**
   * Joules that a capacitor leaves in the resistor before it in a period: half of C V² for every leap of its volts from one level
   * to the next. passes: moments at which nothing holds a level.
   */
  leapJoules(read: (moment: Moment) => number, farads: number, passes: (moment: Moment) => boolean): number {
    const levels: { volts: number; seconds: number }[] = [];
    let time = 0;
    let fresh = true;
    for (const m of this.moments) {
      time += m.seconds;
      const last = levels.at(-1);
      if (passes(m)) fresh = true;
      else if (m.jumped || fresh || !last) {
        levels.push({ volts: read(m), seconds: m.seconds });
        fresh = false;
      } else {
        last.volts = read(m);
        last.seconds += m.seconds;
      }
    }
    const held = levels.filter((l) => l.seconds > LEVEL_SHARE * time);
    return held.reduce((sum, l, i) => sum + (farads / 2) * (l.volts - held.at(i - 1)!.volts) ** 2, 0);
  }
}

/** Volts that stand for less than this share of a period are no level. */
const LEVEL_SHARE = 0.02;
/** Share of a period that a spike of leakage lasts at most. */
const SPIKE_SHARE = 0.0015;

/** The first value of a row that what comes before it outlasts a spike, s. */
function beyondSpike(row: readonly { readonly value: number; readonly seconds: number }[], spike: number): number {
  let seconds = 0;
  for (const { value, seconds: own } of row) {
    seconds += own;
    if (seconds > spike) return value;
  }
  return row.at(-1)!.value;
}
