import type { Fault } from '../fault';
import { alternatingOf, busVolts, inverterOf } from './alternating';
import type { Alternating } from './alternating';
import { hiccupOf } from './hiccup';
import { controllerOf } from './makeCell';
import { overloadedFuse } from './overload';
import type { Overload } from './overload';
import { relaxationOf } from './relaxation';
import type { Cycle } from './relaxation';
import { isInverter } from './simpleConverter';
import { regulate, resume, solveWithLine } from './steadyState';
import { follow, hasSupply, isEnabled } from './switchOn';
import { UnitUnderPower } from './unit';
import type { WorkState } from './unitCircuit';
import type { OperatingCondition } from './workBoard';
import type { WorkPlan } from './workPlan';

export type ConverterState = 'run' | 'hiccup' | 'off' | 'latched';

/** What came alive together: controllers with their supply, contacts that closed, converters by their place in the plan. */
export interface Round {
  readonly powered: readonly string[];
  readonly closed: readonly string[];
  readonly running: readonly number[];
}

/**
 * A unit in its steady state: mean volts of its nodes, states, the period of a hiccup in seconds. found: whether there is one;
 * volts mean nothing where not.
 */
export interface Operation {
  readonly found: boolean;
  readonly unit: UnitUnderPower;
  readonly volts: Float64Array;
  /** Their highest where a trigger empties a store again and again; null where none does. */
  readonly crests: Float64Array | null;
  readonly alternating: Alternating | null;
  readonly state: WorkState;
  readonly unitState: ConverterState;
  readonly states: Readonly<Record<string, ConverterState>>;
  readonly period: number | null;
  /** Whose supply pin cycles, over how many seconds, for what share of them its converter works. */
  readonly hiccup: { readonly ref: string; readonly period: number; readonly onShare: number } | null;
  /** What came alive in which round after switch-on. */
  readonly rounds: readonly Round[];
  readonly destroys: readonly { readonly ref: string; readonly why: string }[];
  readonly warnings: readonly string[];
}

/**
 * Switches a unit on from nothing, with its load connected, and follows it to its steady state. What cannot last gives
 * way: fuses far beyond their rating blow, the worst first, and the unit is followed without them. near: the same unit in
 * a steady state that is not far (healthy, say), to begin the closing of its loops at.
 */
export function operateUnit(
  plan: WorkPlan,
  condition: OperatingCondition,
  faults: readonly Fault[],
  near: Operation | null = null,
): Operation {
  learnEnables(plan);
  if (plan.usualBus.volts === null && plan.converters.some(isInverter)) learnBus(plan);
  const destroys: { readonly ref: string; readonly why: string }[] = [];
  let all = faults;
  for (;;) {
    let made = operateOnce(plan, condition, all, near);
    // Begun too far away, perhaps: from switch-on it may come to rest.
    if (near && !('blows' in made) && !made.unit.settled) made = operateOnce(plan, condition, all, null);
    if (!('blows' in made)) return { ...made, destroys };
    const { ref, amps, rating } = made.blows;
    destroys.push({
      ref,
      why: `${Number(amps.toPrecision(3))} A through ${ref}, made for ${Number(rating.toPrecision(3))} A`,
    });
    all = [...all, { kind: 'open', ref }];
  }
}

