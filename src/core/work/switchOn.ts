import { sheetFact } from '../part';
import type { PowerConverter } from '../stages';
import { oscillates, oscillatorOf } from './blockingOscillator';
import { royerOf, royerStarts } from './royer';
import { isSimple } from './simpleConverter';
import type { UnitUnderPower } from './unit';
import type { WorkState } from './unitCircuit';
import type { WorkIc } from './workPlan';

/** Supplies, enables and relays by the volts of a solution; true when anything changed. */
export function follow(unit: UnitUnderPower, state: WorkState, volts: Float64Array): boolean {
  const { plan } = unit;
  let changed = false;
  const ready = [...plan.ics.values()].filter((ic) => !state.powered.has(ic.ref) && hasSupply(unit, ic, volts));
  for (const ic of ready) {
    // A supply pin that charges passes the lower threshold first: what starts there may never let it reach the next.
    const start = ic.facts['vccStart'];
    const vcc = unit.pin(ic, 'VCC');
    const sooner = ready.some(
      (x) => x !== ic && vcc >= 0 && unit.pin(x, 'VCC') === vcc && (x.facts['vccStart'] ?? 0) < (start ?? 0),
    );
    if (sooner) continue;
    state.powered.add(ic.ref);
    changed = true;
  }
  if (changed) return true;
  plan.board.parts.forEach((part) => {
    if (part.kind !== 'relay' || !part.fitted || state.closed.has(part.ref)) return;
    const pins = unit.pinsOf(part.ref);
    const coil = Math.abs(volts[pins[0]!]! - volts[pins[1]!]!);
    const needs = sheetFact(plan.board.facts, part.ref, 'coilOn') ?? 6;
    if (coil < needs) return;
    state.closed.add(part.ref);
    changed = true;
  });
  if (changed) return true;
  plan.converters.forEach((c, i) => {
    if (state.running.has(i) || (!unit.cells[i] && !isSimple(c))) return;
    if (!hasSource(unit, c, volts) || !starts(unit, state, c, volts)) return;
    state.running.add(i);
    changed = true;
  });
  return changed;
}

/** Whether a converter that has a source works: one that drives itself by its own parts, others by what drives them. */
export function starts(unit: UnitUnderPower, state: WorkState, c: PowerConverter, volts: Float64Array): boolean {
  if (c.topology === 'blocking-oscillator') {
    const oscillator = oscillatorOf(unit, c);
    return oscillator !== null && oscillates(oscillator, volts);
  }
  if (c.topology === 'royer') {
    const royer = royerOf(unit, c);
    return royer !== null && royerStarts(royer, volts);
  }
  const refs = new Set([...(c.controller === null ? [] : [c.controller]), ...c.drivers]);
  const ics = [...refs].flatMap((ref) => unit.plan.ics.get(ref) ?? []);
  return ics.length > 0 && ics.every((x) => state.powered.has(x.ref) && isEnabled(unit, x, volts));
}

/** Whether there is anything for a converter to work on. */
export function hasSource(unit: UnitUnderPower, c: PowerConverter, volts: Float64Array): boolean {
  const supply = unit.node(c.supply);
  if (supply < 0) return true;
  const low = c.switches.find((s) => s.side !== 'top')?.low;
  const ground = low === undefined ? 0 : (volts[unit.node(low)] ?? 0);
  return Math.abs(volts[supply]! - ground) > LEAST_SOURCE;
}

const LEAST_SOURCE = 1;

/** Volts from which a part on a rail works, where no data sheet tells. */
const RAIL_WORKS = 2.3;

export function hasSupply(unit: UnitUnderPower, ic: WorkIc, volts: Float64Array): boolean {
  const ground = unit.ground(ic);
  const pin = [unit.pin(ic, 'VCC'), unit.pin(ic, 'VIN'), unit.pin(ic, 'DRAIN')].find((n) => n >= 0);
  if (pin === undefined || ground < 0) return false;
  return volts[pin]! - volts[ground]! >= (ic.facts['vccStart'] ?? RAIL_WORKS);
}

/** Whether no pin of an integrated circuit forbids it to work. */
export function isEnabled(unit: UnitUnderPower, ic: WorkIc, volts: Float64Array): boolean {
  const { facts } = ic;
  const ground = unit.ground(ic);
  const on = facts['enableOn'] ?? facts['enableOff'];
  const off = facts['enableOff'] ?? facts['enableOn'];
  const uv = facts['uvOn'] ?? facts['uvOff'];
  const pins = unit.circuit.pins[ic.index]!;
  return (ic.roles['EN'] ?? []).every((at, k) => {
    if (unit.plan.idleEnables.get(ic.ref)?.has(at)) return true;
    const v = volts[pins[at]!]! - volts[ground]!;
    if (uv !== undefined && (on === undefined || k > 0)) return v >= uv;
    if (on === undefined || off === undefined) return true;
    return on < off ? v <= on : v >= on;
  });
}
