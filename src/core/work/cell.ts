import type { Device } from '../device';
import { Broyden } from './broyden';
import { avalanches, coupled, differ, endsOf, figuresOf, onOhms, reach } from './cellParts';
import type { CellInput, CellPlan, PeriodResult } from './cellPlan';
import { PeriodSums } from './periodSums';
import { SwitchedRun } from './switched';
import type {
  Drain,
  Spot,
  SwitchedCircuit,
  SwitchedDiode,
  SwitchedResistor,
  SwitchedSwitch,
  SwitchedWindings,
} from './switched';

/** A converter's switching part: windings, switches and diodes between nodes that stand and nodes that swing. */
export class Cell {
  readonly circuit: SwitchedCircuit;
  /** What goes in: sums of the mean volts of nodes, each with its weight. */
  readonly inputs: readonly CellInput[];
  /** Node pairs of each diode, of each switch where it gives way to too many volts, of each switch that is on. */
  readonly ends: readonly (readonly [number, number])[];
  readonly diodeDevices: readonly Device[];
  readonly switchDevices: readonly Device[];
  readonly windingDevices: readonly Device[];
  /** Where nodes lie that swing or ride; standing nodes behind what their capacitors show. */
  readonly spots: ReadonlyMap<number, Spot>;
  readonly softSpots: ReadonlyMap<number, Spot>;
  /** Unknown of a swinging node. */
  readonly unknownOf: ReadonlyMap<number, number>;
  private readonly run: SwitchedRun;
  private readonly phaseOf: readonly number[];
  private readonly parameters: Float64Array;
  private state: Float64Array<ArrayBuffer>;

  constructor(
    devices: readonly Device[],
    parameters: Float64Array,
    readonly plan: CellPlan,
  ) {
    const power = [...plan.phases.flat(), ...plan.sync];
    const riding = new Map<number, number>();
    for (const [a, b] of plan.riding) riding.set(a, b);
    const unknownOf = new Map<number, number>();
    const inputs: CellInput[] = [];
    const spots = new Map<number, Spot>();
    let unknowns = 0;
    const spotOf = (node: number): Spot => {
      const known = spots.get(node);
      if (known) return known;
      let spot: Spot;
      const rides = riding.get(node);
      const level = plan.levels.get(node);
      if (plan.isStatic(node)) {
        const weights = level ? level.map((n) => [n, 1 / level.length] as const) : [[node, 1] as const];
        spot = { unknown: -1, given: inputs.push(weights) - 1 };
      } else if (rides !== undefined) {
        const under = spotOf(rides);
        const over = level ? [] : [[node, 1] as const, [rides, -1] as const];
        spot = { unknown: under.unknown, given: inputs.push(over) - 1 };
      } else spot = { unknown: unknowns++, given: -1 };
      spots.set(node, spot);
      if (spot.unknown >= 0) unknownOf.set(node, spot.unknown);
      return spot;
    };
    const swings = (node: number): boolean => !plan.isStatic(node);
    const found = reach(devices, parameters, power, plan, swings);
    const powerSet = new Set(power);
    const diodes: SwitchedDiode[] = [];
    const diodeDevices: Device[] = [];
    const switches: SwitchedSwitch[] = [];
    const switchDevices: Device[] = [];
    const phaseOf: number[] = [];
    const windings: SwitchedWindings[] = [];
    const resistors: SwitchedResistor[] = [];
    const drains: Drain[] = [];
    const soft = new Map<number, Spot>();
    /** A standing node as the switching sees it: behind what its capacitors show. */
    const softSpot = (node: number): Spot => {
      const spot = spotOf(node);
      if (spot.unknown >= 0) return spot;
      const known = soft.get(node);
      if (known) return known;
      const ohms = plan.rippleOhms(node);
      if (!(ohms > 1e-4)) return spot;
      const made = { unknown: unknowns++, given: spot.given };
      soft.set(node, made);
      resistors.push({ a: { unknown: made.unknown, given: -1 }, b: { unknown: -1, given: -1 }, ohms });
      drains.push({ node, unknown: made.unknown, amps: 0 });
      return made;
    };
    for (const d of found) {
      const { kind } = d.model;
      const [n0, n1] = [d.nodes[0]!, d.nodes[1]!];
      if (kind === 'junction') {
        diodes.push({ name: d.name, a: softSpot(n0), k: softSpot(n1), volts: 0.6, ohms: 0.05 });
        diodeDevices.push(d);
      } else if (powerSet.has(d)) {
        const [high, low] = endsOf(d, parameters);
        switches.push({ name: d.name, high: softSpot(high), low: softSpot(low), ohms: onOhms(d, parameters) });
        switchDevices.push(d);
        const phase = plan.phases.findIndex((p) => p.includes(d));
        phaseOf.push(phase);
      } else if (kind === 'windings') {
        const count = d.model.states;
        windings.push({
          names: [d.name],
          ends: d.nodes.map(softSpot),
          ohms: Array.from({ length: count }, (_, k) => Math.max(parameters[d.at + k]!, 1e-4)),
          henries: coupled(parameters.subarray(d.at + count, d.at + count + count * count), count),
        });
      } else if (kind === 'resistor') {
        resistors.push({ a: softSpot(n0), b: softSpot(n1), ohms: Math.max(parameters[d.at]!, 1e-4) });
      }
    }
    this.parameters = parameters;
    this.hertz = plan.hertz;
    const all = [...diodes, ...avalanches(switches, switchDevices, plan)];
    this.circuit = { unknowns, resistors, windings, diodes: all, switches, capacitors: [], drains };
    [this.spots, this.softSpots] = [spots, soft];
    [this.inputs, this.unknownOf] = [inputs, unknownOf];
    this.diodeDevices = diodeDevices;
    this.switchDevices = switchDevices;
    this.windingDevices = found.filter((d) => d.model.kind === 'windings');
    this.ends = [...diodeDevices, ...switchDevices, ...switchDevices].map((d) => endsOf(d, parameters));
    this.phaseOf = phaseOf;
    this.run = new SwitchedRun(this.circuit);
    this.state = new Float64Array(this.run.amps.length);
    this.shooter = new Broyden(this.state.length);
    this.kneeAmps(new Float64Array(diodes.length).fill(0.1));
  }

