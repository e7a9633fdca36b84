import type { Evaluation } from '../device';
import type { ComponentSystem } from './componentSystem';

/**
 * What a device carries in a solution: amperes into it at each of its terminals, with the network node of each terminal
 * (its source for a gate that floats), the volts there, and the board's part that the terminal belongs to.
 */
export interface DeviceFlow {
  readonly owner: number;
  readonly nodes: readonly number[];
  readonly amps: Float64Array;
  readonly volts: Float64Array;
}

/** A device of a component evaluated at the present solution; what it gives is overwritten by the next of its kind. */
export function evaluateAt(system: ComponentSystem, d: number): Evaluation {
  const device = system.devices[d]!;
  const nodes = system.terminals[d]!;
  const { volts, ends } = system.work;
  // Only a gate lies outside: it sits at its source.
  for (let t = 0; t < nodes.length; t++) ends[t] = volts[nodes[t]! < 0 ? nodes[2]! : nodes[t]!]!;
  const room = system.rooms[d]!;
  device.model.evaluate(system.parameters, device.at, ends, room);
  return room;
}

/** The flows of every device of a component in its last solution. */
export function deviceFlows(system: ComponentSystem): readonly DeviceFlow[] {
  return system.devices.map((device, d) => {
    const nodes = system.terminals[d]!;
    return {
      owner: device.owner,
      nodes: device.nodes.map((node, t) => (nodes[t]! < 0 ? device.nodes[2]! : node)),
      amps: evaluateAt(system, d).flow.slice(),
      volts: system.work.ends.slice(0, nodes.length),
    };
  });
}
