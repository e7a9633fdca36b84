import { isCapacitor } from '../device';
import { solveWithLine } from './steadyState';
import { hasSupply } from './switchOn';
import { UnitUnderPower } from './unit';
import type { Operation } from './operate';
import type { WorkState } from './unitCircuit';
import type { OperatingCondition } from './workBoard';
import { held, meanDevice, resistance } from './workDevice';
import type { WorkDevice } from './workDevice';
import type { WorkPlan } from './workPlan';

/** A supply that its own part draws down to this share of itself comes through a resistor. */
const DRAWN_DOWN = 0.6;

const nothingRuns = (): WorkState => ({ powered: new Set(), running: new Set(), closed: new Set() });

/**
 * A unit with its source on and nothing at work: before its converters start, or while they are held off. A direct source of
 * negative volts is one that was connected the wrong way round. near: a like unit at rest, to begin at. null where no solution is
 * found.
 */
export function unitAtRest(
  plan: WorkPlan,
  condition: OperatingCondition,
  near: Operation | null = null,
): Operation | null {
  const unit = new UnitUnderPower(plan, condition, []);
  if (near?.unit.line) unit.line?.resume(near.unit.line);
  const refs = new Set(plan.converters.flatMap((c) => c.switches.flatMap((s) => s.refs)));
  const { devices } = unit.circuit;
  unit.heldOff = new Set(devices.filter((d) => refs.has(d.name) && d.model.kind !== 'junction'));
  const state = nothingRuns();
  const before = solveWithLine(unit, state, null);
  if (!before) return null;
  // What lives from a resistor draws its supply down to where it starts; on a rail it makes no odds, and may be held off.
  for (const ic of plan.ics.values()) if (hasSupply(unit, ic, before)) state.powered.add(ic.ref);
  if (state.powered.size === 0) return resting(unit, state, before);
  const drawn = solveWithLine(unit, state, before);
  if (!drawn) return null;
  const supply = (ref: string, x: Float64Array): number => {
    const ic = plan.ics.get(ref)!;
    return x[unit.pin(ic, 'VCC')]! - x[unit.ground(ic)]!;
  };
  const lives = [...state.powered].filter((ref) => supply(ref, drawn) < DRAWN_DOWN * supply(ref, before));
  if (lives.length === state.powered.size) return resting(unit, state, drawn);
  state.powered.clear();
  for (const ref of lives) state.powered.add(ref);
  const volts = solveWithLine(unit, state, before);
  return volts && resting(unit, state, volts);
}

const resting = (unit: UnitUnderPower, state: WorkState, volts: Float64Array): Operation => ({
  found: true,
  unit,
  volts,
  crests: null,
  alternating: null,
  state,
  unitState: 'off',
  states: {},
  period: null,
  hiccup: null,
  rounds: [],
  destroys: [],
  warnings: [],
});

/** A capacitor of this and more is a short at the moment of switching on, farad. */
const EMPTY_STORE = 4.7e-6;
const SHORT_OHMS = 0.02;

/**
 * A unit at the moment of switching on, at the crest of its source: its stores are empty and show nothing. Mean volts are those
 * of that moment. null where no solution is found.
 */
export function unitAtSwitchOn(plan: WorkPlan, condition: OperatingCondition): Operation | null {
  const unit = new UnitUnderPower(plan, condition, []);
  const { circuit } = unit;
  const { rail, return: back } = plan.inputs;
  if (rail === null || back === null) return null;
  const crest = plan.mains ? Math.SQRT2 * condition.source : condition.source;
  const devices = circuit.devices.flatMap((d): WorkDevice[] => {
    const [a, b] = [d.nodes[0]!, d.nodes[1]!];
    if (unit.isInsideIc(d)) return [];
    if (isCapacitor(d)) return circuit.parameters[d.at]! >= EMPTY_STORE ? [resistance(d.name, a, b, SHORT_OHMS)] : [];
    if (d.model.kind === 'resistor') return [resistance(d.name, a, b, Math.max(circuit.parameters[d.at]!, 1e-3))];
    if (d.model.kind === 'windings')
      return Array.from({ length: d.model.states }, (_, k) =>
        resistance(d.name, d.nodes[2 * k]!, d.nodes[2 * k + 1]!, Math.max(circuit.parameters[d.at + k]!, 1e-3)),
      );
    return d.model.kind.endsWith('source') ? [] : [meanDevice(d, circuit.parameters)];
  });
  const list = [...devices, held('source', unit.node(rail), unit.node(back), crest, SHORT_OHMS)];
  const volts = unit.network(list).solve();
  if (!volts) return null;
  unit.line = null;
  unit.lastDevices = list;
  return resting(unit, nothingRuns(), volts);
}
