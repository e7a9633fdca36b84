import { BREAKDOWN } from '../device';
import type { Device } from '../device';
import { isolated } from './lineGraph';
import { reachLine } from './lineReach';
import { MOST_ZENER, findReservoirs } from './reservoirs';
import type { Reservoir } from './reservoirs';
import { SwitchedRun } from './switched';
import type { Spot, SwitchedDiode, SwitchedResistor } from './switched';
import type { UnitCircuit } from './unitCircuit';
import { held } from './workDevice';
import type { WorkDevice } from './workDevice';

/** What the line side does over one period of the mains. */
export interface LineResult {
  readonly mean: ReadonlyMap<number, number>;
  readonly high: ReadonlyMap<number, number>;
  readonly low: ReadonlyMap<number, number>;
  readonly rms: ReadonlyMap<number, number>;
}

const STEPS = 250;

/**
 * What hangs on the mains between the inlet and the reservoirs: resistances, chokes, transformers of line frequency and
 * rectifiers, run over periods of the mains with each reservoir loaded by what it gives.
 */
export class LineSide {
  readonly diodes: readonly Device[];
  readonly reservoirs: Reservoir[];
  readonly reached: ReadonlySet<number>;
  /** Nodes that the inlet reaches without a rectifier. */
  readonly lineNodes: ReadonlySet<number>;
  result: LineResult | null = null;
  private readonly run: SwitchedRun;
  /** Where each node lies in the run. */
  readonly spotOf: ReadonlyMap<number, Spot>;
  private readonly loadAt: readonly number[];
  /** Resistors on the way of the mains, in the order of the run's. */
  readonly way: readonly Device[];
  private readonly resistors: (SwitchedResistor & { ohms: number })[];
  /** Capacitors that pass the mains on in place of a resistor. */
  private readonly passing: ReadonlySet<Device>;
  /** Capacitors and windings that the mains reaches, in the order of the run's. */
  readonly smoothing: readonly Device[];
  readonly windingDevices: readonly Device[];
  private readonly capNodes: readonly (readonly [number, number])[];

  /** closed: contacts that are closed, as pairs of nodes; cut: devices that something else works. */
  static of(
    unit: UnitCircuit,
    closed: readonly (readonly [number, number])[],
    cut: ReadonlySet<Device>,
  ): LineSide | null {
    const [rail, back] = [unit.plan.inputs.rail, unit.plan.inputs.return];
    if (rail === null || back === null) return null;
    const side = new LineSide(unit, unit.node(rail), unit.node(back), closed, cut);
    return side.diodes.length > 0 ? side : null;
  }

