import { ints, solveSparseTransposed } from '../linear';
import { invariant, ok, refuse } from '../problem';
import type { Problem, Result } from '../problem';
import { buildComponentSystem, noStates } from './componentSystem';
import type { ComponentSystem, JunctionStates } from './componentSystem';
import { deviceFlows, evaluateAt } from './deviceFlows';
import type { DeviceFlow } from './deviceFlows';
import { addBranches, copySolution } from './nearby';
import type { FactoredSolution } from './nearby';
import { MOST_BRANCHES } from './nearbyRoom';
import { openPin } from './openedPin';
import type { OpenedPin } from './openedPin';
import type { Network, NetworkDevice } from './network';
import { factor, linearise, newton } from './newton';
import { mainDraws, spreadEffects } from './readingSpread';
import type { MainDraws } from './readingSpread';
import { coldStimulus } from './stimulus';
import type { LeadDrive } from './stimulus';

/** Share of a reading that the spread of one part must make to count. */
const UNFELT = 5e-4;

/** Where a start is hard: how far a node may move at first if all that the leads drive went there, volts. */
const FIRST_MOVE = 0.1;
/** Steps of a start before it counts as hard. */
const EASY_STEPS = 40;

export type NoConvergence = Problem<'no-convergence', { readonly node: string }>;

/** A DC solution: the voltage between the leads and the current out of the red one. */
export interface LeadSolution {
  readonly volts: number;
  readonly amps: number;
}

