import { netKey } from '../circuit';
import { formatQuantity } from '../quantity';
import { alternatingOf } from './alternating';
import { regulated } from './heldCauses';
import { controllerOf } from './makeCell';
import { mainConverter } from './operate';
import type { Operation } from './operate';
import { POWERED_UNITS, PoweredReader } from './readPowered';
import type { PoweredMode, PoweredReading } from './readPowered';
import { Scene } from './scene';
import { regulate, resume } from './steadyState';
import { hasSource, starts } from './switchOn';
import { UnitUnderPower } from './unit';
import type { TakenVolts, WorkState } from './unitCircuit';
import { supplyThresholds } from './workPlan';

/** A figure read on the unit at work, V or Hz. */
export interface TakenReading {
  readonly mode: PoweredMode;
  readonly red: string;
  readonly black: string;
  readonly value: number;
}

/** A reading that the unit as computed would not give, in words. adopted: what hangs on it is expected after it. */
export interface Contradiction extends TakenReading {
  readonly adopted: boolean;
  readonly expected: PoweredReading;
  readonly words: string;
}

/** A unit with what was read on it in place of what was computed, and what does not agree with it. */
export interface MeasuredUnit {
  readonly reader: PoweredReader;
  readonly contradictions: readonly Contradiction[];
}

/**
 * Puts readings in place of computed figures. The source and what the mains makes turn the source; a rail that a loop or a
 * regulator holds turns its reference, as long as it may still be holding it; any other standing volts are held where they
 * were read; a frequency turns its converter's. Readings of what hangs on all this (ripple, swinging nodes) are compared only.
 */
export function withReadings(sound: PoweredReader, readings: readonly TakenReading[]): MeasuredUnit {
  if (readings.length === 0) return { reader: sound, contradictions: [] };
  const { operation, board } = sound;
  const { unit } = operation;
  const scene = new Scene(operation);
  const contradictions: Contradiction[] = [];
  const aims = new Map<string, number>();
  const taken: TakenVolts[] = [];
  const hertz = new Map<number, number>();
  let source = unit.condition.source;
  /** Puts one reading in its place; whether anything hangs on it from then on. */
  const adopt = ({ mode, red, black, value }: TakenReading, expected: number): boolean => {
    const [a, b] = [unit.node(red), unit.node(black)];
    const ratio = expected === 0 ? NaN : value / expected;
    if (mode === 'freq') {
      unit.cells.forEach((c, i) => {
        if (c?.by === 'top' && operation.state.running.has(i) && c.hertz === expected) hertz.set(i, value);
      });
      return hertz.size > 0;
    }
    if (isInlet(unit, mode, red, black)) {
      source = Math.abs(value);
      return true;
    }
    if (mode !== 'dcv' || a === b || !unit.isSteady(a) || !unit.isSteady(b)) return false;
    if (isRectified(unit, a, b)) {
      taken.push({ a, b, volts: value, held: false });
      if (ratio >= 0) source = unit.condition.source * ratio;
      return true;
    }
    const holder = holderOf(scene, a, b);
    if (holder !== null && !(ratio > LEAST_AIM && ratio < MOST_AIM)) return false;
    if (holder !== null) aims.set(holder, ratio);
    taken.push({ a, b, volts: value, held: holder === null });
    return true;
  };
  for (const reading of readings) {
    const { mode, red, black, value } = reading;
    const expected = sound.read(mode, red, black);
    if (!expected || expected.value === null || expected.low === null || expected.high === null) continue;
    const adopted = adopt(reading, expected.value);
    if (value < expected.low || value > expected.high)
      contradictions.push({ ...reading, expected, adopted, words: against(reading, expected) });
  }
  const made = new UnitUnderPower(unit.plan, { ...unit.condition, source }, unit.faults);
  made.taken = taken;
  made.aims = aims;
  const now = operateFrom(operation, made, hertz);
  return { reader: new PoweredReader(board, now), contradictions };
}

/** A loop may still hold a rail that reads this share of what it is made for. */
const LEAST_AIM = 0.7;
const MOST_AIM = 2;

