import { findPart, netKey, pinIndex } from '../circuit';
import type { Board } from '../circuit';
import { OPEN_OHMS, SHORT_OHMS } from '../fault';
import type { Fault } from '../fault';
import { floats, floatsOf, intsOf } from '../linear';
import { READING_SHARE } from '../meter';
import { MOST_BRANCHES } from '../solve';
import type { Part } from '../part';
import type { DcSolver, FactoredSolution, JunctionStates, Network, OpenedPin } from '../solve';

/**
 * The solution of one reading, kept so that further faults which cannot change it need no solve of their own.
 *
 * faults   what was broken.
 * network  the one it was solved on, and the nodes of the leads.
 * volts    per network node; states of its junctions; adjoint: volts per ampere at each node (reciprocity).
 * pinAmps  what the devices of a part carry at each of its pins, at the places of `pinsOf`; amps the test current, reading volts at the leads.
 * factored the same with its factors, and the solver that they are of.
 */
export interface KnownSolution {
  readonly faults: readonly Fault[];
  readonly network: Network;
  readonly red: number;
  readonly black: number;
  readonly volts: Float64Array;
  readonly states: JunctionStates;
  readonly adjoint: Float64Array;
  readonly pinAmps: Float64Array;
  readonly amps: number;
  readonly reading: number;
  readonly solver: DcSolver;
  readonly factored: FactoredSolution;
}

/** Largest relative change of a reading that counts as none. A tenth of a promille: far inside every tolerance. */
const NEGLIGIBLE = 1e-4;

/** A reading as it was solved: the board with its faults, its solver, the nodes of the leads and the test current. */
export interface SolvedReading {
  readonly board: Board;
  readonly faults: readonly Fault[];
  readonly solver: DcSolver;
  readonly red: number;
  readonly black: number;
  readonly amps: number;
}

/** Notes the solver's present solution of a reading. */
export function keepSolution({ board, faults, solver, red, black, amps }: SolvedReading): KnownSolution {
  const { network } = solver;
  const volts = floats(network.nodeCount);
  solver.copyVolts(red, volts);
  const adjoint = floats(network.nodeCount);
  solver.adjoint(red, black, adjoint);
  const pins = pinsOf(board, network);
  const pinAmps = floats(pins.count);
  solver.eachFlow(red, (device, flow) => {
    const places = pins.ofDevice.get(device)!;
    for (let t = 0; t < places.length; t++)
      for (const place of places[t]!) pinAmps[place] = pinAmps[place]! + Math.abs(flow[t]!);
  });
  return {
    faults,
    network,
    red,
    black,
    volts,
    states: solver.junctionStates(red),
    adjoint,
    pinAmps,
    amps,
    reading: Math.abs(volts[red]! - volts[black]!),
    solver,
    factored: solver.keep(red),
  };
}

/** Where the pins of a board's parts stand in a list of them all, part by part, and which of them each device's terminals are. */
interface Pins {
  readonly first: Int32Array;
  readonly count: number;
  readonly ofDevice: ReadonlyMap<Network['devices'][number], readonly (readonly number[])[]>;
}

const known = new WeakMap<Network, Pins>();

function pinsOf(board: Board, network: Network): Pins {
  const old = known.get(network);
  if (old) return old;
  const first = new Int32Array(board.parts.length);
  const nodes: number[] = [];
  board.parts.forEach((p, i) => {
    first[i] = nodes.length;
    for (const net of p.nets) nodes.push(network.nodeOfNet.get(netKey(net)) ?? -1);
  });
  const ofDevice = new Map<Network['devices'][number], readonly (readonly number[])[]>();
  for (const device of network.devices) {
    const from = first[device.owner]!;
    const to = from + board.parts[device.owner]!.nets.length;
    const at = (node: number): readonly number[] => {
      const places: number[] = [];
      for (let place = from; place < to; place++) if (nodes[place] === node) places.push(place);
      return places;
    };
    ofDevice.set(device, device.nodes.map(at));
  }
  const made = { first, count: nodes.length, ofDevice };
  known.set(network, made);
  return made;
}

/**
 * What a fault changes of a network, worked out once for all readings on it.
 *
 * nothing   no direct current feels it.
 * unknown   it joins what the network does not hold together, or parts what it holds to be one.
 * through   it acts on what flows at some pins (places of `pinsOf`); opened: they may still leak.
 * across    it joins pairs of nodes, two after each other, by `ohms`.
 * added     the same as conductances added to it, where that is all it does; pin: or the one that it takes off its node.
 */
