import { boardNets, netKey } from '../circuit';
import type { Board } from '../circuit';
import type { Fault } from '../fault';
import { sheetFact } from '../part';
import { formatQuantity } from '../quantity';
import { recogniseStages } from '../stages';
import { operateUnit } from './operate';
import type { Operation } from './operate';
import { Derivation } from './derive';
import type { Derived, DerivationStep } from './derive';
import { closeLoops } from './loops';
import { royerOf, royerSignal } from './royer';
import type { RoyerSignal } from './royer';
import { isInverter } from './simpleConverter';
import { flowsOf, resistance } from './workDevice';
import type { WorkDevice } from './workDevice';
import type { RunningCell } from './unitCircuit';
import type { OperatingCondition } from './workBoard';
import { waveformOf } from './waveform';
import type { Waveform } from './waveform';
import { workPlan } from './workPlan';

/** Meters on a unit under power. */
export const POWERED_MODES = ['dcv', 'acv', 'ripple', 'freq'] as const;
export type PoweredMode = (typeof POWERED_MODES)[number];

/** Units of their readings. */
export const POWERED_UNITS = { dcv: 'V', acv: 'V', ripple: 'V', freq: 'Hz' } as const satisfies Record<
  PoweredMode,
  string
>;

/** A reading on a unit under power: its value (null: nothing periodic there, or no steady state) with a band, V or Hz. */
export interface PoweredReading {
  readonly value: number | null;
  readonly low: number | null;
  readonly high: number | null;
}

/** What a meter for volts puts across its leads, ohm. */
const METER_OHMS = 10e6;
/** How far a good unit may read from its nominal figure as a share: other than direct volts, and these at least; in volts. */
const BANDS = { acv: 0.05, ripple: 0.4, freq: 0.1 } as const;
/** A frequency that nobody told may be this many times more or less. */
const GUESSED = 4;
const LEAST_SHARE = 0.01;
const LEAST_BAND = 0.02;
/** Volts that give way to the meter by more than this share are asked for again with the loops closed. */
const SAGS = 0.01;

/** Whether volts that stood open are others with the meter in place. */
const givesWay = (now: number, open: number): boolean => Math.abs(now - open) > SAGS * Math.abs(open) + LEAST_BAND;

/** A unit in one operating condition with its faults, ready for any number of readings. near: as for `operateUnit`. */
export class PoweredReader {
  constructor(
    readonly board: Board,
    readonly operation: Operation,
  ) {}

  /** Switched on in a condition with its faults. near: as for `operateUnit`. */
  static at(
    board: Board,
    condition: OperatingCondition,
    faults: readonly Fault[],
    near: Operation | null = null,
  ): PoweredReader {
    return new PoweredReader(board, operateUnit(workPlan(board), condition, faults, near));
  }

  /** What the meter shows between two nets (contract, section 5); undefined where a net is not on this board. */
  read(mode: PoweredMode, red: string, black: string): PoweredReading | undefined {
    const { unit, found } = this.operation;
    const [a, b] = [unit.node(red), unit.node(black)];
    if (a < 0 || b < 0) return undefined;
    const value = found ? this.value(mode, a, b, netKey(red), netKey(black)) : null;
    if (value === null) return { value, low: null, high: null };
    // Where nobody told how often it switches, its ripple and its frequency are known by their order alone.
    if ((mode === 'ripple' || mode === 'freq') && value > 0 && this.guessedHertz(a))
      return { value, low: value / GUESSED, high: value * GUESSED };
    const share = mode === 'dcv' ? LEAST_SHARE : BANDS[mode];
    const spread = mode === 'dcv' ? this.derive(red, black).spread : 0;
    const half = Math.max(Math.abs(value) * share, spread, mode === 'freq' ? 0 : LEAST_BAND);
    // What has no sign is never less than nothing.
    const low = mode === 'dcv' ? value - half : Math.max(value - half, 0);
    return { value, low, high: value + half };
  }

  private derivation: Derivation | null = null;

  /** How the mean volts between two nets come about, step by step from a source, and how far a good unit may lie off. */
  derive(red: string, black: string): Derived {
    return (this.derivation ??= new Derivation(this.operation)).of(red, black);
  }

  /** The steps of a reading of direct volts, with what the meter itself takes from it where that counts. */
  steps(red: string, black: string, value: number): readonly DerivationStep[] {
    const { unit, volts } = this.operation;
    const { steps } = this.derive(red, black);
    const open = volts[unit.node(red)]! - volts[unit.node(black)]!;
    if (!givesWay(value, open)) return steps;
    const words = `the meter's ${formatQuantity(METER_OHMS, 'ohm')} takes it to ${formatQuantity(value, 'V', 4)}`;
    return [...steps, { words, refs: [] }];
  }

