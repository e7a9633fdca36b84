import { isCapacitor } from '../device';
import type { Device } from '../device';

/** Capacitors in series that make a reservoir are at least this, farad. */
export const CHAIN_FARADS = 1e-6;

/** Takes out what leads nowhere: devices with an end that nothing else shares. */
export function prune(found: Set<Device>, isEnd: (node: number) => boolean): void {
  for (let shrunk = true; shrunk;) {
    shrunk = false;
    const degree = new Map<number, number>();
    for (const d of found) for (const n of d.nodes) degree.set(n, (degree.get(n) ?? 0) + 1);
    for (const d of found) {
      if (d.model.kind === 'windings' || !d.nodes.some((n) => degree.get(n) === 1 && !isEnd(n))) continue;
      found.delete(d);
      shrunk = true;
    }
  }
}

/** Whether a node beyond a capacitor leads on to another reached one through a further capacitor. */
export function endsElsewhere(
  devices: readonly Device[],
  parameters: Float64Array,
  node: number,
  from: Device,
  seen: ReadonlySet<number>,
): boolean {
  return devices.some(
    (d) =>
      d !== from &&
      isCapacitor(d) &&
      parameters[d.at]! >= CHAIN_FARADS &&
      d.nodes.slice(0, 2).includes(node) &&
      d.nodes.slice(0, 2).some((n) => n !== node && seen.has(n) && !from.nodes.includes(n)),
  );
}

/** Nodes that the inlet reaches without crossing from winding to winding. */
export function isolated(devices: ReadonlySet<Device>, live: number, neutral: number): ReadonlySet<number> {
  const seen = new Set([live, neutral]);
  for (let grown = true; grown;) {
    grown = false;
    for (const d of devices) {
      for (let k = 0; k + 1 < d.nodes.length; k += 2) {
        const [a, b] = [d.nodes[k]!, d.nodes[k + 1]!];
        if (seen.has(a) === seen.has(b)) continue;
        seen.add(a).add(b);
        grown = true;
      }
    }
  }
  return seen;
}

/** Nodes that some ends reach without a rectifier. */
export function acNodes(ends: readonly number[], devices: readonly Device[]): ReadonlySet<number> {
  const seen = new Set(ends);
  for (let grown = true; grown;) {
    grown = false;
    for (const d of devices) {
      if (d.model.kind === 'junction' || !d.nodes.some((n) => seen.has(n)) || d.nodes.every((n) => seen.has(n)))
        continue;
      for (const n of d.nodes) seen.add(n);
      grown = true;
    }
  }
  return seen;
}
