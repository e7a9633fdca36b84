import type { PowerSwitch } from '../stages';
import { held, heldUp, passRegulator, sink, twoPole } from './workDevice';
import type { WorkDevice } from './workDevice';
import { isInverter } from './simpleConverter';
import type { RunningCell, UnitCircuit, WorkState } from './unitCircuit';
import type { WorkIc } from './workPlan';

/** What a controller draws where no data sheet tells, ampere: at work, and before. */
const USUAL_RUN = 0.003;
const USUAL_SWITCHER = 0.6e-3;
const USUAL_START = 50e-6;

/** What an integrated circuit does at its pins: draws, holds, pulls up, drives. */
export function icDevices(unit: UnitCircuit, ic: WorkIc, state: WorkState): readonly WorkDevice[] {
  const ground = unit.ground(ic);
  if (ground < 0) return [];
  const { facts, ref } = ic;
  const powered = state.powered.has(ref);
  const list: WorkDevice[] = [];
  const [vcc, vin] = [unit.pin(ic, 'VCC'), unit.pin(ic, 'VIN')];
  const drain = unit.pin(ic, 'DRAIN');
  const usual = drain >= 0 ? USUAL_SWITCHER : USUAL_RUN;
  const amps = powered ? (facts['iRun'] ?? usual) : (facts['iStart'] ?? USUAL_START);
  const { vccOut } = facts;
  const from = vin >= 0 ? vin : drain;
  if (vccOut !== undefined && vcc >= 0 && from >= 0) {
    list.push(
      passRegulator(`${ref} supply`, [from, ground, vcc], vccOut, 0.1, 0),
      sink(`${ref} draws`, vcc, ground, amps),
    );
    // What more comes in from outside it takes as its own supply.
    list.push(twoPole(`${ref} own`, vcc, ground, (v) => (v > vccOut + 0.02 ? [(v - vccOut - 0.02) / 5, 0.2] : [0, 0])));
  } else if (vcc >= 0 || vin >= 0) list.push(sink(`${ref} supply`, vcc >= 0 ? vcc : vin, ground, amps));
  const hv = unit.pin(ic, 'HV');
  const pushed = facts['iStartSource'];
  if (pushed !== undefined && hv >= 0 && vcc >= 0 && !powered)
    list.push(twoPole(`${ref} start`, hv, vcc, (v) => (v > 5 ? [pushed, 1e-9] : [(pushed * v) / 5, pushed / 5])));
  const pins = unit.circuit.pins[ic.index]!;
  if (powered) {
    const reference = unit.pin(ic, 'VOUT');
    if (facts['vRef'] !== undefined)
      for (const at of ic.roles['VOUT'] ?? [])
        if (reference >= 0) list.push(heldUp(`${ref} reference`, pins[at]!, ground, facts['vRef'], 2));
    const fb = unit.pin(ic, 'FB');
    if (facts['fbPullup'] !== undefined && fb >= 0)
      list.push(held(`${ref} pull-up`, fb, ground, facts['fbRail'] ?? 5, facts['fbPullup']));
    for (const [key, volts] of Object.entries(facts)) {
      const number = /^pin(\d+)$/u.exec(key)?.[1];
      const node = number === undefined ? undefined : pins[Number(number) - 1];
      if (node !== undefined) list.push(held(`${ref} pin ${number}`, node, ground, volts, 50));
    }
  }
  list.push(...drives(unit, ic, state, ground));
  return list;
}

/** The cells of the running converters that an integrated circuit controls or drives. */
export function cellsDrivenBy(unit: UnitCircuit, state: WorkState, ic: WorkIc): readonly RunningCell[] {
  return [...state.running].flatMap((i) => {
    const running = unit.cells[i];
    const c = unit.plan.converters[i]!;
    return running && (c.controller === ic.ref || c.drivers.includes(ic.ref)) ? [running] : [];
  });
}

/** Outputs to gates at the mean of their pulses, and the output of an error amplifier. */
function drives(unit: UnitCircuit, ic: WorkIc, state: WorkState, ground: number): readonly WorkDevice[] {
  const list: WorkDevice[] = [];
  const pins = unit.circuit.pins[ic.index]!;
  const own = cellsDrivenBy(unit, state, ic);
  const [running] = own;
  const legs = [...state.running].find((i) => {
    const c = unit.plan.converters[i]!;
    return isInverter(c) && (c.controller === ic.ref || c.drivers.includes(ic.ref));
  });
  const factor = powerFactorRails(unit, ic, state);
  const duty = running?.result?.duty ?? (legs === undefined ? 0 : legDuty(unit, legs));
  if (own.length > 0 || legs !== undefined || state.powered.has(ic.ref)) {
    const upper = gatesOf(unit, (s) => s.side === 'top');
    const inverted = gatesOf(unit, (s) => s.refs.some((ref) => turnsOnLow(unit, ref)));
    for (const at of ic.roles['GATE'] ?? []) {
      const out = pins[at]!;
      const rides = unit.pin(ic, 'SW');
      const supply = drivePin(unit, ic);
      const share = inverted.has(out) ? 1 - duty : duty;
      if (factor) list.push(factorDrive(`${ic.ref} drive`, out, supply, ground, factor));
      else if (!upper.has(out) || inverted.has(out)) list.push(driveOf(`${ic.ref} drive`, out, supply, ground, share));
      else if (rides >= 0) list.push(driveOf(`${ic.ref} drive`, out, unit.pin(ic, 'BST'), rides, duty));
    }
  }
  const comp = unit.pin(ic, 'COMP');
  if (running && comp >= 0 && ic.facts['fbRef'] !== undefined) {
    const sensed = Number.isFinite(running.senseOhms) ? (running.result?.top ?? 0) * running.senseOhms : 0;
    const csMax = Math.abs(ic.facts['csMax'] ?? 1);
    list.push(held(`${ic.ref} comp`, comp, ground, 1.4 + 3 * Math.min(sensed, csMax), 100));
  }
  return list;
}