  /** One period of the volts between two nets, with its figures: what switches, drives, is sensed, or saws; else null. */
  waveform(red: string, black: string): Waveform | null {
    const { unit } = this.operation;
    return waveformOf(this.operation, unit.node(red), unit.node(black));
  }

  /** Whether a node follows a converter whose frequency is what is usual, not what its data sheet says. */
  private guessedHertz(a: number): boolean {
    const { board } = this.operation.unit.plan;
    const own = this.running().find(({ cell }) => cell.softSpots.has(a) || cell.unknownOf.has(a));
    const controller = own?.converter.controller ?? null;
    return own !== undefined && (controller === null || sheetFact(board.facts, controller, 'fSwitch') === undefined);
  }

  private value(mode: PoweredMode, a: number, b: number, red: string, black: string): number | null {
    switch (mode) {
      case 'dcv':
        return this.meanVolts(a, b);
      case 'acv':
        return this.alternatingVolts(a, b, red, black);
      case 'ripple':
        return this.ripple(a, b);
      case 'freq':
        return this.tunedSine(a, b)?.hertz ?? this.hertz(a, red);
    }
  }

  /** The mean with the meter's own resistance across the leads. */
  private meanVolts(a: number, b: number): number {
    const { unit, volts } = this.operation;
    if (a === b) return 0;
    const meter = resistance('meter', a, b, METER_OHMS);
    const x = unit.network([...unit.lastDevices, meter]).solve(volts) ?? volts;
    const [now, open] = [x[a]! - x[b]!, volts[a]! - volts[b]!];

    const stiff = unit.condition.load === 'none' || (unit.isSteady(a) && unit.isSteady(b));
    return givesWay(now, open) && stiff && this.answers() ? this.regulated(meter, a, b) : now;
  }

  /** Whether there is a loop at rest that answers to a load. */
  private answers(): boolean {
    const { unit, period } = this.operation;
    return period === null && unit.settled && this.running().length > 0;
  }

  /** The mean with the loops closed anew: at no load the meter is a load that a regulated rail answers to. */
  private regulated(meter: WorkDevice, a: number, b: number): number {
    const { unit, volts, state } = this.operation;
    const running = this.running();
    const before = running.map(({ top, hertz, result }) => ({ top, hertz, result }));
    const devices = unit.lastDevices;
    const closed = closeLoops(unit, state, volts, [meter]);
    const x = closed && unit.settled ? closed : volts;
    running.forEach((r, i) => Object.assign(r, before[i]));
    unit.lastDevices = devices;
    unit.settled = true;
    return x[a]! - x[b]!;
  }

  private alternatingVolts(a: number, b: number, red: string, black: string): number {
    const { unit, alternating } = this.operation;
    if (a === b) return 0;
    const { line } = unit;
    if (line && [a, b].every((n) => n === line.live || n === line.neutral)) return unit.condition.source;
    const sine = this.tunedSine(a, b);
    if (sine) return sine.rms;
    const made = alternating?.volts(red, black) ?? 0;
    if (made > 0) return made;
    const rms = line?.result?.rms.get(a);
    if (rms !== undefined && line!.rails.some((r) => r.nodes.includes(a) && r.lows.has(b))) {
      const mean = line!.result!.mean.get(a)!;
      return Math.sqrt(Math.max(rms * rms - mean * mean, 0));
    }
    for (const running of this.running()) {
      const at = running.cell.unknownOf.get(a);
      if (at === undefined || !running.result) continue;
      const square = running.result.squareVolts[at]!;
      const mean = running.result.meanVolts[at]!;
      return Math.sqrt(Math.max(square - mean * mean, 0));
    }
    return 0;
  }

  /** What a resonant stage that drives itself makes between two nodes; null elsewhere. */
  private tunedSine(a: number, b: number): RoyerSignal | null {
    const { state, unit, volts } = this.operation;
    for (const i of state.running) {
      const royer = royerOf(unit, unit.plan.converters[i]!);
      const signal = royer && (royerSignal(royer, volts, a, b) ?? royerSignal(royer, volts, b, a));
      if (signal) return signal;
    }
    return null;
  }

  /** The cells of the converters that run. */
  private running(): readonly RunningCell[] {
    const { state, unit } = this.operation;
    return unit.cells.filter((c, i): c is RunningCell => c !== null && state.running.has(i));
  }