  /** Sets the knees of the diodes for the amperes that each carries while it conducts. */
  kneeAmps(amps: Float64Array): void {
    this.diodeDevices.forEach((d, i) => {
      const [saturation, slope, series] = this.parameters.subarray(d.at, d.at + 3);
      // Half way (of the logarithm) to what is carried now, so that knees and volts settle together.
      const carried = Math.sqrt(Math.max(amps[i]!, 1e-4) * (this.carried[i] ?? 0.1));
      this.carried[i] = carried;
      const diode = this.circuit.diodes[i]!;
      diode.volts = slope! * Math.log1p(carried / saturation!) - slope!;
      diode.ohms = series! + slope! / carried;
    });
    this.run.changed();
  }

  private readonly carried: number[] = [];

  /** Takes over what another one of the same parts has found: ramp, knees, currents of its windings. */
  resume(other: Cell): void {
    if (other.state.length !== this.state.length || other.carried.length !== this.carried.length) return;
    this.ramp = other.ramp;
    this.floor = other.floor;
    this.lastTop = other.lastTop;
    this.state = Float64Array.from(other.state);
    other.carried.forEach((amps, i) => (this.carried[i] = amps));
    this.kneeAmps(Float64Array.from(this.carried));
  }

  /** Whether another cell is made of the same parts in the same places. */
  isLike(other: Cell): boolean {
    const [own, far] = [this, other].map((c) => figuresOf(c.circuit, c.inputs.length, c.diodeDevices, c.parameters));
    return own!.length === far!.length && own!.every((v, i) => v === far![i]);
  }

  /** Volts of the inputs from the mean volts of all nodes. */
  given(x: Float64Array): Float64Array {
    return Float64Array.from(this.inputs, (weights) => weights.reduce((sum, [n, w]) => sum + w * x[n]!, 0));
  }