/** Rectified mains, rail and return of a power-factor stage that a controller drives and that runs; null of others. */
function powerFactorRails(unit: UnitCircuit, ic: WorkIc, state: WorkState): readonly [number, number, number] | null {
  for (const i of state.running) {
    const c = unit.plan.converters[i]!;
    if (c.topology !== 'boost-pfc' || (c.controller !== ic.ref && !c.drivers.includes(ic.ref))) continue;
    const [fed, out, low] = [c.supply, c.outputs[0], c.switches[0]?.low].map((n) =>
      n === undefined ? -1 : unit.node(n),
    );
    return fed! >= 0 && out! >= 0 && low! >= 0 ? [fed!, out!, low!] : null;
  }
  return null;
}

/** The drive of a stage that steps the rectified mains up: on for what its mean lacks of the rail. */
function factorDrive(
  name: string,
  out: number,
  supply: number,
  ground: number,
  [fed, rail, low]: readonly [number, number, number],
): WorkDevice {
  const siemens = 1 / DRIVE_OHMS;
  return {
    name,
    nodes: [out, ground, supply < 0 ? ground : supply, fed, rail, low],
    joins: [[out, ground]],
    evaluate(x, flow, slope) {
      const share = Math.min(Math.max(1 - (x[3]! - x[5]!) / Math.max(x[4]! - x[5]!, 1), 0), 1);
      flow.fill(0);
      slope.fill(0);
      flow[0] = siemens * (x[0]! - x[1]! - share * (supply < 0 ? 12 : x[2]! - x[1]!));
      flow[1] = -flow[0];
      slope[0] = slope[7] = siemens;
      slope[1] = slope[6] = -siemens;
    },
  };
}

/** Share of the time that one switch of an inverter's leg conducts: half, less the pause. */
function legDuty(unit: UnitCircuit, index: number): number {
  const c = unit.plan.converters[index]!;
  const told = (key: string): number =>
    [c.controller, ...c.drivers]
      .map((ref) => (ref === null ? undefined : unit.plan.ics.get(ref)?.facts[key]))
      .find((v) => v !== undefined) ?? 0;
  const [pause, hertz] = [told('deadTime'), told('fSwitch')];
  return 0.5 - pause * hertz;
}

/** Whether a switch conducts while its gate stands low: a P-channel, or a PNP. */
function turnsOnLow({ circuit }: UnitCircuit, ref: string): boolean {
  return circuit.devices.some(
    (d) =>
      d.name === ref && (d.model.kind === 'channel' || d.model.kind === 'transistor') && circuit.parameters[d.at]! < 0,
  );
}

/** Nodes that drive some switches: their gates and what a small resistor joins to them. */
function gatesOf(unit: UnitCircuit, which: (s: PowerSwitch) => boolean): ReadonlySet<number> {
  const gates = new Set(
    unit.plan.converters.flatMap((c) =>
      c.switches.flatMap((s) => (which(s) ? s.refs.map((ref) => unit.pinsOf(ref)[1]!) : [])),
    ),
  );
  return withGateResistors(unit, gates);
}

/** The supply pin of what an integrated circuit drives with; -1 where it has none. */
export function drivePin(unit: UnitCircuit, ic: WorkIc): number {
  const vcc = unit.pin(ic, 'VCC');
  return vcc >= 0 ? vcc : unit.pin(ic, 'VIN');
}

/** Gates and the nodes that a small resistor joins to them. */
export function withGateResistors(unit: UnitCircuit, gates: ReadonlySet<number>): ReadonlySet<number> {
  const near = new Set(gates);
  for (const d of unit.circuit.devices) {
    if (d.model.kind !== 'resistor' || unit.circuit.parameters[d.at]! > GATE_OHMS) continue;
    if (d.nodes.some((n) => gates.has(n))) for (const n of d.nodes) near.add(n);
  }
  return near;
}

const GATE_OHMS = 500;

/** Ohm of an output that drives a gate. */
const DRIVE_OHMS = 20;

/** An output that stands at a share of its supply in the mean. */
function driveOf(name: string, out: number, supply: number, ground: number, share: number): WorkDevice {
  if (supply < 0) return held(name, out, ground, 12 * share, DRIVE_OHMS);
  return {
    name,
    nodes: [out, supply, ground],
    joins: [[out, ground]],
    linear: true,
    evaluate(x, flow, slope) {
      const g = 1 / DRIVE_OHMS;
      slope.fill(0);
      slope[0] = g;
      slope[1] = -g * share;
      slope[2] = -g * (1 - share);
      for (let j = 0; j < 3; j++) slope[6 + j] = -slope[j]!;
      flow[0] = g * (x[0]! - x[2]! - share * (x[1]! - x[2]!));
      flow[1] = 0;
      flow[2] = -flow[0];
    },
  };
}
