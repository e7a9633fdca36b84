import { RESISTOR, flatten } from '../device';
import type { Circuit, Device, DeviceModel, PartDraw } from '../device';
import type { Board } from '../circuit';
import type { Fault } from '../fault';
import { DisjointSets } from '../graph';
import { ints, intsOf } from '../linear';

/** A device of a network: as in the circuit, its nodes in the network's numbering, all its terminals on one part. */
export interface NetworkDevice {
  readonly model: DeviceModel;
  readonly nodes: readonly number[];
  readonly owner: number;
  readonly at: number;
  readonly sigmas: readonly number[];
  readonly draws: readonly number[];
}

/**
 * What of a circuit conducts at DC with every supply unplugged and nothing switched on: resistors (windings by their
 * ohms), junctions, transistors, channels. Ideal wires are merged away.
 *
 * nodeCount   nodes are 0..nodeCount-1.
 * nodeNames   a name for each, for messages.
 * nodeOfNet   node of each net of the board, keyed by lower-case net name.
 * component   for each node the number of its conductive component.
 * devices     what conducts; `junctions` and `channels` of them in their order. parameters: the circuit's.
 */
export interface Network {
  readonly nodeCount: number;
  readonly nodeNames: readonly string[];
  readonly nodeOfNet: ReadonlyMap<string, number>;
  readonly component: Int32Array;
  readonly devices: readonly NetworkDevice[];
  readonly junctions: readonly NetworkDevice[];
  readonly channels: readonly NetworkDevice[];
  readonly parameters: Float64Array;
}

/** The passive network of a board with faults and part draws; see `coldNetwork` and `flatten`. */
export function buildNetwork(board: Board, faults: readonly Fault[], draw?: PartDraw): Network {
  return coldNetwork(flatten(board, faults, draw));
}

/**
 * The network that a meter sees on an unpowered board: capacitors are open, windings their resistance (a wire where that
 * is nothing), supplies open, one of 0 V a wire (contract, section 3).
 */
export function coldNetwork(circuit: Circuit): Network {
  const { parameters } = circuit;
  const wires = new DisjointSets(circuit.nodeNames.length);
  for (const device of circuit.devices) joinWires(device, parameters, wires);
  const numbers = ints(circuit.nodeNames.length).fill(-1);
  const nodeNames: string[] = [];
  const nodeOf = (raw: number): number => {
    const root = wires.find(raw);
    if (numbers[root]! < 0) numbers[root] = nodeNames.push(circuit.nodeNames[root]!) - 1;
    return numbers[root]!;
  };
  const nodeOfNet = new Map<string, number>();
  for (const [net, raw] of circuit.nodeOfNet) nodeOfNet.set(net, nodeOf(raw));
  const devices: NetworkDevice[] = [];
  for (const device of circuit.devices) conduct(device, nodeOf, devices);
  const sets = new DisjointSets(nodeNames.length);
  for (const { model, nodes } of devices) {
    // A gate carries nothing: it joins no component.
    sets.union(nodes[0]!, nodes[model.kind === 'channel' ? 2 : 1]!);
    if (model.kind === 'transistor') sets.union(nodes[1]!, nodes[2]!);
  }
  return {
    nodeCount: nodeNames.length,
    nodeNames,
    nodeOfNet,
    component: intsOf(nodeNames.map((_, i) => sets.find(i))),
    devices,
    junctions: devices.filter((d) => d.model.kind === 'junction'),
    channels: devices.filter((d) => d.model.kind === 'channel'),
    parameters,
  };
}

/** Joins the nodes of what is a wire when nothing changes and no supply is plugged in. */
function joinWires({ model, nodes, at }: Device, parameters: Float64Array, wires: DisjointSets): void {
  switch (model.kind) {
    case 'resistor':
    case 'voltage-source':
      if (parameters[at] === 0) wires.union(nodes[0]!, nodes[1]!);
      return;
    case 'windings':
      for (let k = 0; k < model.states; k++)
        if (parameters[at + k] === 0) wires.union(nodes[2 * k]!, nodes[2 * k + 1]!);
      return;
    default:
      return;
  }
}

/** Adds what is left of a device then and is no wire, between the nodes that are left; what has both ends on one is none. */
function conduct(device: Device, nodeOf: (raw: number) => number, into: NetworkDevice[]): void {
  const { model, nodes, owners, at, sigmas, draws } = device;
  const resistor = (from: number, to: number, owner: number, first: number, of: number): void => {
    const [a, b] = [nodeOf(from), nodeOf(to)];
    if (a === b) return;
    const own = sigmas.length === 1;
    into.push({
      model: RESISTOR,
      nodes: [a, b],
      owner,
      at: first,
      sigmas: own ? sigmas : sigmas.slice(of, of + 1),
      draws: own ? draws : draws.slice(of, of + 1),
    });
  };
  switch (model.kind) {
    case 'resistor':
      resistor(nodes[0]!, nodes[1]!, owners[0]!, at, 0);
      return;
    case 'junction':
    case 'transistor':
    case 'channel': {
      const own = nodes.map(nodeOf);
      if (own.length > 2 || own[0] !== own[1]) into.push({ model, nodes: own, owner: owners[0]!, at, sigmas, draws });
      return;
    }
    case 'windings':
      for (let k = 0; k < model.states; k++) resistor(nodes[2 * k]!, nodes[2 * k + 1]!, owners[2 * k]!, at + k, k);
      return;
    default:
      return;
  }
}
