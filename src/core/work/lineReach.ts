import { isCapacitor } from '../device';
import type { Device } from '../device';
import { CHAIN_FARADS, acNodes, endsElsewhere, prune } from './lineGraph';
import type { UnitCircuit } from './unitCircuit';

const WAY_OHMS = 130;
const RAIL_OHMS = 60;
const RESERVOIR_FARADS = 90e-9;

/**
 * What the mains reaches: nodes, the devices on the way, the capacitors that hang there, those of them that pass the mains
 * on to a rectifier in place of a resistor.
 */
export interface LineReach {
  readonly seen: Set<number>;
  readonly found: Set<Device>;
  readonly caps: Set<Device>;
  readonly passing: ReadonlySet<Device>;
}

/** What the mains reaches. closed: contacts that are closed; cut: devices that something else works. */
export function reachLine(
  unit: UnitCircuit,
  live: number,
  neutral: number,
  closed: readonly (readonly [number, number])[],
  cut: ReadonlySet<Device>,
): LineReach {
  const { circuit } = unit;
  const { parameters } = circuit;
  const inCells = new Set(unit.cells.flatMap((c) => (c ? [...c.cell.diodeDevices, ...c.cell.switchDevices] : [])));
  const cellWindings = new Set(unit.cells.flatMap((c) => (c ? [...c.cell.windingDevices] : [])));
  const regulators = new Set(unit.plan.board.parts.flatMap((p) => (p.kind === 'regulator' ? [p.ref] : [])));
  const at = new Map<number, Device[]>();
  for (const d of circuit.devices) {
    if (unit.isInsideIc(d) || regulators.has(d.name)) continue;
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
  const passing = new Set<Device>();
  const ways = new Map<number, number>();
  for (;;) {
    const next = queue.pop() ?? passedOn();
    if (next === undefined) break;
    const [node, way] = next;
    if (seen.has(node)) continue;
    seen.add(node);
    ways.set(node, way);
    for (const [a, b] of closed) if (a === node || b === node) queue.push([a === node ? b : a, way]);
    for (const d of at.get(node) ?? []) {
      const { kind } = d.model;
      if (isCapacitor(d)) {
        if (parameters[d.at]! >= RESERVOIR_FARADS) caps.add(d);
        continue;
      }
      const rail = way !== 0 && unit.isSteady(node);
      const passes =
        (kind === 'resistor' && parameters[d.at]! <= (rail ? RAIL_OHMS : passing.size > 0 ? TAMING_OHMS : WAY_OHMS)) ||
        (kind === 'windings' && !cellWindings.has(d) && (!rail || d.model.states === 1)) ||
        (kind === 'junction' && !inCells.has(d) && (way === 0 || d.nodes[way > 0 ? 0 : 1] === node));
      if (!passes || cut.has(d) || (kind === 'resistor' && loads(d))) continue;
      found.add(d);
      const onward = kind === 'junction' ? (d.nodes[0] === node ? 1 : -1) : way;
      for (const n of d.nodes) queue.push([n, onward]);
    }
  }
  // Others lie beside a way that was found through their rectifier.
  const line = acNodes([live, neutral], [...found, ...passing]);
  for (const d of caps)
    for (const [near, far] of [d.nodes.slice(0, 2), d.nodes.slice(0, 2).reverse()] as [number, number][])
      if (line.has(near) && !line.has(far) && passes(d, near, far)) passing.add(d);
  const beyond = new Set([...passing].flatMap((d) => d.nodes.slice(0, 2)));
  prune(found, (n) => n === live || n === neutral || unit.isSteady(n) || beyond.has(n));
  // Reservoirs in series: what lies between their capacitors belongs to them.
  for (let grown = true; grown;) {
    grown = false;
    for (const d of circuit.devices) {
      if (!isCapacitor(d) || parameters[d.at]! < CHAIN_FARADS || d.nodes.slice(0, 2).every((n) => seen.has(n)))
        continue;
      const [near, far] = seen.has(d.nodes[0]!) ? [d.nodes[0]!, d.nodes[1]!] : [d.nodes[1]!, d.nodes[0]!];
      if (!seen.has(near) || !unit.isSteady(far) || !endsElsewhere(circuit.devices, parameters, far, d, seen)) continue;
      seen.add(far);
      caps.add(d);
      for (const x of at.get(far) ?? []) if (isCapacitor(x) && parameters[x.at]! >= CHAIN_FARADS) caps.add(x);
      grown = true;
    }
  }
  fill(unit, { seen, found, caps }, at, (d) => d.model.kind === 'junction' && !inCells.has(d) && !cut.has(d));
  return { seen, found, caps, passing };

  /** Beyond a capacitor that hangs on the line and leads to a rectifier, the mains goes on. */
  function passedOn(): [number, number] | undefined {
    for (const d of caps) {
      const [a, b] = [d.nodes[0]!, d.nodes[1]!];
      if (seen.has(a) === seen.has(b)) continue;
      const [near, far] = seen.has(a) ? [a, b] : [b, a];
      if (ways.get(near) !== 0 || !passes(d, near, far)) continue;
      passing.add(d);
      return [far, 0];
    }
    return undefined;
  }

  /** Whether a resistor lies across a reservoir: it loads that and leads nowhere. */
  function loads({ nodes }: Device): boolean {
    const [a, b] = [nodes[0]!, nodes[1]!];
    return (at.get(a) ?? []).some(
      (d) => isCapacitor(d) && parameters[d.at]! > MOST_PASSING && d.nodes.slice(0, 2).every((n) => n === a || n === b),
    );
  }

  /** Whether a capacitor passes the mains on from a node: no reservoir, nor beside one, and a rectifier beyond. */
  function passes(d: Device, near: number, far: number): boolean {
    const reservoir = (x: Device): boolean => isCapacitor(x) && parameters[x.at]! > MOST_PASSING;
    return !reservoir(d) && !(at.get(far) ?? []).some(reservoir) && rectifiesSoon(far, near);
  }

  /** Whether a node has a diode, itself or behind a resistor that only tames a rush. */
  function rectifiesSoon(node: number, from: number, deep = 1): boolean {
    return (at.get(node) ?? []).some((d) => {
      if (d.model.kind === 'junction') return !inCells.has(d) && !d.nodes.includes(from);
      if (d.model.kind !== 'resistor' || deep === 0 || parameters[d.at]! > TAMING_OHMS || d.nodes.includes(from))
        return false;
      return rectifiesSoon(d.nodes[0] === node ? d.nodes[1]! : d.nodes[0]!, from, deep - 1);
    });
  }
}

/** A capacitor that passes the mains on is no greater, farad. */
const MOST_PASSING = 6e-6;
/** A resistor behind a capacitor that passes the mains on is no more than this. */
const TAMING_OHMS = 1200;

/**
 * Capacitors that fill the valleys of the mains: charged in series, discharged side by side. Each hangs with one end on the
 * rectified mains, with a diode to the other rail at its far end; diodes and small resistors lead from one far end to the next.
 */
function fill(
  unit: UnitCircuit,
  { seen, found, caps }: Omit<LineReach, 'passing'>,
  at: ReadonlyMap<number, readonly Device[]>,
  rectifies: (d: Device) => boolean,
): void {
  const { devices, parameters } = unit.circuit;
  const ends = new Map<number, readonly [Device, Device]>();
  for (const d of devices) {
    if (!isCapacitor(d) || parameters[d.at]! < CHAIN_FARADS) continue;
    const [near, far] = seen.has(d.nodes[0]!) ? [d.nodes[0]!, d.nodes[1]!] : [d.nodes[1]!, d.nodes[0]!];
    if (!seen.has(near) || seen.has(far) || !unit.isSteady(far)) continue;
    const back = (at.get(far) ?? []).find(
      (x) => rectifies(x) && x.nodes.slice(0, 2).some((n) => n !== far && n !== near && seen.has(n)),
    );
    if (!back) continue;
    ends.set(far, [d, back]);
  }
  const joins = new Set<Device>();
  const grow = (from: number, gone: ReadonlySet<number>): boolean => {
    let leads = false;
    for (const d of at.get(from) ?? []) {
      const small = d.model.kind === 'resistor' && parameters[d.at]! <= FILL_OHMS;
      if (!(small || rectifies(d)) || found.has(d)) continue;
      const to = d.nodes[0] === from ? d.nodes[1]! : d.nodes[0]!;
      if (seen.has(to) || gone.has(to)) continue;
      if (!ends.has(to) && (gone.size > FILL_PARTS || !grow(to, new Set([...gone, from])))) continue;
      joins.add(d);
      leads = true;
    }
    return leads;
  };
  for (const [far, [capacitor, back]] of ends) {
    if (!grow(far, new Set([far]))) continue;
    caps.add(capacitor);
    found.add(back);
  }
  for (const d of joins) found.add(d);
  for (const d of joins) for (const n of d.nodes) seen.add(n);
}

/** A resistor that tames the charging current of a valley fill is no more than this; so many parts lie in a chain. */
const FILL_OHMS = 220;
const FILL_PARTS = 4;
