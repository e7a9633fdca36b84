import { factorDense, factorSparse, solveDense, solveSparse, solveSparseTransposed } from '../linear';
import { invariant, ok, refuse } from '../problem';
import type { Problem, Result } from '../problem';
import { assemble } from './assemble';
import { buildComponentSystem, noStates } from './componentSystem';
import type { ComponentSystem, JunctionStates } from './componentSystem';
import { deviceFlows } from './deviceFlows';
import type { DeviceFlow } from './deviceFlows';
import type { Network } from './network';
import { spreadSquares } from './readingSpread';
import { coldStimulus } from './stimulus';
import type { LeadDrive, Stimulus } from './stimulus';

export type NoConvergence = Problem<'no-convergence', { readonly node: string }>;

/** A DC solution: the voltage between the leads and the current out of the red one. */
export interface LeadSolution {
  readonly volts: number;
  readonly amps: number;
}

const MOST_STEPS = 80;
const CONFINED_STEPS = 40;

/**
 * DC operating points of one network, any probe pair, component by component.
 *
 * Nodal analysis with Newton, junction limiting and a static sparse pattern; the meter's leads are the only
 * source. A hard start is helped by shunts from every node to the black lead, stepped down to none.
 * The accepted solution meets Kirchhoff's current law at every node to 1e-6 of the largest branch current there,
 * or 1e-15 A, besides what rounding of the voltages leaves; only 1e-15 S stay across each junction.
 */
export class DcSolver {
  private readonly systems = new Map<number, ComponentSystem>();
  private readonly local: Int32Array;
  /** Newton steps taken so far, for the benchmark. */
  steps = 0;
  /** How often plain Newton did not settle and shunts had to help, for the benchmark. */
  hardStarts = 0;

  constructor(readonly network: Network) {
    this.local = new Int32Array(network.nodeCount).fill(-1);
  }

  /** Whether a current can find a way from one node to the other at all. */
  connected(red: number, black: number): boolean {
    return this.network.component[red] === this.network.component[black];
  }

  /**
   * Solves with the leads on two different nodes of one component.
   *
   * keep         starts from the voltages of the last solve on this component instead of from zero.
   * readingOnly  stops when the reading is right to 1e-4, however nodes that cannot change it still move.
   * Refuses with `no-convergence`, naming the node that would not settle.
   */
  solve(
    red: number,
    black: number,
    drive: LeadDrive,
    keep = false,
    readingOnly = false,
  ): Result<LeadSolution, NoConvergence> {
    invariant(red !== black && this.connected(red, black), 'solve: leads must be on two nodes of one component');
    const system = this.systemOf(red);
    const stimulus = coldStimulus(this.local[red]!, this.local[black]!, drive);
    if (!keep) this.reset(system);
    let stuck = this.newton(system, stimulus, 0, readingOnly);
    if (stuck >= 0) {
      this.hardStarts++;
      this.reset(system);
      for (let decade = 2; decade <= 14; decade++) this.newton(system, stimulus, 10 ** -decade, false);
      stuck = this.newton(system, stimulus, 0, readingOnly);
    }
    if (stuck >= 0) {
      const node = this.network.nodeNames[system.nodes[stuck]!]!;
      return refuse({
        code: 'no-convergence',
        sentence: `The reading could not be computed: node ${node} does not settle.`,
        remedy: 'Check the parts around it for an impossible value.',
        details: { node },
      });
    }
    const { volts } = system.work;
    const reading = volts[stimulus.red]! - volts[stimulus.black]!;
    return ok({
      volts: reading,
      amps: drive.kind === 'current' ? drive.amps : stimulus.amps - stimulus.siemens * volts[stimulus.red]!,
    });
  }