type Change =
  | { readonly kind: 'nothing' }
  | { readonly kind: 'unknown' }
  | {
      readonly kind: 'through';
      readonly places: readonly number[];
      readonly leaks: boolean;
      readonly added: Added | null;
      readonly pin: OpenedPin | null;
    }
  | { readonly kind: 'across'; readonly added: Added };

interface Added {
  readonly ends: readonly number[];
  readonly siemens: readonly number[];
}

/** Conductances added: network nodes of their ends, two for each, and siemens. */
interface Branches {
  readonly ends: Int32Array;
  readonly siemens: Float64Array;
}

/** What faults together change of a network; `added`: the same as conductances added, where that is all that they do. */
export interface Changes {
  readonly list: readonly Change[];
  readonly added: Branches | null;
  /** Where they are one opened pin, and not that. */
  readonly pin: OpenedPin | null;
}

export function changesOf(board: Board, network: Network, faults: readonly Fault[]): Changes {
  const list = faults.map((fault) => changeOf(board, network, fault));
  const added = list.flatMap((c) => (c.kind === 'nothing' ? [] : [c.kind === 'unknown' ? null : c.added]));
  const [only] = list;
  const pin = list.length === 1 && only?.kind === 'through' ? only.pin : null;
  if (added.some((a) => a === null || a.siemens.length > MOST_BRANCHES)) return { list, added: null, pin };
  const ends = intsOf(added.flatMap((a) => a!.ends));
  const siemens = floatsOf(added.flatMap((a) => a!.siemens));
  return { list, added: siemens.length > MOST_BRANCHES ? null : { ends, siemens }, pin: null };
}

function changeOf(board: Board, network: Network, fault: Fault): Change {
  if (fault.kind === 'esr') return { kind: 'nothing' };
  const part = findPart(board, fault.ref)!;
  const first = pinsOf(board, network).first[board.parts.indexOf(part)]!;
  const all = part.nets.map((_, i) => first + i);
  if (fault.kind === 'value') {
    if (part.kind !== 'resistor') return { kind: 'nothing' };
    return { kind: 'through', places: all, leaks: false, added: resistanceTo(network, part, fault.value), pin: null };
  }
  if (fault.kind === 'open') {
    const at = fault.pin === undefined ? -1 : pinIndex(board, part, fault.pin);
    // A wire has no current of its own: what it holds together falls apart.
    if (mayBeWire(network, part)) return { kind: 'unknown' };
    const added = part.nets.length === 2 ? openedOhms(board, network, part) : null;
    const opened = at < 0 && part.nets.length === 2 ? 0 : at;
    const pin = added || opened < 0 ? null : openedPin(board, network, part, opened);
    return { kind: 'through', places: at < 0 ? all : [first + at], leaks: at >= 0, added, pin };
  }
  const ohms = fault.kind === 'short' ? SHORT_OHMS : fault.ohms;
  const pins = fault.pins ? fault.pins.map((p) => pinIndex(board, part, p)) : part.nets.map((_, i) => i);
  const nodes = pins.map((p) => network.nodeOfNet.get(netKey(part.nets[p]!)) ?? -1);
  const component = (n: number): number => network.component[n]!;
  if (nodes.some((n) => n < 0 || component(n) !== component(nodes[0]!))) return { kind: 'unknown' };
  const ends: number[] = [];
  const siemens: number[] = [];
  nodes.forEach((a, i) => {
    for (const b of nodes.slice(i + 1)) {
      if (a === b) continue;
      ends.push(a, b);
      siemens.push(1 / ohms);
    }
  });
  return { kind: 'across', added: { ends, siemens } };
}

/** Whether some of a part's nets are one node of the network: the part, or another beside it, joins them without resistance. */
function mayBeWire({ nodeOfNet }: Network, part: Part): boolean {
  const nets = [...new Set(part.nets.map(netKey))].filter((net) => nodeOfNet.has(net));
  return new Set(nets.map((net) => nodeOfNet.get(net))).size < nets.length;
}

/** The conductance that makes another resistance of a resistor. */
function resistanceTo(network: Network, part: Part, ohms: number): Added | null {
  if (part.kind !== 'resistor') return null;
  const [a = -1, b = -1] = part.nets.map((net) => network.nodeOfNet.get(netKey(net)) ?? -1);
  if (a < 0 || b < 0 || !(part.value > 0) || !(ohms > 0)) return null;
  return a === b ? NOTHING_ADDED : { ends: [a, b], siemens: [1 / ohms - 1 / part.value] };
}

