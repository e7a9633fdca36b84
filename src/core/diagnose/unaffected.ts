import { findPart, netKey, pinIndex } from '../circuit';
import type { Board } from '../circuit';
import { OPEN_OHMS, SHORT_OHMS } from '../fault';
import type { Fault } from '../fault';
import type { DcSolver, JunctionStates, Network } from '../solve';

/**
 * The solution of one reading, kept so that further faults which cannot change it need no solve of their own.
 *
 * network  the one it was solved on; volts per network node; states of its junctions; adjoint: volts per ampere at each node (reciprocity).
 * pinAmps  per part and pin, the sum of what its devices carry at that pin; amps the test current, reading volts at the leads.
 */
export interface KnownSolution {
  readonly network: Network;
  readonly volts: Float64Array;
  readonly states: JunctionStates;
  readonly adjoint: Float64Array;
  readonly pinAmps: readonly (Float64Array | undefined)[];
  readonly amps: number;
  readonly reading: number;
}

/** Largest relative change of a reading that counts as none. A tenth of a promille: far inside every tolerance. */
const NEGLIGIBLE = 1e-4;

/** Notes the present solution of the solver for the reading between two nodes. */
export function keepSolution(board: Board, solver: DcSolver, red: number, black: number, amps: number): KnownSolution {
  const { network } = solver;
  const volts = Float64Array.from({ length: network.nodeCount }, (_, i) =>
    network.component[i] === network.component[red] ? solver.voltsOf(i) : 0,
  );
  const adjoint = new Float64Array(network.nodeCount);
  solver.adjoint(red, black, adjoint);
  const pinAmps: (Float64Array | undefined)[] = new Array(board.parts.length).fill(undefined);
  const pinNodes = pinNodesOf(board, network);
  for (const flow of solver.flows(red)) {
    const pins = pinNodes[flow.owner]!;
    const own = (pinAmps[flow.owner] ??= new Float64Array(pins.length));
    for (let t = 0; t < flow.nodes.length; t++) {
      const node = flow.nodes[t]!;
      for (let i = 0; i < pins.length; i++) if (pins[i] === node) own[i] = own[i]! + Math.abs(flow.amps[t]!);
    }
  }
  return {
    network,
    volts,
    states: solver.junctionStates(red),
    adjoint,
    pinAmps,
    amps,
    reading: Math.abs(volts[red]! - volts[black]!),
  };
}

const pinsOf = new WeakMap<Network, readonly (readonly number[])[]>();

/** Network node of every pin of every part. */
function pinNodesOf(board: Board, network: Network): readonly (readonly number[])[] {
  const known = pinsOf.get(network);
  if (known) return known;
  const made = board.parts.map((p) => p.nets.map((net) => network.nodeOfNet.get(netKey(net)) ?? -1));
  pinsOf.set(network, made);
  return made;
}

/**
 * Whether faults together cannot change a known reading.
 *
 * Where none of them changes a current or a voltage of the known solution, that solution still obeys every law of the
 * changed network, whatever number of them there is; small rests add up, so each gets its share of what is allowed.
 */
export function noneCanChange(board: Board, known: KnownSolution, faults: readonly Fault[]): boolean {
  const allowed = NEGLIGIBLE / faults.length;
  return faults.every((fault) => cannotChange(board, known, fault, allowed));
}

/**
 * Whether a fault cannot change a reading by more than the allowed share.
 *
 * An opened pin: by the compensation theorem the change is at most the current that flowed there, over the test
 * current. A short or leak: the change is at most the voltage that stood across it times the adjoint voltage there,
 * over its resistance. Exact zero for parts of another component.
 * Source: C. A. Desoer and E. S. Kuh, Basic Circuit Theory (1969), chapter 16 (substitution, reciprocity).
 */
function cannotChange(board: Board, known: KnownSolution, fault: Fault, allowed: number): boolean {
  if (fault.kind === 'esr') return true;
  const part = findPart(board, fault.ref)!;
  const index = board.parts.indexOf(part);
  if (fault.kind === 'value') {
    if (part.kind !== 'resistor') return true;
    return mostAmps(known.pinAmps[index]) <= allowed * known.amps;
  }
  if (fault.kind === 'open') {
    const amps = known.pinAmps[index];
    const at = fault.pin === undefined ? -1 : pinIndex(board, part, fault.pin);
    const most = at < 0 ? mostAmps(amps) : (amps?.[at] ?? 0);
    // The far side of a gigaohm still leaks: the reading may see it where the test current is small.
    return most <= allowed * known.amps && (at < 0 || known.reading < OPEN_OHMS * known.amps * 10);
  }
  const ohms = fault.kind === 'short' ? SHORT_OHMS : fault.ohms;
  const pins = fault.pins ? fault.pins.map((p) => pinIndex(board, part, p)) : part.nets.map((_, i) => i);
  const nodes = pins.map((p) => known.network.nodeOfNet.get(netKey(part.nets[p]!)) ?? -1);
  if (nodes.some((n) => n < 0)) return false;
  const component = (n: number): number => known.network.component[n]!;
  if (nodes.some((n) => component(n) !== component(nodes[0]!))) return false;
  for (let i = 0; i < nodes.length; i++) {
    for (let j = i + 1; j < nodes.length; j++) {
      const across = Math.abs(known.volts[nodes[i]!]! - known.volts[nodes[j]!]!);
      const transfer = Math.abs(known.adjoint[nodes[i]!]! - known.adjoint[nodes[j]!]!);
      const worst = Math.max((across * transfer) / ohms, (across * across) / (ohms * known.amps));
      if (worst > allowed * known.reading) return false;
    }
  }
  return true;
}

function mostAmps(amps: Float64Array | undefined): number {
  let most = 0;
  if (amps) for (let i = 0; i < amps.length; i++) most = Math.max(most, amps[i]!);
  return most;
}