function against({ mode, red, black, value }: TakenReading, { low, high }: PoweredReading): string {
  const show = (v: number): string => formatQuantity(v, POWERED_UNITS[mode]);
  return `${red} against ${black} read ${show(value)}; ${show(low!)} to ${show(high!)} were to be read`;
}

function isInlet(unit: UnitUnderPower, mode: PoweredMode, red: string, black: string): boolean {
  const { rail, return: back } = unit.plan.inputs;
  const leads = [red, black].map(netKey);
  const there = rail !== null && back !== null && leads.includes(netKey(rail)) && leads.includes(netKey(back));
  return there && mode === (unit.plan.mains ? 'acv' : 'dcv');
}

function isRectified(unit: UnitUnderPower, a: number, b: number): boolean {
  return (unit.line?.rails ?? []).some((r) => r.nodes.includes(a) && r.lows.has(b));
}

/** Designator (or printed output) of what holds a rail at its volts: a reference, a controller, a regulator. */
function holderOf(scene: Scene, a: number, b: number): string | null {
  const { unit, state } = scene.operation;
  const own = regulated(scene, a, b)?.refs[0];
  if (own !== undefined) return own;
  const output = unit.plan.outputs.find((o) => unit.node(o.rail) === a && unit.node(o.return) === b);
  const made = [...state.running].some((i) => unit.plan.converters[i]!.outputs.includes(output?.rail ?? ''));
  if (output && made) return output.rail;
  const regulator = unit.plan.board.parts.find((p) => p.kind === 'regulator' && unit.pinsOf(p.ref)[2] === a);
  return regulator?.ref ?? null;
}

/**
 * A unit at rest with what readings say of it put in place: the same state, but for controllers whose supply stands below
 * where they stop and converters without a source; its loops closed anew.
 */
export function operateFrom(from: Operation, unit: UnitUnderPower, hertz: ReadonlyMap<number, number>): Operation {
  const state: WorkState = {
    powered: new Set(from.state.powered),
    running: new Set(from.state.running),
    closed: new Set(from.state.closed),
  };
  unit.alternating = from.unit.alternating;
  unit.arrange(state);
  let volts: Float64Array | null = resume(unit, from.unit, from.volts);
  for (const [i, hz] of hertz) unit.cells[i]!.hertz = hz;
  for (let round = 0; round < MOST_STOPS && volts; round++) {
    volts = regulate(unit, state, volts) ?? regulate(unit, state);
    if (!volts || !stops(unit, state, volts)) break;
    unit.arrange(state);
  }
  const states = { ...from.states };
  unit.plan.converters.forEach((c, i) => {
    const ic = controllerOf(unit, c);
    if (ic && from.state.running.has(i) && !state.running.has(i)) states[ic.ref] = 'off';
  });
  const main = mainConverter(unit.plan);
  const stopped = main >= 0 && from.state.running.has(main) && !state.running.has(main);
  return {
    ...from,
    unit,
    found: volts !== null,
    volts: volts ?? from.volts,
    alternating: volts ? alternatingOf(unit, state, volts, unit.faults) : from.alternating,
    state,
    unitState: stopped ? 'off' : from.unitState,
    states,
    warnings: volts ? from.warnings : [...from.warnings, 'No steady state agrees with what was read.'],
  };
}

const MOST_STOPS = 6;

/** Takes out of a state what cannot go on at these volts; true when there was anything. */
function stops(unit: UnitUnderPower, state: WorkState, volts: Float64Array): boolean {
  const before = state.powered.size;
  for (const ic of unit.plan.ics.values()) {
    const stop = supplyThresholds(ic)?.stop;
    const [vcc, ground] = [unit.pin(ic, 'VCC'), unit.ground(ic)];
    if (!state.powered.has(ic.ref) || stop === undefined || vcc < 0 || ground < 0) continue;
    if (volts[vcc]! - volts[ground]! < stop) state.powered.delete(ic.ref);
  }
  const idle = [...state.running].filter((i) => {
    const c = unit.plan.converters[i]!;
    return !hasSource(unit, c, volts) || !starts(unit, state, c, volts);
  });
  for (const i of idle) state.running.delete(i);
  return idle.length > 0 || state.powered.size < before;
}
