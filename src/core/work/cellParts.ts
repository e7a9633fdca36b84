import type { Device } from '../device';
import type { CellPlan } from './cellPlan';
import type { SwitchedCircuit, SwitchedDiode, SwitchedSwitch } from './switched';

/** Resistors up to this are part of the switching. */
const CELL_OHMS = 300;

/**
 * The inductances of a core with the couplings that nobody wrote down: two windings that are both coupled to a third one
 * are coupled by the product, or the core would give energy from nothing.
 */
export function coupled(henries: Float64Array, count: number): readonly number[] {
  const full = Array.from(henries);
  const factor = (i: number, j: number): number =>
    henries[i * count + j]! / Math.sqrt(henries[i * count + i]! * henries[j * count + j]!);
  for (let i = 0; i < count; i++)
    for (let j = 0; j < count; j++) {
      if (i === j || henries[i * count + j] !== 0) continue;
      let best = 0;
      for (let k = 0; k < count; k++) {
        const product = k === i || k === j ? 0 : factor(i, k) * factor(k, j);
        if (Math.abs(product) > Math.abs(best)) best = product;
      }
      full[i * count + j] = best * Math.sqrt(henries[i * count + i]! * henries[j * count + j]!);
    }
  return full;
}

/** The ends of a diode, or of a switch in the way of its current: a P-channel carries it from source to drain. */
export function endsOf({ model, nodes, at }: Device, parameters: Float64Array): readonly [number, number] {
  if (model.kind === 'junction') return [nodes[0]!, nodes[1]!];
  return model.kind === 'channel' && parameters[at]! < 0 ? [nodes[2]!, nodes[0]!] : [nodes[0]!, nodes[2]!];
}

/** What each switch is to volts beyond those that it bears: a diode that opens there. */
export function avalanches(
  switches: readonly SwitchedSwitch[],
  devices: readonly Device[],
  plan: CellPlan,
): readonly SwitchedDiode[] {
  return switches.map(({ name, high, low }, i) => ({
    name,
    a: high,
    k: low,
    volts: plan.bears(devices[i]!),
    ohms: Math.max((plan.bears(devices[i]!) / AVALANCHE_VOLTS) ** 2, 0.02),
  }));
}

/** A switch that bears so many volts adds an ohm where it gives way: one of the same size for less carries more. */
const AVALANCHE_VOLTS = 212;

/** Whether any state is another one. */
export const differ = (a: readonly boolean[], b: readonly boolean[]): boolean => a.some((v, i) => v !== b[i]);

/** All that tells one cell from another one. */
export function figuresOf(
  { resistors, windings, switches, unknowns, diodes }: SwitchedCircuit,
  inputs: number,
  diodeDevices: readonly Device[],
  parameters: Float64Array,
): readonly number[] {
  return [
    unknowns,
    inputs,
    diodes.length,
    ...resistors.map((r) => r.ohms),
    ...windings.flatMap((w) => [...w.ohms, ...w.henries]),
    ...switches.map((s) => s.ohms),
    ...diodeDevices.flatMap((d) => [...parameters.subarray(d.at, d.at + 3)]),
  ];
}

/** Ohm of a conducting switch: a channel at 10 V of gate, or a saturated transistor. */
export function onOhms(d: Device, parameters: Float64Array): number {
  if (d.model.kind !== 'channel') return 0.1;
  const [, threshold, kp, ron] = parameters.subarray(d.at, d.at + 4);
  return Math.max(ron! + 1 / (kp! * Math.max(10 - threshold!, 2)), 1e-3);
}

/** The devices of a cell: what is reached from its switches without crossing a node that stands. */
export function reach(
  devices: readonly Device[],
  parameters: Float64Array,
  power: readonly Device[],
  plan: CellPlan,
  swings: (node: number) => boolean,
): readonly Device[] {
  const at = new Map<number, Device[]>();
  const powerSet = new Set(power);
  for (const d of devices) {
    const { kind } = d.model;
    const counts =
      powerSet.has(d) ||
      (kind === 'junction' && !plan.aside.has(d)) ||
      (kind === 'windings' && !plan.aside.has(d)) ||
      (kind === 'resistor' && parameters[d.at]! <= CELL_OHMS && !plan.aside.has(d));
    if (!counts) continue;
    for (const n of d.nodes) at.set(n, [...(at.get(n) ?? []), d]);
  }
  const rides = new Map<number, number[]>();
  for (const [a, b] of plan.riding) {
    rides.set(a, [...(rides.get(a) ?? []), b]);
    rides.set(b, [...(rides.get(b) ?? []), a]);
  }
  const found = new Set<Device>(power);
  const seen = new Set<number>();
  const queue = power.flatMap((d) => [d.nodes[0]!, d.nodes[2]!]);
  for (let node = queue.pop(); node !== undefined; node = queue.pop()) {
    if (seen.has(node) || !swings(node)) continue;
    seen.add(node);
    queue.push(...(rides.get(node) ?? []));
    for (const d of at.get(node) ?? []) {
      found.add(d);
      if (d.model.kind === 'windings') queue.push(...d.nodes);
      else if (powerSet.has(d)) queue.push(d.nodes[0]!, d.nodes[2]!);
      else queue.push(...d.nodes);
    }
  }
  // Losses of cores and what else hangs between two nodes of the cell.
  for (const d of devices) {
    if (found.has(d) || d.model.kind !== 'resistor' || plan.aside.has(d)) continue;
    if (d.nodes.some((n) => seen.has(n)) && d.nodes.every((n) => seen.has(n) || !swings(n))) found.add(d);
  }
  return [...found];
}