  /**
   * Starts the next `solve(…, keep = true)` on the component of `node` from known voltages, network nodes in order.
   * A good start is the solution of a nearly equal network; a bad one only costs steps. states: what that network's
   * junctions carried, where it has the same ones.
   */
  startFrom(node: number, volts: Float64Array, states?: JunctionStates): void {
    const system = this.systemOf(node);
    const { done, index } = system.junctions;
    if (states?.volts.length === this.network.junctions.length) {
      for (let d = 0; d < index.length; d++) {
        done.volts[d] = states.volts[index[d]!]!;
        done.amps[d] = states.amps[index[d]!]!;
        done.siemens[d] = states.siemens[index[d]!]!;
      }
    }
    const { work, junctions, bjts } = system;
    for (let i = 0; i < system.size; i++) work.volts[i] = volts[system.nodes[i]!]!;
    for (let d = 0; d < junctions.count; d++)
      junctions.at[d] = work.volts[junctions.a[d]!]! - work.volts[junctions.k[d]!]!;
    for (let i = 0; i < bjts.count; i++) {
      const [c, b, e] = [bjts.pins[3 * i]!, bjts.pins[3 * i + 1]!, bjts.pins[3 * i + 2]!];
      const sign = system.parameters[bjts.offset[i]!]!;
      bjts.at[2 * i] = sign * (work.volts[b]! - work.volts[e]!);
      bjts.at[2 * i + 1] = sign * (work.volts[b]! - work.volts[c]!);
    }
  }

  /** What the junctions around a node carried in the last solution, in the order of the network's; the others unknown. */
  junctionStates(node: number): JunctionStates {
    const states = noStates(this.network.junctions.length);
    const { done, index } = this.systemOf(node).junctions;
    for (let d = 0; d < index.length; d++) {
      states.volts[index[d]!] = done.volts[d]!;
      states.amps[index[d]!] = done.amps[d]!;
      states.siemens[index[d]!] = done.siemens[d]!;
    }
    return states;
  }

  /** Voltage of a node in the last solution on its component; 0 for a component that was never solved. */
  voltsOf(node: number): number {
    const system = this.systems.get(this.network.component[node]!);
    return system ? system.work.volts[this.local[node]!]! : 0;
  }

  /** Largest current that a controlled device (channel or collector) carried in the last solution around this node. */
  controlledAmps(node: number): number {
    const system = this.systemOf(node);
    let most = 0;
    for (let i = 0; i < system.mosfets.count; i++) most = Math.max(most, Math.abs(system.mosfets.at[2 * i]!));
    return most;
  }

  /** What every device of the component of `node` carries in the last solution. */
  flows(node: number): readonly DeviceFlow[] {
    return deviceFlows(this.systemOf(node));
  }

  /**
   * Volts at each node of the network that one ampere into the leads would add, to first order, in the last solution:
   * written into `out` (network nodes; 0 outside the component). By reciprocity also the reading's sensitivity to a
   * current drawn at that node.
   */
  adjoint(red: number, black: number, out: Float64Array): void {
    const system = this.systemOf(red);
    const { work } = system;
    factor(system);
    work.step.fill(0);
    work.step[this.local[red]!] = 1;
    work.step[this.local[black]!] = work.step[this.local[black]!]! - 1;
    solveSparseTransposed(system.pattern, work.values, work.step);
    out.fill(0);
    for (let i = 0; i < system.size; i++) out[system.nodes[i]!] = work.step[i]!;
  }

  /**
   * One sigma of the last current-driven reading, in volts, from the spread of every part on the component.
   *
   * First order, by the adjoint: one transposed solve gives the sensitivity to every part at once.
   * Source: S. W. Director and R. A. Rohrer, "The generalized adjoint network and network sensitivities",
   * IEEE Trans. Circuit Theory CT-16 (1969).
   */
  readingSigma(red: number, black: number): number {
    const system = this.systemOf(red);
    const { work } = system;
    const adjoint = work.step;
    factor(system);
    adjoint.fill(0);
    adjoint[this.local[red]!] = 1;
    adjoint[this.local[black]!] = adjoint[this.local[black]!]! - 1;
    solveSparseTransposed(system.pattern, work.values, adjoint);
    return Math.sqrt(spreadSquares(system, adjoint));
  }

