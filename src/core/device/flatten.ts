import { findPart, netKey, pinIndex } from '../circuit';
import type { Board, Coupling } from '../circuit';
import { OPEN_OHMS, SHORT_OHMS } from '../fault';
import type { Fault } from '../fault';
import { DisjointSets } from '../graph';
import type { Part } from '../part';
import { invariant } from '../problem';
import type { Circuit, Device, Dormant } from './circuit';
import { NOMINAL_DRAW } from './draw';
import type { PartDraw } from './draw';
import { expandPart } from './expandPart';
import type { DeviceSink, Winding } from './expandPart';
import { RESISTOR, windings } from './passives';

interface PlacedWinding {
  readonly winding: Winding;
  readonly name: string;
  readonly nodes: readonly [number, number];
  readonly owner: number;
  /** Its place among the devices. */
  readonly place: number;
}

interface Draft {
  /** Part being expanded. */
  owner: number;
  readonly names: string[];
  readonly nets: Map<string, number>;
  readonly devices: (Device | null)[];
  /** Parameters that stood before those of this draft. */
  readonly from: number;
  readonly parameters: number[];
  /** Numbers of the draws, by part and property. */
  readonly draws: Map<string, number>;
  /** Full names, in lower case, of the windings that some coupling names; they are joined when all parts are in. */
  readonly coupled: ReadonlySet<string>;
  readonly windings: PlacedWinding[];
  readonly dormant: Dormant[];
  readonly pins: (readonly number[])[];
}

/**
 * A board as devices on nodes.
 *
 * faults  add up; shorts and leaks sit at the part, inside any opened pin (`netlist.md` section 2).
 *         They must have come through `parseFault`: unknown parts or pins are our own mistake and throw.
 * draw    how far each part is from its nominal value.
 */
export function flatten(board: Board, faults: readonly Fault[] = [], draw: PartDraw = NOMINAL_DRAW): Circuit {
  const byPart = faultsByPart(board, faults);
  const sound = draw === NOMINAL_DRAW ? SOUND.get(board) : undefined;
  if (sound && ![...byPart.keys()].some((index) => sound.cores.has(index))) return withFaults(board, sound, byPart);
  const couplings = couplingsOf(board);
  const draft: Draft = {
    owner: -1,
    names: [],
    nets: new Map(),
    devices: [],
    from: 0,
    parameters: [],
    draws: new Map(),
    coupled: new Set(couplings.flatMap((k) => [k.first.toLowerCase(), k.second.toLowerCase()])),
    windings: [],
    dormant: [],
    pins: [],
  };
  const sink = makeSink(draft);
  for (const [index, part] of board.parts.entries()) {
    draft.owner = index;
    const outer = part.nets.map((net) => sink.node(net));
    draft.pins.push(part.fitted ? addPart(board, part, outer, byPart.get(index) ?? [], sink, draw) : outer);
  }
  couple(draft, couplings);
  const circuit: Circuit = {
    nodeNames: draft.names,
    nodeOfNet: draft.nets,
    devices: draft.devices.filter((d) => d !== null),
    parameters: Float64Array.from(draft.parameters),
    dormant: draft.dormant,
    pins: draft.pins,
  };
  if (faults.length === 0 && draw === NOMINAL_DRAW)
    SOUND.set(board, { circuit, draft, cores: new Set(draft.windings.map((w) => w.owner)) });
  return circuit;
}

/** A board without faults, flattened; cores: the parts whose windings share one with others. */
interface Sound {
  readonly circuit: Circuit;
  readonly draft: Draft;
  readonly cores: ReadonlySet<number>;
}

const SOUND = new WeakMap<Board, Sound>();

/** The sound circuit with the parts that have faults expanded anew, each at its place. */
function withFaults(board: Board, sound: Sound, byPart: ReadonlyMap<number, readonly Fault[]>): Circuit {
  const { circuit } = sound;
  if (byPart.size === 0) return circuit;
  const pins = [...circuit.pins];
  const draft: Draft = {
    ...sound.draft,
    names: [...circuit.nodeNames],
    devices: [],
    from: circuit.parameters.length,
    parameters: [],
    windings: [],
    dormant: circuit.dormant.filter((d) => !byPart.has(d.owner)),
    pins,
  };
  const sink = makeSink(draft);
  const changed = new Map<number, readonly Device[]>();
  for (const [index, faults] of byPart) {
    const first = draft.devices.length;
    const part = board.parts[index]!;
    draft.owner = index;
    if (part.fitted) pins[index] = addPart(board, part, circuit.pins[index]!, faults, sink, NOMINAL_DRAW);
    changed.set(
      index,
      draft.devices.slice(first).filter((d) => d !== null),
    );
  }
  const parameters = new Float64Array(draft.from + draft.parameters.length);
  parameters.set(circuit.parameters);
  parameters.set(draft.parameters, draft.from);
  const devices: Device[] = [];
  for (const device of circuit.devices) {
    const owner = device.owners[0]!;
    if (byPart.has(owner)) devices.push(...(changed.get(owner) ?? []));
    else devices.push(device);
    changed.delete(owner);
  }
  devices.push(...[...changed.values()].flat());
  return { ...circuit, nodeNames: draft.names, devices, parameters, dormant: draft.dormant, pins };
}

function faultsByPart(board: Board, faults: readonly Fault[]): ReadonlyMap<number, readonly Fault[]> {
  const byPart = new Map<number, Fault[]>();
  for (const fault of faults) {
    const part = findPart(board, fault.ref);
    invariant(part !== undefined, `fault on unknown part ${fault.ref}`);
    const index = board.parts.indexOf(part);
    byPart.set(index, [...(byPart.get(index) ?? []), fault]);
  }
  return byPart;
}