  private constructor(
    private readonly unit: UnitCircuit,
    readonly live: number,
    readonly neutral: number,
    closed: readonly (readonly [number, number])[],
    cut: ReadonlySet<Device>,
  ) {
    const { circuit } = unit;
    const { parameters } = circuit;
    const reached = reachLine(unit, live, neutral, closed, cut);
    const { seen, found, caps, passing } = reached;
    this.reached = seen;
    this.passing = passing;
    const spots = new Map<number, Spot>();
    let unknowns = 0;
    const spotOf = (node: number): Spot => {
      const known = spots.get(node);
      if (known) return known;
      const spot =
        node === live
          ? { unknown: -1, given: 0 }
          : node === neutral
            ? { unknown: -1, given: -1 }
            : { unknown: unknowns++, given: -1 };
      spots.set(node, spot);
      return spot;
    };
    const smoothing = [...caps].filter((d) => d.nodes.slice(0, 2).every((n) => seen.has(n)));
    const { reservoirs, lineNodes, clamps } = findReservoirs(unit, reached, live, neutral, smoothing);
    const junctions = [...[...found].filter((d) => d.model.kind === 'junction'), ...clamps];
    const diodes = junctions.map((d): SwitchedDiode => {
      const [is, slope, series] = parameters.subarray(d.at, d.at + 3);
      const amps = 0.5;
      return {
        name: d.name,
        a: spotOf(d.nodes[0]!),
        k: spotOf(d.nodes[1]!),
        volts: slope! * Math.log1p(amps / is!) - slope!,
        ohms: series! + slope! / amps,
      };
    });
    this.way = [...found].filter((d) => d.model.kind === 'resistor');
    const resistors = [...found]
      .filter((d) => d.model.kind === 'resistor')
      .map((d) => ({ a: spotOf(d.nodes[0]!), b: spotOf(d.nodes[1]!), ohms: Math.max(parameters[d.at]!, 1e-3) }));
    for (const [a, b] of closed)
      if (seen.has(a) && seen.has(b)) resistors.push({ a: spotOf(a), b: spotOf(b), ohms: 0.02 });
    this.windingDevices = [...found].filter((d) => d.model.kind === 'windings');
    const windings = this.windingDevices.map((d) => {
      const count = d.model.states;
      return {
        names: [d.name],
        ends: d.nodes.map(spotOf),
        ohms: Array.from({ length: count }, (_, k) => Math.max(parameters[d.at + k]!, 1e-3)),
        henries: Array.from(parameters.subarray(d.at + count, d.at + count + count * count)),
      };
    });
    const capacitors = smoothing.map((d) => ({
      a: spotOf(d.nodes[0]!),
      b: spotOf(d.nodes[1]!),
      farads: parameters[d.at]!,
      ohms: Math.max(d.model.kind === 'lossy-capacitor' ? parameters[d.at + 1]! : 0, 0.01),
    }));
    this.diodes = junctions;
    this.reservoirs = reservoirs;
    this.lineNodes = lineNodes;
    const breakdowns = junctions.flatMap((d, i): SwitchedDiode[] => {
      const volts = parameters[d.at + BREAKDOWN]!;
      const { a, k, ohms } = diodes[i]!;
      return volts < MOST_ZENER ? [{ name: d.name, a: k, k: a, volts, ohms }] : [];
    });
    const loads = reservoirs.map(({ main, low }): SwitchedResistor & { ohms: number } => ({
      a: spotOf(main),
      b: spotOf(low),
      ohms: 1e5,
    }));
    this.loadAt = loads.map((_, i) => resistors.length + i);
    this.resistors = [...resistors, ...loads];
    this.spotOf = spots;
    this.smoothing = smoothing;
    this.capNodes = smoothing.map((d) => [d.nodes[0]!, d.nodes[1]!]);
    const parts = { windings, diodes: [...diodes, ...breakdowns], capacitors };
    const { nameplate } = unit.plan.board;
    const known = [unit.condition.source, nameplate?.hertz, [...spots], resistors, parts];
    let told: string | null = null;
    this.values = () => (told ??= JSON.stringify(known));
    this.run = new SwitchedRun({ unknowns, resistors: this.resistors, switches: [], drains: [], ...parts });
    this.start(passing.size > 0 ? new Set() : isolated(found, live, neutral));
  }

  /** Reservoirs begin a little below the crest; those behind a transformer or a capacitor empty. */
  private start(apart: ReadonlySet<number>): void {
    const peak = Math.SQRT2 * this.unit.condition.source;
    for (const r of this.reservoirs) {
      if (!apart.has(r.low)) continue;
      const height = (n: number): number => (n === r.low ? 0 : n === r.main || !r.between.has(n) ? 0.9 : 0.45) * peak;
      this.capNodes.forEach(([a, b], i) => {
        if ([a, b].every((n) => n === r.low || r.nodes.includes(n) || r.between.has(n)))
          this.run.capVolts[i] = height(a) - height(b);
      });
    }
  }

  /** Takes over charge and loads of another one of the same parts, and what came of them where their values are the same. */
  resume(other: LineSide): void {
    if (other.run.capVolts.length !== this.run.capVolts.length || other.reservoirs.length !== this.reservoirs.length)
      return;
    this.run.capVolts.set(other.run.capVolts);
    this.reservoirs.forEach((r, i) => (r.siemens = other.reservoirs[i]!.siemens));
    this.result = null;
    if (!other.result || this.values() !== other.values()) return;
    [this.result, this.settledLoads, this.fed, this.carried] = [
      other.result,
      other.settledLoads,
      other.fed,
      other.carried,
    ];
    this.unfed.clear();
    other.reservoirs.forEach((r, i) => other.unfed.has(r) && this.unfed.add(this.reservoirs[i]!));
  }

