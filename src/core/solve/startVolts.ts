import { netKey } from '../circuit';
import { floats, intsOf } from '../linear';
import type { Network } from './network';

/** Where the nodes of a network start that is another with faults: the node of that one that each starts from, -1 for none, and the volts of each. */
export interface StartVolts {
  readonly from: Int32Array;
  readonly volts: Float64Array;
}

/**
 * For each node of the faulty network the node of its base with the same name; one that a broken joint has cut off
 * starts where the device behind it stands.
 */
export function startVolts(base: Network, faulty: Network): StartVolts {
  const byName = new Map(base.nodeNames.map((name, i) => [netKey(name), i]));
  byName.delete('nc');
  const from = intsOf(faulty.nodeNames.map((name) => byName.get(netKey(name)) ?? -1));
  for (const { model, nodes } of faulty.devices) {
    if (model.kind === 'resistor') continue;
    const there = nodes.find((n) => from[n]! >= 0);
    if (there !== undefined) for (const n of nodes) if (from[n]! < 0) from[n] = from[there]!;
  }
  return { from, volts: floats(from.length) };
}

/** Puts the volts of the base's nodes, in their order, where its like starts; gives those. */
export function fillStart({ from, volts }: StartVolts, base: Float64Array): Float64Array {
  for (let i = 0; i < volts.length; i++) volts[i] = from[i]! < 0 ? 0 : base[from[i]!]!;
  return volts;
}