  /**
   * The periodic steady state with the switch current of each phase ended at `top` amperes, or at the longest on-time.
   * given: volts of the inputs.
   */
  period(given: Float64Array, top: number): PeriodResult {
    const { run } = this;
    if (top < 0.6 * this.lastTop || top > 3 * this.lastTop) {
      this.state = new Float64Array(this.state.length);
      this.shooter.forget();
    }
    this.lastTop = top;
    const { shooter } = this;
    shooter.restart();
    let x = Float64Array.from(this.state);
    let best: { off: number; x: Float64Array<ArrayBuffer>; f: Float64Array<ArrayBuffer> } = { off: Infinity, x, f: x };
    let nearest: { off: number; state: Float64Array<ArrayBuffer>; result: PeriodResult } | null = null;
    for (let round = 0; ; round++) {
      const result = this.once(given, top, x);
      const f = run.amps.map((v, i) => v - x[i]!);
      const off = f.reduce((most, v) => Math.max(most, Math.abs(v)), 0);
      if (!nearest || off < nearest.off) nearest = { off, state: Float64Array.from(run.amps), result };
      if (off < PERIODIC * (Math.abs(top) + SMALL_AMPS) || round === PERIODS) {
        // A state that never came round would spoil the next one.
        const lost = nearest.off > 0.02 * (Math.abs(top) + SMALL_AMPS);
        if (lost) shooter.forget();
        this.state = lost ? new Float64Array(this.state.length) : nearest.state;
        return nearest.result;
      }
      if (off > 3 * best.off) {
        // A step too far: on from the best so far, half the way.
        shooter.forget();
        x = best.x.map((v, i) => v + 0.5 * best.f[i]!);
        best = { ...best, off: Infinity };
        continue;
      }
      if (off < best.off) best = { off, x, f };
      const next = shooter.next(x, f);
      // No further in one go than the currents are great: a step out of a long climb may point anywhere.
      const reach = 1.2 * run.amps.reduce((most, v) => Math.max(most, Math.abs(v)), Math.abs(top));
      const go = next.reduce((most, v, i) => Math.max(most, Math.abs(v - x[i]!)), 0);
      const from = x;
      x = go > reach ? next.map((v, i) => from[i]! + ((v - from[i]!) * reach) / go) : next;
    }
  }

  /** Follows one steady period: taken is called after each step with the seconds since it began and the run as it stands. */
  follow(given: Float64Array, top: number, taken: (seconds: number, run: SwitchedRun) => void): void {
    this.period(given, top);
    this.once(given, top, Float64Array.from(this.state), (t) => taken(t, this.run));
  }

