import { DisjointSets } from '../graph';
import type { Cell } from './cell';
import type { PeriodResult, Slopes } from './cellPlan';
import type { RunningCell } from './unitCircuit';
import type { WorkDevice } from './workDevice';

/** Even a choke that runs empty gets this share of its rise: light loads stand on the edge of it. */
const LEAST_RAMP = 0.3;
const MOST_RAMP = 50;

/** Less than this share of a period is no pulse but the first step of one. */
const NO_PULSE = 1e-3;

/** Slopes serve again where neither volts nor setting have moved by more than this share. */
const LIKE = 0.01;

/** Whether slopes are as good as new ones at given volts and a setting. */
function serves(known: Slopes, at: Float64Array, setting: number): boolean {
  return (
    known.at.length === at.length &&
    Math.abs(setting - known.setting) <= LIKE * setting &&
    at.every((v, k) => Math.abs(v - known.at[k]!) <= LIKE * (1 + Math.abs(v)))
  );
}

/** Holds what would float to its mean, siemens. */
const ANCHOR = 1e-5;

/**
 * A cell straightened about mean volts and a setting: the amperes of its diodes and switches, the current that its switches
 * reach and the volts of a sampled node at the knee, each with its slopes by the inputs and by the setting.
 */
export class Tangent {
  /** The setting (peak amperes or hertz) that the device is taken at. */
  setting: number;
  private readonly at: Float64Array;
  private readonly here: Float64Array;
  private readonly byInput: readonly Float64Array[];
  private readonly bySetting: Float64Array;

  constructor(
    readonly running: RunningCell,
    x: Float64Array,
    private readonly sampledUnknown: number,
  ) {
    const { cell } = running;
    this.at = cell.given(x);
    this.run(this.at, running.by === 'top' ? running.top : running.hertz);
    if (running.by === 'top' && !cell.free) this.steady();
    this.setting = running.by === 'top' ? running.top : running.hertz;
    this.from = this.setting;
    cell.kneeAmps(running.result!.mean.map((m, i) => (m > 1e-9 ? running.result!.square[i]! / m : 1e-4)));
    this.here = this.run(this.at, this.setting);
    const result = running.result!;
    this.limited = running.by === 'top' && result.attained < 0.998 * this.setting;
    this.result = result;
    const known = running.slopes;
    if (known && serves(known, this.at, this.setting)) {
      [this.byInput, this.bySetting] = [known.byInput, known.bySetting];
      return;
    }
    this.byInput = Array.from(this.at, (v, k) => {
      if (cell.inputs[k]!.length === 0) return new Float64Array(this.here.length);
      const step = Math.max(0.04, 4e-3 * Math.abs(v));
      const moved = Float64Array.from(this.at);
      moved[k] = v + step;
      return this.run(moved, this.setting).map((y, i) => (y - this.here[i]!) / step);
    });
    const more = 1.01 * this.setting;
    this.bySetting = this.run(this.at, more).map((y, i) => (y - this.here[i]!) / (0.01 * this.setting));
    running.result = result;
    running.slopes = { byInput: this.byInput, bySetting: this.bySetting, at: this.at, setting: this.setting };
  }

  readonly from: number;
  /** The period that it was taken at, and whether its pulses ended at the longest on-time rather than at their current. */
  readonly result: PeriodResult;
  readonly limited: boolean;
  /** Gives the comparator the ramp of the falling current, where it never falls to nothing: then one period follows another. */
  private steady(): void {
    const { running } = this;
    const { cell } = running;
    const result = running.result!;
    // A pulse that ends as it begins tells nothing of the rise: the current was there before it.
    // Nor does a switch that carries nothing.
    if (result.duty * cell.plan.phases.length < NO_PULSE || !(result.top > 0)) return;
    const part = Math.min(result.duty * cell.plan.phases.length, 0.95);
    const valley = result.top - result.rise * (result.duty / cell.hertz);
    const falls = valley > 0.03 * result.top ? part / (1 - part) : 0;
    const rise = Math.max(result.rise, 0);
    const ramp = rise * Math.max(falls, LEAST_RAMP);
    cell.floor = ((rise + ramp) * NO_PULSE) / cell.hertz;
    // A choke that runs empty keeps the ramp that it had when it did not: on the edge it would go to and fro.
    if (falls === 0 && cell.ramp >= ramp && cell.ramp < MOST_RAMP * rise) return;
    if (Math.abs(ramp - cell.ramp) < 0.15 * Math.max(ramp, cell.ramp)) return;
    const limited = result.attained < 0.998 * running.top;
    cell.ramp = ramp;
    running.top = result.top + (ramp * result.duty) / cell.hertz + (limited ? 0.02 * result.top : 0);
    this.run(this.at, running.top);
  }

  /** Runs the cell; gives its amperes, then what its switches reached, then the sampled volts. */
  private run(given: Float64Array, setting: number): Float64Array {
    const { running } = this;
    const { cell } = running;
    cell.hertz = running.by === 'hertz' ? setting : running.hertz;
    const result: PeriodResult = cell.period(given, running.by === 'top' ? setting : running.top);
    running.result = result;
    const out = new Float64Array(result.mean.length + 3);
    out.set(result.mean);
    out[result.mean.length] = result.attained;
    out[result.mean.length + 1] = result.top;
    out[result.mean.length + 2] = this.sampledUnknown < 0 ? 0 : result.knee[this.sampledUnknown]!;
    return out;
  }

