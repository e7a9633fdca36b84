import type { PowerConverter } from '../stages';
import { controllerOf } from './makeCell';
import { halfOf } from './simpleConverter';
import { WIRE_OHMS } from './unit';
import type { UnitUnderPower } from './unit';
import type { WorkState } from './unitCircuit';
import { held, resistance } from './workDevice';
import type { WorkDevice } from './workDevice';

/** A guess of the mean volts: outputs at their nameplate's, supplies at what the source gives. */
export function firstGuess(unit: UnitUnderPower, state: WorkState): Float64Array {
  const relays = unit.plan.board.parts.flatMap((p) => (p.kind === 'relay' ? [p.ref] : []));
  const idle: WorkState = { ...state, running: new Set(), closed: new Set(relays) };
  const more = unit.plan.outputs.flatMap((o) => {
    const [a, b] = [unit.node(o.rail), unit.node(o.return)];
    return o.kind === 'dc' && a >= 0 && b >= 0 ? [held('guess', a, b, o.volts, 0.1)] : [];
  });
  for (const c of unit.plan.converters) more.push(...regulatedGuess(unit, c));
  for (const c of unit.plan.converters) {
    const low = c.switches.find((s) => s.side === 'bottom')?.low;
    if (!c.topology.endsWith('bridge') || low === undefined) continue;
    for (const n of c.nodes) more.push(halfOf('guess', unit.node(n), unit.node(c.supply), unit.node(low)));
  }
  const solved = (held: readonly WorkDevice[]): Float64Array | null =>
    unit.network([...unit.devices(idle), ...held]).solve();
  const first = solved(more) ?? solved([]);
  const supplies: WorkDevice[] = [];
  for (const ic of unit.plan.ics.values()) {
    const [vcc, ground] = [unit.pin(ic, 'VCC'), unit.ground(ic)];
    const { vccStart, vccStop } = ic.facts;
    if (vcc < 0 || ground < 0 || vccStart === undefined || !unit.isSteady(vcc)) continue;
    if (first && first[vcc]! - first[ground]! > (vccStop ?? vccStart)) continue;
    supplies.push(held('guess', vcc, ground, (vccStart + (vccStop ?? vccStart)) / 2, 1));
  }
  const x =
    (supplies.length > 0 ? (solved([...more, ...supplies]) ?? first) : first) ??
    new Float64Array(unit.circuit.nodeNames.length);
  // What rides on a swinging node is charged through its diode while that node is low.
  for (const d of unit.circuit.devices) {
    const [from, to] = [d.nodes[0]!, d.nodes[1]!];
    if (d.model.kind !== 'junction' || !unit.isSteady(from)) continue;
    const under = [...unit.plan.riding].find(([net]) => unit.node(net) === to)?.[1];
    if (under !== undefined) x[to] = x[unit.node(under)]! + Math.max(x[from]! - 0.6, 0);
  }
  // A clamp stands above its rail by about what the winding throws back.
  for (const running of unit.cells) {
    if (!running) continue;
    const supply = unit.node(running.converter.supply);
    const ground = running.converter.switches[0] ? x[unit.node(running.converter.switches[0].low)]! : 0;
    for (const { nodes } of running.cell.diodeDevices) {
      const to = nodes[1]!;
      if (unit.isSteady(to) && to !== supply && Math.abs(x[to]! - x[supply]!) < 1)
        x[to] = x[to]! + 0.45 * Math.abs(x[supply]! - ground);
    }
  }
  return x;
}

/** What a pin sees of a rail over resistors alone, both against a ground: a share. */
export function shareAt(unit: UnitUnderPower, rail: number, pin: number, ground: number): number {
  const { circuit } = unit;
  const resistors = circuit.devices.flatMap((d) =>
    d.model.kind === 'resistor'
      ? [resistance(d.name, d.nodes[0]!, d.nodes[1]!, Math.max(circuit.parameters[d.at]!, WIRE_OHMS))]
      : [],
  );
  const x = unit.network([...resistors, held('one', rail, ground, 1, 1e-3)]).solve();
  return x ? x[pin]! - x[ground]! : 0;
}

/** The rail that a feedback pin divides down, held where the pin is content. */
function regulatedGuess(unit: UnitUnderPower, c: PowerConverter): readonly WorkDevice[] {
  const ic = controllerOf(unit, c);
  const reference = ic?.facts['fbRef'];
  if (!ic || reference === undefined) return [];
  const [fb, ground] = [unit.pin(ic, 'FB'), unit.ground(ic)];
  if (fb < 0 || ground < 0) return [];
  for (const net of c.outputs) {
    const node = unit.node(net);
    if (node < 0 || !unit.isSteady(node) || unit.plan.outputs.some((o) => o.rail === net)) continue;
    const share = shareAt(unit, node, fb, ground);
    if (share > 1e-3 && share < 1) return [held('guess', node, ground, reference / share, 0.1)];
  }
  return [];
}