  /** Runs one period from a state of the windings; taken: called after each step with the seconds since the period began. */
  private once(given: Float64Array, top: number, start: Float64Array, taken?: (seconds: number) => void): PeriodResult {
    const { run, plan, circuit } = this;
    const period = 1 / this.hertz;
    // A pulse is as short at a lower frequency.
    const pulse = Math.min(period, 1 / plan.hertz);
    const count = circuit.diodes.length + circuit.switches.length;
    const sums = new PeriodSums(run, count);
    run.amps.set(start);
    run.diodeAmps.fill(0);
    let onTime = 0;
    let reached = 0;
    let attained = 0;
    let rise = 0;
    const phases = plan.phases.length;
    for (let phase = 0; phase < phases; phase++) {
      const length = period / phases;
      let t = 0;
      let on = top > 0;
      const longest = Math.min(plan.dutyMax * period, length);
      this.set(on ? phase : -1);
      this.lastPhase = 0;
      let h = pulse * FIRST;
      let fresh = true;
      for (let steps = 0; t < length * (1 - 1e-9) && steps < 2000; steps++) {
        let step = Math.min(h, length - t);
        if (on) step = Math.min(step, Math.max(longest - t, period * 1e-6));
        const states = [...run.diodeOn];
        // What has just switched drives otherwise than before.
        run.weight = fresh || step <= pulse * EVENT ? 1 : STRAIGHT;
        if (!run.try(step, given)) break;
        // What opens or closes within the step ends it: at the crossing where that is known, else a quarter on.
        for (let tries = 0; tries < 12 && step > pulse * EVENT && differ(states, run.diodeOn); tries++) {
          const crosses = run.crossing < 0.98 && run.crossing > 0.02;
          step = Math.max(crosses && tries === 0 ? step * run.crossing * 0.999 : step / 4, pulse * FINEST);
          states.forEach((s, i) => (run.diodeOn[i] = s));
          if (step <= pulse * EVENT) run.weight = 1;
          if (!run.try(step, given)) break;
        }
        let over = false;
        if (on) {
          const amps = this.phaseAmps(given) + this.ramp * (t + step);
          const was = this.lastPhase + this.ramp * t;
          if (amps >= top && !this.free) {
            const share = amps > was && was < top && !fresh ? (top - was) / (amps - was) : 0;
            if (share < 1 && share > 0 && step > pulse * FINEST) {
              step = Math.max(step * share, pulse * FINEST);
              states.forEach((s, i) => (run.diodeOn[i] = s));
              if (!run.try(step, given)) break;
            }
            over = true;
          }
        }
        run.take(step);
        const lastAmps = this.lastPhase;
        this.lastPhase = this.phaseAmps(given);
        if (on) {
          reached = Math.max(reached, this.lastPhase);
          attained = this.lastPhase + this.ramp * (t + step);
          rise = (this.lastPhase - lastAmps) / step;
        }
        const changed = differ(states, run.diodeOn);
        sums.add(step, fresh || changed, on);
        t += step;
        taken?.(phase * length + t);
        if (on) onTime += step;
        fresh = false;
        h = changed ? pulse * FIRST : Math.min(Math.max(step, pulse * FIRST) * GROWTH, length / 8);
        if (on && (over || t >= longest * (1 - 1e-9))) {
          on = false;
          this.set(-1);
          h = pulse * FIRST;
          fresh = true;
        }
      }
    }
    // What flows into a standing node in the mean flows on from it: its capacitors carry the rest.
    for (const drain of circuit.drains)
      drain.amps += sums.meanOf(drain.unknown, period) / this.plan.rippleOhms(drain.node);
    return { ...sums.over(period), duty: onTime / period / phases, top: reached, attained, rise };
  }

  private lastTop = 0;
  private readonly shooter: Broyden;

  /** A peak current below this makes no pulse, ampere: a loop that went further down would lose its way back. */
  floor = 0;
  /** Whether every pulse is as long as it may be, whatever its current. */
  free = false;

  /** Added to the current that the comparator sees, A/s: it steadies a converter whose choke never runs empty. */
  ramp = 0;
  /** Switching frequency now. */
  hertz: number;
  private lastPhase = 0;

  /** Current of the switches that conduct now: those of one phase in series count once. */
  private phaseAmps(given: Float64Array): number {
    const { run, circuit } = this;
    let most = 0;
    let sum = 0;
    circuit.switches.forEach(({ high, low, ohms }, s) => {
      if (this.phaseOf[s]! < 0 || !run.switchOn[s]) return;
      const amps = (run.at(high, given) - run.at(low, given)) / ohms;
      most = Math.max(most, amps);
      sum += amps;
    });
    return this.series ? most : sum;
  }

  /** Whether the switches of a phase stand in series (two-switch forward, full bridge) rather than side by side. */
  series = false;

  private set(phase: number): void {
    this.phaseOf.forEach((p, s) => (this.run.switchOn[s] = phase < 0 ? p < 0 : p === phase));
  }
}

/** A change of a diode is found to this share of the period. */
const EVENT = 1 / 3000;
/** A period ends as it began to this share of its peak current; after so many tries it is taken as it is. */
const PERIODIC = 2e-5;
const SMALL_AMPS = 0.02;
const PERIODS = 50;
/** Weight of a step's end between two events: a little more than half, so that nothing rings on. */
const STRAIGHT = 0.503;
const [FIRST, FINEST] = [1 / 4000, 1 / 40000];
const GROWTH = 1.7;