  private value(i: number, x: Float64Array): number {
    const given = this.running.cell.given(x);
    let now = this.here[i]! + this.bySetting[i]! * (this.setting - this.from);
    for (let k = 0; k < given.length; k++) now += this.byInput[k]![i]! * (given[k]! - this.at[k]!);
    return now;
  }

  /** What the comparator sees at the end of the on-time at mean volts x, ampere. */
  attained(x: Float64Array): number {
    return this.value(this.here.length - 3, x);
  }

  /** What the switches reach at mean volts x, ampere. */
  reached(x: Float64Array): number {
    return this.value(this.here.length - 2, x);
  }

  /** The sampled node at the knee at mean volts x. */
  knee(x: Float64Array): number {
    return this.value(this.here.length - 1, x);
  }

  /** How far mean volts are from those of this tangent, relative to one volt more than each. */
  distance(x: Float64Array): number {
    const now = this.running.cell.given(x);
    let most = 0;
    for (let k = 0; k < now.length; k++)
      most = Math.max(most, Math.abs(now[k]! - this.at[k]!) / (1 + Math.abs(now[k]!)));
    return most;
  }

  /** How far the amperes of the cell at mean volts x are from what this tangent says there, as a share of the greatest. */
  surprise(x: Float64Array): number {
    const now = this.run(this.running.cell.given(x), this.setting);
    let [off, most] = [0, 1e-4];
    for (let i = 0; i < now.length - 3; i++) {
      const said = this.value(i, x);
      most = Math.max(most, Math.abs(said), Math.abs(now[i]!));
      off = Math.max(off, Math.abs(said - now[i]!));
    }
    return off / most;
  }

  /** Swinging nodes with their mean volts over a standing one: a winding may hang on nothing but diodes. */
  private anchors(): readonly { readonly node: number; readonly under: number; readonly volts: number }[] {
    const { cell, result } = this.running;
    const most = 1 + Math.max(...cell.windingDevices.flatMap((d) => d.nodes), ...cell.ends.flat());
    const joined = new DisjointSets(most);
    for (const d of cell.windingDevices)
      for (let k = 0; k + 1 < d.nodes.length; k += 2) joined.union(d.nodes[k]!, d.nodes[k + 1]!);
    const floats = (node: number): boolean =>
      cell.windingDevices.every((d) =>
        d.nodes.every((n) => cell.unknownOf.has(n) || joined.find(n) !== joined.find(node)),
      );
    const stands = new Map(
      cell.inputs.flatMap((weights, k) => (weights.length === 1 ? [[weights[0]![0], this.at[k]!] as const] : [])),
    );
    return cell.ends.flatMap((pair) =>
      [pair, [pair[1], pair[0]] as const].flatMap(([node, under]) => {
        const at = cell.unknownOf.get(node);
        const volts = stands.get(under);
        if (at === undefined || volts === undefined || stands.has(node) || !floats(node)) return [];
        return [{ node, under, volts: result!.meanVolts[at]! - volts }];
      }),
    );
  }

  /** The tangent as a device of the mean network; follows `setting`. */
  device(): WorkDevice {
    const { cell } = this.running as { cell: Cell };
    const nodes = [...new Set([...cell.inputs.flatMap((weights) => weights.map(([n]) => n)), ...cell.ends.flat()])];
    const anchors = this.anchors();
    const local = new Map(nodes.map((n, i) => [n, i]));
    const n = nodes.length;
    const ends = cell.ends.map(([a, b]) => [local.get(a)!, local.get(b)!] as const);
    const inputs = cell.inputs.map((weights) => weights.map(([node, w]) => [local.get(node)!, w] as const));
    return {
      name: 'switching',
      nodes,
      joins: cell.ends,
      evaluate: (x, flow, slope) => {
        flow.fill(0);
        slope.fill(0);
        ends.forEach(([i, j], d) => {
          let now = this.here[d]! + this.bySetting[d]! * (this.setting - this.from);
          inputs.forEach((weights, k) => {
            const g = this.byInput[k]![d]!;
            now -= g * this.at[k]!;
            for (const [at, w] of weights) {
              now += g * w * x[at]!;
              slope[i * n + at] = slope[i * n + at]! + g * w;
              slope[j * n + at] = slope[j * n + at]! - g * w;
            }
          });
          flow[i] = flow[i]! + now;
          flow[j] = flow[j]! - now;
        });
        for (const { node, under, volts } of anchors) {
          const [i, j] = [local.get(node)!, local.get(under)!];
          const now = ANCHOR * (x[i]! - x[j]! - volts);
          flow[i] = flow[i]! + now;
          flow[j] = flow[j]! - now;
          for (const [row, column, g] of [
            [i, i, ANCHOR],
            [i, j, -ANCHOR],
            [j, i, -ANCHOR],
            [j, j, ANCHOR],
          ] as const)
            slope[row * n + column] = slope[row * n + column]! + g;
        }
      },
    };
  }
}