  /** The loads that the result was found with. */
  private settledLoads = '';
  /** All that the result hangs on beside the loads, to be held against another side's. */
  private readonly values: () => string;

  /** Runs the mains until a period ends as it began; the loads as they are set. */
  settle(): void {
    const { run, reservoirs } = this;
    const loads = reservoirs.map((r) => r.siemens).join();
    if (this.result && loads === this.settledLoads) return;
    this.settledLoads = loads;
    reservoirs.forEach((r, i) => (this.resistors[this.loadAt[i]!]!.ohms = 1 / Math.max(r.siemens, 1e-9)));
    run.changed();
    let before = Float64Array.from(run.capVolts);
    let earlier: Float64Array | null = null;
    const clamped = this.passing.size > 0;
    let idle = 0;
    for (let cycle = 0; cycle < (clamped ? MOST_CYCLES_CLAMPED : MOST_CYCLES); cycle++) {
      this.result = this.cycle();
      // What nothing feeds need not be watched running out: begun anew from nothing it tells the same.
      idle = this.fed.every((amps) => amps < FEEDS) ? idle + 1 : 0;
      if (idle === IDLE_CYCLES && !clamped) run.capVolts.fill(0);
      const now = Float64Array.from(run.capVolts);
      let off = 0;
      for (let i = 0; i < now.length; i++)
        off = Math.max(off, Math.abs(now[i]! - before[i]!) / (1 + Math.abs(now[i]!)));
      if (off < 1e-4 && cycle > 0) break;
      // What a clamp ends is not foretold.
      if (earlier && cycle % 3 === 2 && !clamped) {
        // Each reservoir nears its end in steps that shrink alike: the rest of them in one.
        for (let i = 0; i < now.length; i++) {
          const [d1, d2] = [before[i]! - earlier[i]!, now[i]! - before[i]!];
          const ratio = Math.abs(d1) > 1e-9 ? d2 / d1 : 0;
          if (ratio > 0.2 && ratio < MOST_RATIO) run.capVolts[i] = now[i]! + (d2 * ratio) / (1 - ratio);
        }
      }
      earlier = before;
      before = Float64Array.from(run.capVolts);
    }
    // What no rectifier feeds stands at nothing, whatever it began with; on the line's own side something else may feed it.
    this.unfed.clear();
    for (const r of reservoirs) {
      const ends = (d: Device): boolean => (r.onLine ? r.nodes.includes(d.nodes[1]!) : d.nodes.includes(r.low));
      if (this.diodes.some((d, i) => this.fed[i]! > FEEDS && ends(d))) continue;
      if (r.onLine) this.unfed.add(r);
      const result = this.result!;
      for (const map of [result.mean, result.high, result.low, result.rms] as Map<number, number>[])
        for (const n of r.nodes) map.set(n, 0);
    }
  }

  /** Mean square of the current of each resistor on the way in the last period. */
  private carried = new Float64Array(0);

  /** Ampere rms through a resistance on the way of the mains; undefined for one that is not. */
  wayAmps(device: Device): number | undefined {
    const i = this.way.indexOf(device);
    return i < 0 ? undefined : Math.sqrt(this.carried[i] ?? 0);
  }

  /** Rails on a side of the line that no rectifier fed in the last period. */
  private readonly unfed = new Set<Reservoir>();
  /** Greatest current of each diode in the last period. */
  private fed = new Float64Array(0);

  /** Runs one more period of the mains: taken is called after each step of so many seconds. */
  follow(taken: (seconds: number, run: SwitchedRun, given: Float64Array) => void): void {
    if (this.result) this.cycle(taken);
  }

