import type { Device } from '../device';
import { CHAIN_FARADS, endsElsewhere, prune } from './lineGraph';
import type { UnitCircuit } from './unitCircuit';

const WAY_OHMS = 130;
const RAIL_OHMS = 60;
const RESERVOIR_FARADS = 90e-9;

/**
 * What the mains reaches: nodes, the devices on the way, the capacitors that hang there. closed: contacts that are closed;
 * cut: devices that something else works.
 */
export function reachLine(
  unit: UnitCircuit,
  live: number,
  neutral: number,
  closed: readonly (readonly [number, number])[],
  cut: ReadonlySet<Device>,
): { readonly seen: Set<number>; readonly found: Set<Device>; readonly caps: Set<Device> } {
  const { circuit } = unit;
  const { parameters } = circuit;
  const inCells = new Set(unit.cells.flatMap((c) => (c ? [...c.cell.diodeDevices, ...c.cell.switchDevices] : [])));
  const cellWindings = new Set(unit.cells.flatMap((c) => (c ? [...c.cell.windingDevices] : [])));
  const at = new Map<number, Device[]>();
  for (const d of circuit.devices) {
    const slash = d.name.indexOf('/');
    if (slash > 0 && unit.plan.ics.has(d.name.slice(0, slash))) continue;
    for (const n of d.nodes) at.set(n, [...(at.get(n) ?? []), d]);
  }
  const seen = new Set<number>();
  const found = new Set<Device>();
  // Nodes with the way that current takes from the line: +1 out of it, -1 back into it, 0 either.
  const queue: [number, number][] = [
    [live, 0],
    [neutral, 0],
  ];
  const caps = new Set<Device>();
  for (let next = queue.pop(); next !== undefined; next = queue.pop()) {
    const [node, way] = next;
    if (seen.has(node)) continue;
    seen.add(node);
    for (const [a, b] of closed) if (a === node || b === node) queue.push([a === node ? b : a, way]);
    for (const d of at.get(node) ?? []) {
      const { kind } = d.model;
      if (kind === 'capacitor' || kind === 'lossy-capacitor') {
        if (parameters[d.at]! >= RESERVOIR_FARADS) caps.add(d);
        continue;
      }
      const rail = way !== 0 && unit.isSteady(node);
      const passes =
        (kind === 'resistor' && parameters[d.at]! <= (rail ? RAIL_OHMS : WAY_OHMS)) ||
        (kind === 'windings' && !cellWindings.has(d) && (!rail || d.model.states === 1)) ||
        (kind === 'junction' && !inCells.has(d) && (way === 0 || d.nodes[way > 0 ? 0 : 1] === node));
      if (!passes || cut.has(d)) continue;
      found.add(d);
      const onward = kind === 'junction' ? (d.nodes[0] === node ? 1 : -1) : way;
      for (const n of d.nodes) queue.push([n, onward]);
    }
  }
  prune(found, (n) => n === live || n === neutral || unit.isSteady(n));
  // Reservoirs in series: what lies between their capacitors belongs to them.
  for (let grown = true; grown;) {
    grown = false;
    for (const d of circuit.devices) {
      if (d.model.kind !== 'capacitor' && d.model.kind !== 'lossy-capacitor') continue;
      if (parameters[d.at]! < CHAIN_FARADS || d.nodes.slice(0, 2).every((n) => seen.has(n))) continue;
      const [near, far] = seen.has(d.nodes[0]!) ? [d.nodes[0]!, d.nodes[1]!] : [d.nodes[1]!, d.nodes[0]!];
      if (!seen.has(near) || !unit.isSteady(far) || !endsElsewhere(circuit.devices, parameters, far, d, seen)) continue;
      seen.add(far);
      caps.add(d);
      for (const x of at.get(far) ?? [])
        if (x.model.kind.endsWith('capacitor') && parameters[x.at]! >= CHAIN_FARADS) caps.add(x);
      grown = true;
    }
  }
  return { seen, found, caps };
}
