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
  /** Whether each switch and diode conducted at the last moment. */
  private states: readonly boolean[] = [];

  /** Takes down the step of so many seconds that a run has just made. */
  take(seconds: number, run: SwitchedRun, given: Float64Array): void {
    const states = [...run.switchOn, ...run.diodeOn];
    const before = this.states;
    this.moments.push({
      seconds,
      jumped: states.length !== before.length || states.some((on, i) => on !== before[i]),
      volts: run.volts.slice(),
      amps: run.amps.slice(),
      diodes: run.diodeAmps.slice(),
      switches: run.switchAmps.slice(),
      capacitors: run.capVolts.slice(),
      given: given.slice(),
    });
    this.states = states;
  }

  /**
   * What a figure of each moment does over the period: straight between two moments, unless something switched. Its highest and
   * lowest value are those that it stands beyond for longer than a spike lasts. passes: moments that do not tell of these, nor
   * do those beside them.
   */
  of(read: (moment: Moment) => number, passes?: (moment: Moment) => boolean): Swing {
    const { moments } = this;
    let [time, mean, square, count] = [0, 0, 0, 0];
    const values = new Float64Array(moments.length);
    const lasting = new Float64Array(moments.length);
    let last = NaN;
    const left = passes && besideThose(moments.map(passes));
    for (let i = 0; i < moments.length; i++) {
      const { seconds, jumped } = moments[i]!;
      const now = read(moments[i]!);
      time += seconds;
      if (left?.[i]) {
        mean += now * seconds;
        square += now * now * seconds;
        last = now;
        continue;
      }
      const from = jumped || Number.isNaN(last) ? now : last;
      mean += ((from + now) / 2) * seconds;
      square += ((from * from + from * now + now * now) / 3) * seconds;
      values[count] = now;
      lasting[count++] = seconds;
      last = now;
    }
    if (!(time > 0) || count === 0) return still(0);
    const [high, low] = ([1, -1] as const).map((way) =>
      beyondSpike(values.subarray(0, count), lasting, SPIKE_SHARE * time, way),
    );
    return { mean: mean / time, rms: Math.sqrt(square / time), high: high!, low: low! };
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

/** Moments that are passed, with two on either side. */
const besideThose = (passed: readonly boolean[]): readonly boolean[] =>
  passed.map((own, i) => own || [i - 2, i - 1, i + 1, i + 2].some((k) => passed[k] === true));

/** The value that a figure stands at or beyond for longer than a spike, s: way 1 the highest, -1 the lowest. */
function beyondSpike(values: Float64Array, lasting: Float64Array, spike: number, way: 1 | -1): number {
  let [level, time] = [way * Infinity, 0];
  for (;;) {
    // The next level in the row, and for how long the figure stands at it.
    let [next, own] = [-way * Infinity, 0];
    for (let i = 0; i < values.length; i++) {
      const v = values[i]!;
      if (way * (level - v) <= 0 || way * (v - next) < 0) continue;
      own = v === next ? own + lasting[i]! : lasting[i]!;
      next = v;
    }
    if (own === 0) return level;
    level = next;
    time += own;
    if (time > spike) return level;
  }
}
