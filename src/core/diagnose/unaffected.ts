import { findPart, netKey, pinIndex } from '../circuit';
import type { Board } from '../circuit';
import { OPEN_OHMS, SHORT_OHMS } from '../fault';
import type { Fault } from '../fault';
import type { DcSolver } from '../solve';

/**
 * The healthy solution of one reading, kept so that faults which cannot change it need no solve of their own.
 *
 * volts    per network node; adjoint: volts per ampere at each node (reciprocity).
 * pinAmps  per part and pin, the sum of branch currents at that pin; amps the test current.
 */
export interface HealthySolution {
  readonly volts: Float64Array;
  readonly adjoint: Float64Array;
  readonly pinAmps: readonly (Float64Array | undefined)[];
  readonly amps: number;
  readonly reading: number;
  /** Conductive component that the leads are on. */
  readonly component: number;
}

/** Largest relative change of a reading that counts as none. A tenth of a promille: far inside every tolerance. */
const NEGLIGIBLE = 1e-4;

/** Notes the present solution of the solver for the reading between two nodes. */
export function keepSolution(
  board: Board,
  solver: DcSolver,
  red: number,
  black: number,
  amps: number,
): HealthySolution {
  const { network } = solver;
  const volts = Float64Array.from({ length: network.nodeCount }, (_, i) =>
    network.component[i] === network.component[red] ? solver.voltsOf(i) : 0,
  );
  const adjoint = new Float64Array(network.nodeCount);
  solver.adjoint(red, black, adjoint);
  const pinAmps: (Float64Array | undefined)[] = new Array(board.parts.length).fill(undefined);
  for (const flow of solver.flows(red)) {
    const part = board.parts[flow.owner]!;
    const own = (pinAmps[flow.owner] ??= new Float64Array(part.nets.length));
    part.nets.forEach((net, i) => {
      const node = network.nodeOfNet.get(netKey(net));
      if (node === flow.a || node === flow.b) own[i] = own[i]! + Math.abs(flow.amps);
    });
  }
  return {
    volts,
    adjoint,
    pinAmps,
    amps,
    reading: Math.abs(volts[red]! - volts[black]!),
    component: network.component[red]!,
  };
}

/**
 * Whether faults together cannot change a reading. Of several at once only those in other components are sure not to:
 * two faults that are harmless alone may matter together.
 */
export function noneCanChange(
  board: Board,
  solver: DcSolver,
  healthy: HealthySolution,
  faults: readonly Fault[],
): boolean {
  const [only] = faults;
  if (faults.length === 1 && only) return cannotChange(board, solver, healthy, only);
  return faults.every((f) => outside(board, solver, healthy, f));
}

/** Whether every pin of the faulty part lies in another component than the leads. */
function outside(board: Board, solver: DcSolver, healthy: HealthySolution, fault: Fault): boolean {
  const { component, nodeOfNet } = solver.network;
  return findPart(board, fault.ref)!.nets.every((net) => {
    const node = nodeOfNet.get(netKey(net));
    return node === undefined || component[node] !== healthy.component;
  });
}

/**
 * Whether a fault cannot change a reading by more than a tenth of a promille.
 *
 * An opened pin: by the compensation theorem the change is at most the current that flowed there, over the test
 * current. A short or leak: the change is at most the voltage that stood across it times the adjoint voltage there,
 * over its resistance. Exact zero for parts of another component.
 * Source: C. A. Desoer and E. S. Kuh, Basic Circuit Theory (1969), chapter 16 (substitution, reciprocity).
 */
function cannotChange(board: Board, solver: DcSolver, healthy: HealthySolution, fault: Fault): boolean {
  if (fault.kind === 'esr') return true;
  const part = findPart(board, fault.ref)!;
  const index = board.parts.indexOf(part);
  if (fault.kind === 'value') {
    if (part.kind !== 'resistor') return true;
    return mostAmps(healthy.pinAmps[index]) <= NEGLIGIBLE * healthy.amps;
  }
  if (fault.kind === 'open') {
    const amps = healthy.pinAmps[index];
    const at = fault.pin === undefined ? -1 : pinIndex(board, part, fault.pin);
    const most = at < 0 ? mostAmps(amps) : (amps?.[at] ?? 0);
    // The far side of a gigaohm still leaks: the reading may see it where the test current is small.
    return most <= NEGLIGIBLE * healthy.amps && (at < 0 || healthy.reading < OPEN_OHMS * healthy.amps * 10);
  }
  const ohms = fault.kind === 'short' ? SHORT_OHMS : fault.ohms;
  const pins = fault.pins ? fault.pins.map((p) => pinIndex(board, part, p)) : part.nets.map((_, i) => i);
  const nodes = pins.map((p) => solver.network.nodeOfNet.get(netKey(part.nets[p]!)) ?? -1);
  if (nodes.some((n) => n < 0)) return false;
  const component = (n: number): number => solver.network.component[n]!;
  if (nodes.some((n) => component(n) !== component(nodes[0]!))) return false;
  for (let i = 0; i < nodes.length; i++) {
    for (let j = i + 1; j < nodes.length; j++) {
      const across = Math.abs(healthy.volts[nodes[i]!]! - healthy.volts[nodes[j]!]!);
      const transfer = Math.abs(healthy.adjoint[nodes[i]!]! - healthy.adjoint[nodes[j]!]!);
      const worst = Math.max((across * transfer) / ohms, (across * across) / (ohms * healthy.amps));
      if (worst > NEGLIGIBLE * healthy.reading) return false;
    }
  }
  return true;
}

function mostAmps(amps: Float64Array | undefined): number {
  let most = 0;
  if (amps) for (let i = 0; i < amps.length; i++) most = Math.max(most, amps[i]!);
  return most;
}