/** Adds a part with its faults; gives the nodes of its pins inside what is opened. */
function addPart(
  board: Board,
  part: Part,
  outer: readonly number[],
  faults: readonly Fault[],
  sink: DeviceSink,
  draw: PartDraw,
): readonly number[] {
  const pins = [...outer];
  const drifted: { value?: number; seriesOhms?: number } = {};
  const opened = new Set<number>();
  for (const fault of faults) {
    if (fault.kind === 'value') drifted.value = fault.value;
    if (fault.kind === 'esr') drifted.seriesOhms = fault.ohms;
    if (fault.kind !== 'open') continue;
    if (fault.pin !== undefined) opened.add(indexOf(board, part, fault.pin));
    else if (pins.length === 2) opened.add(0);
    else pins.forEach((_, i) => opened.add(i));
  }
  // As sure as the fault itself: nothing of it is drawn.
  const exact = (a: number, b: number, ohms: number): void => sink.add(part.ref, RESISTOR, [a, b], [ohms], [0]);
  for (const i of opened) {
    pins[i] = sink.node('NC');
    exact(outer[i]!, pins[i]!, OPEN_OHMS);
  }
  expandPart({ board, draw, sink, owner: part.ref, drifted }, part, pins);
  for (const fault of faults) {
    if (fault.kind !== 'short' && fault.kind !== 'leak') continue;
    const ohms = fault.kind === 'short' ? SHORT_OHMS : fault.ohms;
    if (fault.pins) {
      exact(pins[indexOf(board, part, fault.pins[0])]!, pins[indexOf(board, part, fault.pins[1])]!, ohms);
    } else {
      for (let i = 0; i < pins.length; i++) for (let j = i + 1; j < pins.length; j++) exact(pins[i]!, pins[j]!, ohms);
    }
  }
  return pins;
}

function indexOf(board: Board, part: Part, pin: string): number {
  const index = pinIndex(board, part, pin);
  invariant(index >= 0, `${part.ref} has no pin ${pin}`);
  return index;
}

function makeSink(draft: Draft): DeviceSink {
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
    add(name, model, nodes, parameters, sigmas) {
      const { owner } = draft;
      const at = draft.from + draft.parameters.length;
      const draws = sigmas.map((sigma, m) => (sigma > 0 ? drawOf(draft, `${name} ${model.drawn[m]}`) : 0));
      draft.devices.push({ model, nodes, owners: nodes.map(() => owner), at, sigmas, draws, name });
      for (const p of parameters) draft.parameters.push(p);
    },
    winding(name, nodes, winding) {
      const { ohms, henries, ohmsSigma, henriesSigma } = winding;
      if (!draft.coupled.has(name.toLowerCase())) {
        this.add(name, windings(1), nodes, [ohms, henries], [ohmsSigma, henriesSigma]);
        return;
      }
      draft.windings.push({ winding, name, nodes, owner: draft.owner, place: draft.devices.length });
      draft.devices.push(null);
    },
    dormant(nodes) {
      draft.dormant.push({ owner: draft.owner, nodes });
    },
  };
}

/** Number of a draw; 0 is left for what is not drawn. */
function drawOf({ draws }: Draft, key: string): number {
  const made = draws.get(key) ?? draws.size + 1;
  draws.set(key, made);
  return made;
}

/** Every coupling of the board, those inside subcircuits by the full names of their windings. */
function couplingsOf(board: Board): readonly Coupling[] {
  const all = [...board.couplings];
  for (const part of board.parts) {
    const inside = part.kind === 'ic' ? board.subcircuits.get(part.subcircuit.toLowerCase()) : undefined;
    for (const k of inside?.couplings ?? [])
      all.push({ ...k, first: `${part.ref}/${k.first}`, second: `${part.ref}/${k.second}` });
  }
  return all;
}

/** Makes one device of the windings that are coupled, at the place of the first of them. */
function couple(draft: Draft, couplings: readonly Coupling[]): void {
  const placed = draft.windings;
  const numbers = new Map(placed.map((w, i) => [w.name.toLowerCase(), i]));
  const sets = new DisjointSets(placed.length);
  const factors = new Map<number, number>();
  const pair = (i: number, j: number): number => Math.min(i, j) * placed.length + Math.max(i, j);
  for (const { first, second, factor } of couplings) {
    const [a, b] = [numbers.get(first.toLowerCase()), numbers.get(second.toLowerCase())];
    if (a === undefined || b === undefined || a === b) continue;
    sets.union(a, b);
    factors.set(pair(a, b), factor);
  }
  const groups = new Map<number, number[]>();
  placed.forEach((_, i) => {
    const group = groups.get(sets.find(i));
    if (group) group.push(i);
    else groups.set(sets.find(i), [i]);
  });
  for (const group of groups.values()) {
    const own = group.map((i) => placed[i]!);
    draft.devices[own[0]!.place] = {
      model: windings(own.length),
      nodes: own.flatMap((w) => w.nodes),
      owners: own.flatMap((w) => [w.owner, w.owner]),
      at: draft.parameters.length,
      sigmas: [...own.map((w) => w.winding.ohmsSigma), ...own.map((w) => w.winding.henriesSigma)],
      draws: ['ohms 1', 'henries 1'].flatMap((drawn) => own.map((w) => drawOf(draft, `${w.name} ${drawn}`))),
      name: own.map((w) => w.name).join('+'),
    };
    for (const w of own) draft.parameters.push(w.winding.ohms);
    for (const i of group)
      for (const j of group) {
        const k = i === j ? 1 : (factors.get(pair(i, j)) ?? 0);
        draft.parameters.push(k * Math.sqrt(placed[i]!.winding.henries * placed[j]!.winding.henries));
      }
  }
}
