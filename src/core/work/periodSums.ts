import type { PeriodResult } from './cellPlan';
import type { SwitchedRun } from './switched';

/** Currents and volts of a switched circuit, summed up over a period step by step. */
export class PeriodSums {
  private readonly mean: Float64Array;
  private readonly square: Float64Array;
  private readonly peak: Float64Array;
  private readonly before: Float64Array;
  private readonly knees: readonly Float64Array[];
  private readonly meanVolts: Float64Array;
  private readonly squareVolts: Float64Array;
  private readonly highVolts: Float64Array;
  private readonly lowVolts: Float64Array;

  /** count: diodes and switches together. */
  constructor(
    private readonly run: SwitchedRun,
    private readonly count: number,
  ) {
    const { diodes, unknowns } = run.circuit;
    const room = (n: number): Float64Array => new Float64Array(n);
    [this.mean, this.square, this.peak, this.before] = [room(count), room(count), room(count), room(count)];
    this.knees = diodes.map(() => room(unknowns));
    [this.meanVolts, this.squareVolts] = [room(unknowns), room(unknowns)];
    this.highVolts = room(unknowns).fill(-Infinity);
    this.lowVolts = room(unknowns).fill(Infinity);
  }

  /** Adds the step that was taken last; jumped: currents are not those of the step before, but new. */
  add(seconds: number, jumped: boolean, on: boolean): void {
    const { run, count } = this;
    const { diodes, unknowns } = run.circuit;
    for (let i = 0; i < count; i++) {
      const now = i < diodes.length ? run.diodeAmps[i]! : run.switchAmps[i - diodes.length]!;
      const from = jumped ? now : this.before[i]!;
      this.mean[i] = this.mean[i]! + ((from + now) / 2) * seconds;
      this.square[i] = this.square[i]! + ((from * from + from * now + now * now) / 3) * seconds;
      this.peak[i] = Math.max(this.peak[i]!, now);
      this.before[i] = now;
    }
    for (let i = 0; i < unknowns; i++) {
      const v = run.volts[i]!;
      this.meanVolts[i] = this.meanVolts[i]! + v * seconds;
      this.squareVolts[i] = this.squareVolts[i]! + v * v * seconds;
      this.highVolts[i] = Math.max(this.highVolts[i]!, v);
      this.lowVolts[i] = Math.min(this.lowVolts[i]!, v);
    }
    if (on) return;
    for (let d = 0; d < diodes.length; d++) if (run.diodeAmps[d]! > 1e-6) this.knees[d]!.set(run.volts);
  }

  /** Mean volts of an unknown over a period, s. */
  meanOf(unknown: number, period: number): number {
    return this.meanVolts[unknown]! / period;
  }

  /** What the sums make over a period, s. */
  over(period: number): Omit<PeriodResult, 'duty' | 'top' | 'attained' | 'rise'> {
    const scale = (v: Float64Array): Float64Array => v.map((a) => a / period);
    const { mean, run } = this;
    // A winding is sampled when the diode that carries most lets go.
    const most = run.circuit.diodes.reduce((best, _, d) => (mean[d]! > mean[best]! ? d : best), 0);
    return {
      mean: scale(mean),
      square: scale(this.square),
      peak: this.peak,
      knee: this.knees[most] ?? new Float64Array(run.circuit.unknowns),
      meanVolts: scale(this.meanVolts),
      squareVolts: scale(this.squareVolts),
      highVolts: this.highVolts,
      lowVolts: this.lowVolts,
    };
  }
}