const NOTHING_ADDED: Added = { ends: [], siemens: [] };

/** The conductance that opens a part of two pins which is nothing but ohms. */
function openedOhms(board: Board, network: Network, part: Part): Added | null {
  const owner = board.parts.indexOf(part);
  const own = network.devices.filter((d) => d.owner === owner);
  if (own.some((d) => d.model.kind !== 'resistor')) return null;
  const [a = -1, b = -1] = part.nets.map((net) => network.nodeOfNet.get(netKey(net)) ?? -1);
  if (a < 0 || b < 0 || a === b || own.some((d) => !d.nodes.every((n) => n === a || n === b))) return null;
  if (own.length === 0) return NOTHING_ADDED;
  const siemens = own.reduce((sum, d) => sum + 1 / network.parameters[d.at]!, 0);
  return { ends: [a, b], siemens: [1 / (1 / siemens + OPEN_OHMS) - siemens] };
}

/** A pin that is opened, where nothing else of its part is on its node. */
function openedPin(board: Board, network: Network, part: Part, pin: number): OpenedPin | null {
  const nodes = part.nets.map((net) => network.nodeOfNet.get(netKey(net)) ?? -1);
  const node = nodes[pin]!;
  if (node < 0 || nodes.filter((n) => n === node).length > 1) return null;
  return { owner: board.parts.indexOf(part), node, ohms: OPEN_OHMS };
}

/**
 * Whether faults together cannot change a known reading.
 *
 * Where none of them changes a current or a voltage of the known solution, that solution still obeys every law of the
 * changed network, whatever number of them there is; small rests add up, so each gets its share of what is allowed.
 */
export function noneCanChange(known: KnownSolution, { list }: Changes): boolean {
  const allowed = NEGLIGIBLE / list.length;
  for (const change of list) if (!cannotChange(known, change, allowed)) return false;
  return true;
}

/**
 * Whether a fault cannot change a reading by more than the allowed share.
 *
 * An opened pin: by the compensation theorem the change is at most the current that flowed there, over the test
 * current. A short or leak: the change is at most the voltage that stood across it times the adjoint voltage there,
 * over its resistance. Exact zero for parts of another component.
 * Source: C. A. Desoer and E. S. Kuh, Basic Circuit Theory (1969), chapter 16 (substitution, reciprocity).
 */
function cannotChange(known: KnownSolution, change: Change, allowed: number): boolean {
  switch (change.kind) {
    case 'nothing':
      return true;
    case 'unknown':
      return false;
    case 'through': {
      let most = 0;
      for (const place of change.places) most = Math.max(most, known.pinAmps[place]!);
      // The far side of a gigaohm still leaks: the reading may see it where the test current is small.
      return most <= allowed * known.amps && (!change.leaks || known.reading < OPEN_OHMS * known.amps * 10);
    }
    case 'across': {
      const { ends, siemens } = change.added;
      for (let i = 0; i < siemens.length; i++) {
        const [a, b] = [ends[2 * i]!, ends[2 * i + 1]!];
        const across = Math.abs(known.volts[a]! - known.volts[b]!);
        const transfer = Math.abs(known.adjoint[a]! - known.adjoint[b]!);
        const worst = Math.max(across * transfer, (across * across) / known.amps) * siemens[i]!;
        if (worst > allowed * known.reading) return false;
      }
      return true;
    }
  }
}

/**
 * Voltages of a known solution with faults, where those only add conductances, or open one pin, and the junctions hardly
 * notice; false where that cannot be said. out: volts per node of the known network.
 */
export function solvedNearby(known: KnownSolution, { added, pin }: Changes, out: Float64Array): boolean {
  const allowed = READING_SHARE * known.amps;
  const { component } = known.network;
  const own = component[known.red];
  if (pin && component[pin.node] === own) return known.solver.opened(known.factored, pin, out, allowed);
  if (added === null) return false;
  const { ends, siemens } = added;
  for (let i = 0; i < siemens.length; i++)
    if (component[ends[2 * i]!] !== own) {
      const felt = feltIn(added, component, own!);
      return known.solver.nearby(known.factored, felt.ends, felt.siemens, out, allowed);
    }
  return known.solver.nearby(known.factored, ends, siemens, out, allowed);
}

/** Of conductances added those in one component: in another they are not felt. */
function feltIn({ ends, siemens }: Branches, component: Int32Array, own: number): Branches {
  return {
    ends: ends.filter((_, e) => component[ends[e & ~1]!] === own),
    siemens: siemens.filter((_, i) => component[ends[2 * i]!] === own),
  };
}
