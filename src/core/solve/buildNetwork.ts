import { findPart, netKey, pinIndex } from '../circuit';
import type { Board, Part } from '../circuit';
import { OPEN_OHMS, SHORT_OHMS } from '../fault';
import type { Fault } from '../fault';
import { DisjointSets } from '../graph';
import { invariant } from '../problem';
import { expandPart, slopeVolts } from './expandPart';
import type { ElementSink } from './expandPart';
import type { Network, NetworkBjt, NetworkDiode, NetworkMosfet, NetworkResistor } from './network';
import { NOMINAL_DRAW } from './partSpread';
import type { PartDraw } from './partSpread';

interface Draft {
  /** Part being expanded. */
  owner: number;
  readonly names: string[];
  readonly nets: Map<string, number>;
  readonly resistors: NetworkResistor[];
  readonly diodes: NetworkDiode[];
  readonly bjts: NetworkBjt[];
  readonly mosfets: NetworkMosfet[];
}

/**
 * Flattens a board with faults into the network that conducts at DC.
 *
 * faults  add up; shorts and leaks sit at the part, inside any opened pin (`netlist.md` section 2).
 *         They must have come through `parseFault`: unknown parts or pins are our own mistake and throw.
 * draw    how far each part is from its nominal value.
 */
export function buildNetwork(board: Board, faults: readonly Fault[], draw: PartDraw = NOMINAL_DRAW): Network {
  const draft: Draft = { owner: -1, names: [], nets: new Map(), resistors: [], diodes: [], bjts: [], mosfets: [] };
  const sink = makeSink(draft);
  const byPart = new Map<string, Fault[]>();
  for (const fault of faults) {
    const part = findPart(board, fault.ref);
    invariant(part !== undefined, `fault on unknown part ${fault.ref}`);
    byPart.set(part.ref, [...(byPart.get(part.ref) ?? []), fault]);
  }
  for (const [index, part] of board.parts.entries()) {
    draft.owner = index;
    const outer = part.nets.map((net) => sink.node(net));
    if (part.fitted) addPart(board, part, outer, byPart.get(part.ref) ?? [], sink, draw);
  }
  return compress(draft);
}

function addPart(
  board: Board,
  part: Part,
  outer: readonly number[],
  faults: readonly Fault[],
  sink: ElementSink,
  draw: PartDraw,
): void {
  const pins = [...outer];
  const drifted = new Map<string, number>();
  const opened = new Set<number>();
  for (const fault of faults) {
    if (fault.kind === 'value') drifted.set(part.ref, fault.value);
    if (fault.kind !== 'open') continue;
    if (fault.pin !== undefined) opened.add(indexOf(board, part, fault.pin));
    else if (pins.length === 2) opened.add(0);
    else pins.forEach((_, i) => opened.add(i));
  }
  for (const i of opened) {
    pins[i] = sink.node('NC');
    sink.resistor(outer[i]!, pins[i]!, OPEN_OHMS, 0);
  }
  expandPart({ board, draw, sink, owner: part.ref, drifted }, part, pins);
  for (const fault of faults) {
    if (fault.kind !== 'short' && fault.kind !== 'leak') continue;
    const ohms = fault.kind === 'short' ? SHORT_OHMS : fault.ohms;
    if (fault.pins) {
      sink.resistor(pins[indexOf(board, part, fault.pins[0])]!, pins[indexOf(board, part, fault.pins[1])]!, ohms, 0);
    } else {
      for (let i = 0; i < pins.length; i++)
        for (let j = i + 1; j < pins.length; j++) sink.resistor(pins[i]!, pins[j]!, ohms, 0);
    }
  }
}

function indexOf(board: Board, part: Part, pin: string): number {
  const index = pinIndex(board, part, pin);
  invariant(index >= 0, `${part.ref} has no pin ${pin}`);
  return index;
}