/**
 * DC operating points of one network, any probe pair, component by component.
 *
 * Nodal analysis with Newton, junction limiting and a static sparse pattern; the meter's leads are the only
 * source. A hard start is helped by inertia, and where that fails by shunts from every node to the black lead, stepped down
 * to none.
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
    this.local = ints(network.nodeCount).fill(-1);
  }

  /** Whether a current can find a way from one node to the other at all. */
  connected(red: number, black: number): boolean {
    return this.network.component[red] === this.network.component[black];
  }

  /**
   * Solves with the leads on two different nodes of one component.
   *
   * keep    starts from the voltages of the last solve on this component instead of from zero.
   * share   where only the reading matters: stops when it is right to this share, however nodes that cannot change it still
   *         move; 0: every node must settle.
   * Refuses with `no-convergence`, naming the node that would not settle.
   */
  solve(red: number, black: number, drive: LeadDrive, keep = false, share = 0): Result<LeadSolution, NoConvergence> {
    invariant(red !== black && this.connected(red, black), 'solve: leads must be on two nodes of one component');
    const system = this.systemOf(red);
    const stimulus = coldStimulus(this.local[red]!, this.local[black]!, drive);
    system.driven = stimulus;
    if (!keep) this.reset(system);
    let stuck = newton(system, stimulus, { shunt: 0, share, most: EASY_STEPS }, this);
    if (stuck >= 0) {
      this.hardStarts++;
      this.reset(system);
      stuck = newton(system, stimulus, { shunt: 0, share, inertia: stimulus.amps / FIRST_MOVE }, this);
    }
    if (stuck >= 0) {
      this.reset(system);
      for (let decade = 2; decade <= 14; decade++) newton(system, stimulus, { shunt: 10 ** -decade, share: 0 }, this);
      stuck = newton(system, stimulus, { shunt: 0, share }, this);
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
      if (index.length === states.volts.length) {
        done.volts.set(states.volts);
        done.amps.set(states.amps);
        done.siemens.set(states.siemens);
      } else
        for (let d = 0; d < index.length; d++) {
          done.volts[d] = states.volts[index[d]!]!;
          done.amps[d] = states.amps[index[d]!]!;
          done.siemens[d] = states.siemens[index[d]!]!;
        }
    }
    for (let i = 0; i < system.size; i++) system.work.volts[i] = volts[system.nodes[i]!]!;
    linearise(system);
  }

  /** Scales the voltages around a node: a start for the next `solve(…, keep = true)` between the same leads with more or less drive. */
  scaleStart(node: number, factor: number): void {
    const system = this.systemOf(node);
    const { volts } = system.work;
    for (let i = 0; i < system.size; i++) volts[i] = factor * volts[i]!;
    linearise(system);
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

  /** Voltages of the last solution around a node, written into `out` (network nodes; 0 outside the component). */
  copyVolts(node: number, out: Float64Array): void {
    const system = this.systemOf(node);
    perNetworkNode(system, system.work.volts, out);
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

  /** The same one by one, without keeping any: `visit` gets each device and the amperes into its terminals. */
  eachFlow(node: number, visit: (device: NetworkDevice, flow: Float64Array) => void): void {
    const system = this.systemOf(node);
    for (let d = 0; d < system.devices.length; d++) visit(system.devices[d]!, evaluateAt(system, d).flow);
  }

  /** Keeps the last solution around a node with its factors, for `nearby`. */
  keep(node: number): FactoredSolution {
    const system = this.systemOf(node);
    factor(system);
    return copySolution(system);
  }

  /**
   * The solution `kept` with conductances added between nodes of its component; false where it takes a solve. See
   * `addBranches`.
   *
   * ends  two network nodes for each; out: volts per network node, 0 outside the component.
   */
  nearby(kept: FactoredSolution, ends: Int32Array, siemens: Float64Array, out: Float64Array, allowed: number): boolean {
    const { work, nearby } = kept.system;
    invariant(siemens.length <= MOST_BRANCHES, 'nearby: too many branches');
    for (let i = 0; i < ends.length; i++) nearby.ends[i] = this.local[ends[i]!]!;
    if (!addBranches(kept, { ends: nearby.ends, siemens }, work.step, allowed)) return false;
    perNetworkNode(kept.system, work.step, out);
    return true;
  }

  /**
   * The solution `kept` with a pin of a part opened; false where it takes a solve. See `openPin`.
   *
   * pin  its node is the network's; out: volts per network node, 0 outside the component.
   */
  opened(kept: FactoredSolution, pin: OpenedPin, out: Float64Array, allowed: number): boolean {
    const { work } = kept.system;
    if (!openPin(kept, { ...pin, node: this.local[pin.node]! }, work.step, allowed)) return false;
    perNetworkNode(kept.system, work.step, out);
    return true;
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
    perNetworkNode(system, work.step, out);
  }

  /**
   * One sigma of the last current-driven reading, in volts, from the spread of every part on the component, with the
   * draws that make the most of it.
   *
   * amps  the test current: then what makes less than half a promille of the reading is left out.
   *
   * First order, by the adjoint: one transposed solve gives the sensitivity to every part at once.
   * Source: S. W. Director and R. A. Rohrer, "The generalized adjoint network and network sensitivities",
   * IEEE Trans. Circuit Theory CT-16 (1969).
   */
  readingSigma(red: number, black: number, amps = 0): { readonly sigma: number; readonly main: MainDraws } {
    const system = this.systemOf(red);
    const { work } = system;
    const adjoint = work.step;
    factor(system);
    adjoint.fill(0);
    adjoint[this.local[red]!] = 1;
    adjoint[this.local[black]!] = adjoint[this.local[black]!]! - 1;
    solveSparseTransposed(system.pattern, work.values, adjoint);
    const volts = Math.abs(work.volts[this.local[red]!]! - work.volts[this.local[black]!]!);
    const squares = spreadEffects(system, adjoint, amps > 0 ? UNFELT * volts : 0, amps);
    return { sigma: Math.sqrt(squares), main: mainDraws(system, squares) };
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
}

/** Writes what there is of each local node to its network node; 0 to the others. */
function perNetworkNode({ nodes, size }: ComponentSystem, local: Float64Array, out: Float64Array): void {
  out.fill(0);
  for (let i = 0; i < size; i++) out[nodes[i]!] = local[i]!;
}