/** One try: the steady state, or the fuse that blows on the way there. */
function operateOnce(
  plan: WorkPlan,
  condition: OperatingCondition,
  faults: readonly Fault[],
  near: Operation | null,
): Operation | { readonly blows: Overload } {
  const unit = new UnitUnderPower(plan, condition, faults);
  const state: WorkState = { powered: new Set(), running: new Set(), closed: new Set() };
  const warnings: string[] = [];
  if (near?.unit.line) unit.line?.resume(near.unit.line);
  let volts = solveWithLine(unit, state, null);
  let alternating: Alternating | null = null;
  let cycle: Cycle | null = null;
  const rounds: Round[] = [];
  for (let round = 0; round < 16 && volts; round++) {
    const blows = overloadedFuse(unit, volts);
    if (blows) return { blows };
    const before = { powered: [...state.powered], closed: [...state.closed], running: [...state.running] };
    if (!follow(unit, state, volts)) break;
    rounds.push({
      powered: [...state.powered].slice(before.powered.length),
      closed: [...state.closed].slice(before.closed.length),
      running: [...state.running].slice(before.running.length),
    });
    unit.arrange(state);
    unit.alternating = null;
    cycle = state.running.size > 0 ? relaxationOf(unit, state, volts) : null;
    // Where converters run that ran before, the loops begin where they were.
    const begun = near && within(state.running, near.state.running) ? resume(unit, near.unit, near.volts) : null;
    volts = cycle ? cycle.volts : (regulate(unit, state, begun) ?? (begun ? regulate(unit, state) : null));
    // The load of an inverter hangs on its bus, and the bus on the load.
    for (let turn = 0; turn < 4 && volts; turn++) {
      alternating = alternatingOf(unit, state, volts, faults);
      const inverter = inverterOf(unit, state);
      if (!alternating || !inverter) break;
      const whole = alternating.watts / INVERTER_EFFICIENCY / Math.max(busVolts(unit, inverter, volts), 1);
      const amps = whole * meanShape(unit, unit.node(inverter.supply));
      const before = unit.alternating?.amps ?? 0;
      unit.alternating = { amps };
      if (Math.abs(amps - before) < 0.002 * amps + 1e-6) break;
      volts = regulate(unit, state, volts);
    }
  }
  let unitHiccup: ConverterState | null = null;
  let found = volts ?? new Float64Array(unit.circuit.nodeNames.length);
  if (cycle) unit.lastDevices = [...unit.devices(state), ...cycle.holds];
  if (!volts) warnings.push('No steady state was found.');
  const states: Record<string, ConverterState> = {};
  for (const [i, c] of plan.converters.entries()) {
    const ic = controllerOf(unit, c);
    if (ic) states[ic.ref] = state.running.has(i) ? 'run' : (states[ic.ref] ?? 'off');
  }
  let period: number | null = null;
  let cycling: Operation['hiccup'] = null;
  const main = mainConverter(plan);
  for (const i of volts ? [...state.running] : []) {
    const hiccup = hiccupOf(unit, state, i, found);
    if (!hiccup) continue;
    if ('sustained' in hiccup) {
      // It was left as if it ran down and does not: followed on from where it lifts itself.
      unit.sustains = true;
      found = regulate(unit, state, hiccup.sustained) ?? found;
      continue;
    }
    found = hiccup.volts;
    states[hiccup.ref] = hiccup.period < Infinity ? 'hiccup' : 'off';
    if (hiccup.period < Infinity) [period, cycling] = [hiccup.period, hiccup];
    if (i === main || hiccup.period === Infinity) unitHiccup = states[hiccup.ref]!;
    state.running.delete(i);
  }
  if (volts && !unit.settled) warnings.push('The loops did not come to rest: volts are those of a moment.');
  return {
    unit,
    volts: found,
    crests: cycle?.high ?? null,
    alternating,
    state,
    unitState: unitHiccup ?? (main < 0 ? 'run' : state.running.has(main) ? 'run' : 'off'),
    states,
    period,
    hiccup: cycling,
    found: volts !== null,
    rounds,
    destroys: [],
    warnings,
  };
}

const within = (a: ReadonlySet<number>, b: ReadonlySet<number>): boolean => a.size > 0 && [...a].every((i) => b.has(i));

/** A bus that follows the mains gives more watts for each ampere of its mean than a smooth one: their ratio, mean² over rms². */
function meanShape({ line }: UnitUnderPower, bus: number): number {
  const [mean, rms] = [line?.result?.mean.get(bus), line?.result?.rms.get(bus)];
  return mean !== undefined && rms !== undefined && rms > mean ? (mean / rms) ** 2 : 1;
}

/** Share of the power that an inverter passes on. */
const INVERTER_EFFICIENCY = 0.97;

/** The bus of an inverter on the healthy unit, which its depth of modulation is made for. */
function learnBus(plan: WorkPlan): void {
  plan.usualBus.volts = plan.inputs.nominal;
  // A bus behind a rectifier stands at its mean under load, a battery's nearly as without.
  const load = plan.mains ? 'full' : 'none';
  const { unit, state, volts } = operateUnit(plan, { source: plan.inputs.nominal, load }, []);
  const inverter = inverterOf(unit, state);
  if (inverter) plan.usualBus.volts = busVolts(unit, inverter, volts);
}

/** The converter that feeds the first output of the nameplate. */
export function mainConverter(plan: WorkPlan): number {
  const rail = plan.outputs[0]?.rail;
  const own = plan.converters.findIndex((c) => rail !== undefined && c.outputs.includes(rail));
  return own >= 0 ? own : plan.converters.length > 0 ? 0 : -1;
}

/**
 * Pins that look like enables and yet stand the wrong way on the healthy unit: they are none. Found once for a plan.
 */
function learnEnables(plan: WorkPlan): void {
  if (plan.enablesKnown.done) return;
  plan.enablesKnown.done = true;
  const unit = new UnitUnderPower(plan, { source: plan.inputs.nominal, load: 'none' }, []);
  for (const c of unit.cells) if (c && c.senseOhms > 0 && c.senseOhms < Infinity) plan.sensed.add(c.converter);
  const state: WorkState = { powered: new Set(), running: new Set(), closed: new Set() };
  let volts = solveWithLine(unit, state, null);
  for (const ic of plan.ics.values()) if (volts && hasSupply(unit, ic, volts)) state.powered.add(ic.ref);
  if (state.powered.size > 0) volts = solveWithLine(unit, state, null);
  if (!volts) return;
  for (const ic of plan.ics.values()) {
    if (!state.powered.has(ic.ref) || isEnabled(unit, ic, volts)) continue;
    const wrong = (ic.roles['EN'] ?? []).filter((at) => !isEnabled(unit, { ...ic, roles: { EN: [at] } }, volts));
    plan.idleEnables.set(ic.ref, new Set(wrong));
  }
}