  private cycle(taken?: (seconds: number, run: SwitchedRun, given: Float64Array) => void): LineResult {
    const { run, unit } = this;
    const hertz = unit.plan.board.nameplate?.hertz ?? 50;
    const h = 1 / (hertz || 50) / STEPS;
    const peak = Math.SQRT2 * unit.condition.source;
    const given = new Float64Array(1);
    const nodes = [...this.spotOf.keys()];
    const count = nodes.length;
    const spots = nodes.map((n) => this.spotOf.get(n)!);
    const place = new Map(nodes.map((n, i) => [n, i]));
    const under = new Int32Array(count).fill(-1);
    for (const r of this.reservoirs) for (const n of r.nodes) under[place.get(n)!] = place.get(r.low)!;
    const [mean, square, now] = [new Float64Array(count), new Float64Array(count), new Float64Array(count)];
    const [high, low] = [new Float64Array(count).fill(-Infinity), new Float64Array(count).fill(Infinity)];
    const fed = new Float64Array(this.diodes.length);
    this.fed = fed;
    const carried = new Float64Array(this.way.length);
    this.carried = carried;
    for (let s = 1; s <= STEPS; s++) {
      given[0] = peak * Math.sin((2 * Math.PI * s) / STEPS);
      if (!run.try(h, given)) break;
      run.take(h);
      taken?.(h, run, given);
      for (let i = 0; i < fed.length; i++) fed[i] = Math.max(fed[i]!, run.diodeAmps[i]!);
      for (let i = 0; i < carried.length; i++) {
        const { a, b, ohms } = this.resistors[i]!;
        const amps = (run.at(a, given) - run.at(b, given)) / ohms;
        carried[i] = carried[i]! + (amps * amps) / STEPS;
      }
      for (let i = 0; i < count; i++) now[i] = run.at(spots[i]!, given);
      for (let i = 0; i < count; i++) {
        const v = under[i]! < 0 ? now[i]! : now[i]! - now[under[i]!]!;
        mean[i] = mean[i]! + v / STEPS;
        square[i] = square[i]! + (v * v) / STEPS;
        if (v > high[i]!) high[i] = v;
        if (v < low[i]!) low[i] = v;
      }
    }
    const byNode = (values: Float64Array): Map<number, number> => new Map(nodes.map((n, i) => [n, values[i]!]));
    return { mean: byNode(mean), high: byNode(high), low: byNode(low), rms: byNode(square.map(Math.sqrt)) };
  }

  /** Rails that a rectifier feeds. */
  get rails(): readonly Reservoir[] {
    return this.reservoirs.filter((r) => !this.unfed.has(r));
  }

  /** Each reservoir held at its mean, as devices of the mean network; the inlet at rest. */
  devices(): readonly WorkDevice[] {
    const list = [held('mains', this.live, this.neutral, 0, 1e-3)];
    for (const r of this.rails)
      for (const n of r.nodes) list.push(held(`line ${n}`, n, r.low, this.result?.mean.get(n) ?? 0, HOLD_OHMS));
    return list;
  }

  /** Sets the loads by what the reservoirs gave in a solution; gives how far any moved, as a share of its current. */
  load(x: Float64Array): number {
    let moved = 0;
    for (const r of this.rails) {
      let amps = 0;
      for (const n of r.nodes) amps += (this.result!.mean.get(n)! - (x[n]! - x[r.low]!)) / HOLD_OHMS;
      const volts = Math.max(this.result!.mean.get(r.main) ?? 0, 0.5);
      const siemens = Math.max(amps / volts, 1e-9);
      moved = Math.max(moved, Math.abs(siemens - r.siemens) / (siemens + 1e-5));
      r.siemens = siemens;
    }
    return moved;
  }
}

/** After so many periods without any charge a reservoir is taken for cut off. */
const IDLE_CYCLES = 2;
/** Periods until it is taken as it is. */
const MOST_CYCLES = 80;
const MOST_CYCLES_CLAMPED = 240;
const HOLD_OHMS = 1e-3;
/** A rectifier that carries less than this at most feeds nothing, ampere. */
const FEEDS = 1e-8;
/** Steps that shrink more slowly than this are not foretold: two capacitors that trade their charge would be thrown apart. */
const MOST_RATIO = 0.9;