  /** Peak to peak, the greatest of what the mains, an inverter and the switching leave there. */
  private ripple(a: number, b: number): number {
    const { unit, state } = this.operation;
    let most = this.tunedSine(a, b)?.swing ?? 0;
    const { line } = unit;
    const result = line?.result;
    if (result && line!.rails.some((r) => r.nodes.includes(a) && r.lows.has(b)))
      most = result.high.get(a)! - result.low.get(a)!;
    for (const i of state.running) {
      const c = unit.plan.converters[i]!;
      const high = unit.node(c.topology === 'boost-pfc' ? (c.outputs[0] ?? '') : c.supply);
      const low = c.switches.find((s) => s.side !== 'top')?.low;
      if (high !== a || low === undefined) continue;
      const hertz = isInverter(c)
        ? (this.operation.alternating?.hertz ?? 50)
        : (unit.plan.board.nameplate?.hertz ?? 50);
      const amps = isInverter(c) ? (unit.alternating?.amps ?? 0) : c.topology === 'boost-pfc' ? this.given(a) : 0;
      const farads = unit.faradsBetween(a, unit.node(low)) || unit.faradsBetween(a, b);
      if (farads > 0) most = Math.max(most, amps / (2 * Math.PI * hertz * farads));
    }
    for (const running of this.running()) {
      if (!running.result) continue;
      const at = running.cell.softSpots.get(a)?.unknown ?? running.cell.unknownOf.get(a);
      if (at === undefined) continue;
      most = Math.max(most, running.result.highVolts[at]! - running.result.lowVolts[at]!);
    }
    return most;
  }

  /** Mean amperes that a power-factor stage gives its rail: what everything else takes from it. */
  private given(a: number): number {
    const { unit, volts } = this.operation;
    let amps = 0;
    for (const d of unit.lastDevices) {
      if (d.name !== 'power-factor stage') continue;
      const flow = flowsOf(d, volts);
      d.nodes.forEach((n, i) => {
        if (n === a) amps -= flow[i]!;
      });
    }
    return amps;
  }

  private hertz(a: number, red: string): number | null {
    const { unit, alternating } = this.operation;
    if (unit.line && (a === unit.line.live || a === unit.line.neutral)) return unit.plan.board.nameplate?.hertz ?? 50;
    if (alternating && unit.plan.outputs.some((o) => o.kind === 'ac' && (o.rail === red || o.return === red)))
      return alternating.hertz;
    for (const running of this.running()) {
      const gates = running.converter.drivers.flatMap((ref) => {
        const ic = unit.plan.ics.get(ref);
        return ic ? (ic.roles['GATE'] ?? []).map((at) => unit.circuit.pins[ic.index]![at]!) : [];
      });
      const controls = running.converter.switches.map((s) => unit.node(s.control));
      if (running.cell.unknownOf.has(a) || gates.includes(a) || controls.includes(a)) return running.hertz;
    }
    return null;
  }
}

/** One point that a unit under power is expected to read. */
export interface PoweredPoint {
  readonly red: string;
  readonly black: string;
  readonly mode: PoweredMode;
  readonly nominal: number;
  readonly low: number;
  readonly high: number;
  readonly unit: string;
  readonly why: string;
  readonly steps: readonly DerivationStep[];
}

/** Every net against its island's references, every capacitor, and pairs that ride on one another, as a meter reads them. */
export function poweredPoints(reader: PoweredReader): readonly PoweredPoint[] {
  const { board } = reader;
  const pairs = new Map<string, readonly [string, string]>();
  const add = (red: string, black: string): void => {
    if (netKey(red) !== netKey(black) && ![red, black].some((n) => netKey(n) === 'nc'))
      pairs.set(`${netKey(red)}|${netKey(black)}`, [red, black]);
  };
  for (const island of recogniseStages(board).islands)
    for (const net of island.nets) for (const black of [island.reference, ...island.references]) add(net, black);
  for (const part of board.parts)
    if (part.fitted && part.nets.length === 2) {
      add(part.nets[0]!, part.nets[1]!);
      add(part.nets[1]!, part.nets[0]!);
    }
  const known = new Set(boardNets(board).map(netKey));
  const grounds = [...reader.operation.unit.plan.ics.values()].flatMap((ic) => {
    const part = board.parts[ic.index]!;
    const ground = ic.ground === null ? undefined : part.nets[ic.ground];
    return ground === undefined ? [] : part.nets.map((n) => [n, ground] as const);
  });
  for (const [red, black] of grounds) if (known.has(netKey(red))) add(red, black);
  for (const part of board.parts)
    if (part.kind === 'relay' && part.fitted) {
      add(part.nets[0]!, part.nets[1]!);
      add(part.nets[1]!, part.nets[0]!);
    }
  return [...pairs.values()].flatMap(([red, black]): PoweredPoint[] => {
    const seen = reader.read('dcv', red, black);
    if (!seen || seen.value === null) return [];
    const steps = reader.steps(red, black, seen.value);
    return [
      {
        red,
        black,
        mode: 'dcv',
        nominal: seen.value,
        low: seen.low!,
        high: seen.high!,
        unit: 'V',
        why: steps.map((s) => s.words).join('; '),
        steps,
      },
    ];
  });
}
