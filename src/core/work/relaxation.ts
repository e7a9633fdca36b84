import { isCapacitor } from '../device';
import { oscillates, oscillatorOf } from './blockingOscillator';
import { sheetFact } from '../part';
import type { UnitUnderPower } from './unit';
import type { WorkState } from './unitCircuit';
import { held } from './workDevice';
import type { WorkDevice } from './workDevice';

/** A trigger that fires at some volts and empties what it is made to empty. */
interface Trigger {
  readonly a: number;
  readonly b: number;
  readonly volts: number;
  /** Nodes that are emptied against their other one when it fires. */
  readonly emptied: readonly (readonly [number, number])[];
}

/** Finds the trigger devices of a board whose firing turns a thyristor on. */
function triggersOf(unit: UnitUnderPower): readonly Trigger[] {
  const { plan } = unit;
  return plan.board.parts.flatMap((part, index): Trigger[] => {
    const volts = sheetFact(plan.board.facts, part.ref, 'breakover');
    if (volts === undefined || part.nets.length !== 2) return [];
    const pins = unit.circuit.pins[index]!;
    const [a, b] = [pins[0]!, pins[1]!];
    const thyristor = plan.board.parts.findIndex((p) => p.kind === 'triac' && p.fitted);
    if (thyristor < 0) return [{ a, b, volts, emptied: [] }];
    const [main, back] = [unit.circuit.pins[thyristor]![0]!, unit.circuit.pins[thyristor]![1]!];
    // What the thyristor shorts through a winding: the storage beyond it.
    const beyond = unit.circuit.devices.flatMap((d) =>
      d.model.kind === 'windings' && d.nodes.includes(main)
        ? Array.from({ length: d.model.states }, (_, k) => [d.nodes[2 * k]!, d.nodes[2 * k + 1]!] as const).flatMap(
            ([p, q]) => (p === main ? [q] : q === main ? [p] : []),
          )
        : [],
    );
    return [{ a, b, volts, emptied: [...new Set([main, ...beyond])].map((n) => [n, back] as const) }];
  });
}

/** A cycle of charging and firing: the means over it, and what holds the network there. */
export interface Cycle {
  readonly volts: Float64Array;
  /** The highest of each node. */
  readonly high: Float64Array;
  readonly holds: readonly WorkDevice[];
  readonly period: number;
}

/** Step of time, s. */
const STEP = 10e-3;
const STEPS = 900;
/** Ohm behind which the mean of a capacitor that charges and falls is taken to stand. */
const CYCLE_OHMS = 100e3;

/**
 * Runs a unit whose storage is emptied by a trigger, in time: every capacitor of 10 nF and more follows. Gives the means of
 * the second cycle; null where the trigger never fires.
 */
export function relaxationOf(unit: UnitUnderPower, state: WorkState, start: Float64Array): Cycle | null {
  const triggers = triggersOf(unit);
  if (triggers.length === 0) return null;
  const { circuit } = unit;
  const capacitors = circuit.devices.filter((d) => isCapacitor(d) && circuit.parameters[d.at]! >= 10e-9);
  const working = unit.devices(state);
  const oscillators = [...state.running].flatMap((i) => oscillatorOf(unit, unit.plan.converters[i]!) ?? []);
  // What takes the current of its base away holds an oscillator up until it lets go.
  const resting = unit.devices({ ...state, running: new Set() });
  let x = Float64Array.from(start);
  const mean = new Float64Array(start.length);
  const high = new Float64Array(start.length).fill(-Infinity);
  let [fired, since] = [0, 0];
  for (let s = 0; s < STEPS; s++) {
    const before = x;
    const charged = capacitors.map((d) => {
      const [a, b] = [d.nodes[0]!, d.nodes[1]!];
      return held(d.name, a, b, before[a]! - before[b]!, STEP / circuit.parameters[d.at]!);
    });
    const now = x;
    const works = oscillators.every((o) => s === 0 || oscillates(o, now));
    const next = unit.network([...(works ? working : resting), ...charged]).solve(x);
    if (!next) return null;
    x = next as Float64Array<ArrayBuffer>;
    if (fired === 1) {
      since += STEP;
      for (let i = 0; i < mean.length; i++) {
        mean[i] = mean[i]! + x[i]! * STEP;
        high[i] = Math.max(high[i]!, x[i]!);
      }
    }
    const fires = triggers.find((t) => Math.abs(x[t.a]! - x[t.b]!) >= t.volts);
    if (!fires) continue;
    fired++;
    if (fired === 2) {
      const volts = mean.map((v) => v / since);
      return { volts, high, holds: holdsOf(volts, triggers), period: since };
    }
    x = Float64Array.from(x);
    for (const [n, back] of fires.emptied) x[n] = x[back]!;
    x[fires.a] = x[fires.b]!;
  }
  return null;
}

/** The storage and the trigger's capacitor at their means. */
function holdsOf(volts: Float64Array, triggers: readonly Trigger[]): readonly WorkDevice[] {
  return triggers.flatMap((t) => [
    held('trigger', t.a, t.b, volts[t.a]! - volts[t.b]!, CYCLE_OHMS),
    ...t.emptied.map(([n, back]) => held('storage', n, back, volts[n]! - volts[back]!, 1)),
  ]);
}