  private systemOf(node: number): ComponentSystem {
    const key = this.network.component[node]!;
    const known = this.systems.get(key);
    if (known) return known;
    const made = buildComponentSystem(this.network, node, this.local);
    this.systems.set(key, made);
    return made;
  }

  private reset(system: ComponentSystem): void {
    system.work.volts.fill(0);
    system.junctions.at.fill(0);
    system.bjts.at.fill(0);
    system.mosfets.at.fill(0);
  }

  /** Newton from the present voltages; -1 when settled, else the local node with the worst residual. */
  private newton(system: ComponentSystem, stimulus: Stimulus, shunt: number, readingOnly: boolean): number {
    const { work, pattern, size } = system;
    let worst = 0;
    for (let step = 0; step < MOST_STEPS; step++) {
      const limited = assemble(system, stimulus, shunt);
      system.factored = false;
      if (readingOnly && stimulus.passive && !limited && readingSettled(system, stimulus)) return -1;
      worst = worstNode(system);
      if (worst < 0 && !limited) return -1;
      const failed = factor(system);
      for (let i = 0; i < size; i++) work.step[i] = -work.residual[i]!;
      if (failed < 0) solveSparse(pattern, work.values, work.step);
      else if (!solveByPivoting(system)) return failed;
      // Steps that leave the room there is are cut to it at first.
      const room = step < CONFINED_STEPS ? stimulus.roomVolts : Infinity;
      for (let i = 0; i < size; i++)
        work.volts[i] = Math.min(room, Math.max(-0.01 * room, work.volts[i]! + work.step[i]!));
      this.steps++;
    }
    return worst < 0 ? 0 : worst;
  }
}

/** Factors what was assembled last, unless that is done; gives the node whose pivot vanished, or -1. */
function factor(system: ComponentSystem): number {
  if (system.factored) return -1;
  const { work, pattern } = system;
  work.assembled.set(work.values);
  work.excessKept.set(work.excess);
  system.factored = true;
  return factorSparse(pattern, work.values, work.excess);
}

/** Share of the current through the leads that may be unaccounted for when only the reading matters. */
const UNACCOUNTED = 1e-4;

/**
 * Whether the currents that do not add up yet can matter to the reading: in a network that gives no power one ampere
 * anywhere moves the leads by no more than one ampere into the leads does.
 */
function readingSettled(system: ComponentSystem, stimulus: Stimulus): boolean {
  const { residual, volts } = system.work;
  let total = 0;
  for (let i = 0; i < system.size; i++) total += Math.abs(residual[i]!);
  const amps = stimulus.siemens > 0 ? stimulus.amps - stimulus.siemens * volts[stimulus.red]! : stimulus.amps;
  return total <= UNACCOUNTED * Math.abs(amps);
}

/** The node that breaks Kirchhoff's current law the most, or -1 when none does. */
function worstNode(system: ComponentSystem): number {
  const { residual, largest, noise } = system.work;
  let worst = -1;
  let excess = 1;
  for (let i = 0; i < system.size; i++) {
    const ratio = Math.abs(residual[i]!) / (Math.max(1e-6 * largest[i]!, 1e-15) + noise[i]!);
    if (ratio > excess || Number.isNaN(ratio)) [worst, excess] = [i, Number.isNaN(ratio) ? Infinity : ratio];
  }
  return worst;
}

/** Falls back on a dense factorisation with pivoting when the static order met a vanishing pivot. */
function solveByPivoting(system: ComponentSystem): boolean {
  const { size: n, pattern, work } = system;
  const dense = new Float64Array(n * n);
  for (let i = 0; i < n; i++) {
    dense[i * n + i] = work.excessKept[i]!;
    for (let j = 0; j < n; j++) {
      const slot = i === j ? -1 : pattern.slotOf(i, j);
      if (slot < 0) continue;
      dense[i * n + j] = work.assembled[slot]!;
      dense[i * n + i] = dense[i * n + i]! - work.assembled[slot]!;
    }
  }
  const pivots = new Int32Array(n);
  if (!factorDense(dense, pivots, n).ok) return false;
  solveDense(dense, pivots, n, work.step);
  return true;
}