function makeSink(draft: Draft): ElementSink {
  return {
    node(name) {
      const key = netKey(name);
      const known = key === 'nc' ? undefined : draft.nets.get(key);
      if (known !== undefined) return known;
      draft.names.push(name);
      const made = draft.names.length - 1;
      if (key !== 'nc') draft.nets.set(key, made);
      return made;
    },
    resistor(a, b, ohms, spread) {
      draft.resistors.push({ a, b, ohms, spread, owner: draft.owner });
    },
    diode(a, k, shape, spread) {
      draft.diodes.push({
        a,
        k,
        spread,
        owner: draft.owner,
        saturationAmps: shape.saturationAmps,
        slopeVolts: slopeVolts(shape.emission),
        seriesOhms: shape.seriesOhms ?? 0,
        breakdownVolts: shape.breakdownVolts ?? Infinity,
        breakdownAmps: shape.breakdownAmps ?? 1e-3,
      });
    },
    bjt([c = 0, b = 0, e = 0], model, saturation, gain) {
      const n = model.numbers;
      draft.bjts.push({
        c,
        b,
        e,
        polarity: model.type === 'PNP' ? -1 : 1,
        saturationAmps: (n['is'] ?? 1e-14) * saturation,
        forwardGain: (n['bf'] ?? 100) * gain,
        reverseGain: n['br'] ?? 1,
        forwardSlope: slopeVolts(n['nf'] ?? 1),
        reverseSlope: slopeVolts(n['nr'] ?? 1),
        spread: Math.log(1.6),
        owner: draft.owner,
        gainSpread: Math.log(1.5),
      });
    },
    mosfet([d = 0, g = 0, s = 0], model, threshold) {
      const n = model.numbers;
      const polarity = model.type === 'PMOS' ? -1 : 1;
      draft.mosfets.push({
        d,
        g,
        s,
        polarity,
        thresholdVolts: polarity * (n['vto'] ?? 3 * polarity) * threshold,
        transconductance: n['kp'] ?? 1,
        onOhms: n['ron'] ?? 0.5,
        spread: 0.15,
        owner: draft.owner,
      });
    },
  };
}

/** Merges ideal wires, renumbers the nodes and finds the conductive components. */
function compress(draft: Draft): Network {
  const wires = new DisjointSets(draft.names.length);
  for (const r of draft.resistors) if (r.ohms === 0) wires.union(r.a, r.b);
  const numbers = new Map<number, number>();
  const nodeNames: string[] = [];
  const nodeOf = (raw: number): number => {
    const root = wires.find(raw);
    const known = numbers.get(root);
    if (known !== undefined) return known;
    numbers.set(root, nodeNames.length);
    nodeNames.push(draft.names[root]!);
    return nodeNames.length - 1;
  };
  const nodeOfNet = new Map([...draft.nets].map(([net, raw]) => [net, nodeOf(raw)]));
  const resistors = draft.resistors
    .filter((r) => r.ohms !== 0)
    .map((r) => ({ ...r, a: nodeOf(r.a), b: nodeOf(r.b) }))
    .filter((r) => r.a !== r.b);
  const diodes = draft.diodes.map((d) => ({ ...d, a: nodeOf(d.a), k: nodeOf(d.k) })).filter((d) => d.a !== d.k);
  const bjts = draft.bjts.map((q) => ({ ...q, c: nodeOf(q.c), b: nodeOf(q.b), e: nodeOf(q.e) }));
  const mosfets = draft.mosfets.map((m) => ({ ...m, d: nodeOf(m.d), g: nodeOf(m.g), s: nodeOf(m.s) }));
  const sets = new DisjointSets(nodeNames.length);
  for (const r of resistors) sets.union(r.a, r.b);
  for (const d of diodes) sets.union(d.a, d.k);
  for (const q of bjts) {
    sets.union(q.c, q.b);
    sets.union(q.b, q.e);
  }
  for (const m of mosfets) sets.union(m.d, m.s);
  const component = Int32Array.from({ length: nodeNames.length }, (_, i) => sets.find(i));
  return { nodeCount: nodeNames.length, nodeNames, nodeOfNet, component, resistors, diodes, bjts, mosfets };
}
