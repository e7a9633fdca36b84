import { factorDense, factorSparse, solveDense, solveSparse } from '../linear';
import { assemble, steadied } from './assemble';
import type { ComponentSystem } from './componentSystem';
import type { Stimulus } from './stimulus';

const MOST_STEPS = 80;
const CONFINED_STEPS = 40;
const QUICK_STEPS = 3;
/** Of the inertia of a step, what the next one has at most. */
const INERTIA_KEPT = 0.85;
/** How far the inertia of a step lets a node move where all that does not add up yet went there, volts. */
const INERTIA_VOLTS = 1;

/**
 * How Newton is tried.
 *
 * shunt    siemens from every node to the black lead.
 * share    of the current through the leads that may be unaccounted for where only the reading matters; 0: every node counts.
 * inertia  siemens at first from every node to where it stood a step before, less as less is unaccounted for: nodes that
 *          hardly anything holds cannot be thrown far off. What settles does not feel it: the last step has none.
 * most     steps; where there is another way to try, few.
 */
export interface Attempt {
  readonly shunt: number;
  readonly share: number;
  readonly inertia?: number;
  readonly most?: number;
}

/**
 * Newton from the present voltages; -1 when settled, else the local node with the worst residual.
 *
 * count  its `steps` grow by those taken.
 * Source of the inertia: C. T. Kelley and D. E. Keyes, "Convergence analysis of pseudo-transient continuation", SIAM J.
 * Numer. Anal. 35 (1998), with its switched evolution relaxation.
 */
export function newton(
  system: ComponentSystem,
  stimulus: Stimulus,
  { shunt, share, inertia = 0, most = MOST_STEPS }: Attempt,
  count: { steps: number },
): number {
  const { work, pattern, size } = system;
  const { volts, values, residual, step: delta } = work;
  let worst = 0;
  let held = inertia;
  for (let step = 0; step < most; step++) {
    const looseAmps = LOOSE * share * leadAmps(system, stimulus);
    const limited = assemble(system, stimulus, shunt, looseAmps);
    system.factored = false;
    const quick = share > 0 && stimulus.passive;
    let settled = quick && !limited && readingSettled(system, stimulus, share);
    // What is left by rounding alone settles no reading: that shows after a few steps.
    if (!settled && (!quick || step >= QUICK_STEPS)) {
      worst = worstNode(system, stimulus);
      settled = worst < 0 && !limited;
    }
    if (settled && held === 0) return -1;
    // Held back, a node may be volts off where next to nothing is missing: the last step goes all the way.
    if (settled) held = 0;
    else if (step > 0) held = Math.min(INERTIA_KEPT * held, unaccounted(system) / INERTIA_VOLTS);
    if (held > 0) for (let i = 0; i < size; i++) work.excess[i] = work.excess[i]! + held;
    const failed = factor(system);
    // The factors stand where the matrix was: that is made once more.
    if (failed >= 0) {
      assemble(system, stimulus, shunt, looseAmps);
      system.factored = false;
    }
    for (let i = 0; i < size; i++) delta[i] = -residual[i]!;
    if (failed < 0) solveSparse(pattern, values, delta);
    else if (!solveByPivoting(system)) return failed;
    // Steps that leave the room there is are cut to it at first.
    const room = step < CONFINED_STEPS ? stimulus.roomVolts : Infinity;
    const floor = -0.01 * room;
    for (let i = 0; i < size; i++) {
      const next = volts[i]! + delta[i]!;
      volts[i] = next > room ? room : next < floor ? floor : next;
    }
    count.steps++;
  }
  return worst < 0 ? 0 : worst;
}

/** Linearises every junction at the present voltages. */
export function linearise({ work: { volts }, junctions, bjts, parameters }: ComponentSystem): void {
  for (let d = 0; d < junctions.count; d++) junctions.at[d] = volts[junctions.a[d]!]! - volts[junctions.k[d]!]!;
  for (let i = 0; i < bjts.count; i++) {
    const base = volts[bjts.pins[3 * i + 1]!]!;
    const sign = parameters[bjts.offset[i]!]!;
    bjts.at[2 * i] = sign * (base - volts[bjts.pins[3 * i + 2]!]!);
    bjts.at[2 * i + 1] = sign * (base - volts[bjts.pins[3 * i]!]!);
  }
}

/** Factors what was assembled last, unless that is done; gives the node whose pivot vanished, or -1. */
export function factor(system: ComponentSystem): number {
  if (system.factored) return -1;
  const { work, pattern } = system;
  system.factored = true;
  return factorSparse(pattern, work.values, work.excess);
}

/** Of what may be unaccounted for, the part by which one junction may be off. */
const LOOSE = 3e-3;

/** What goes through the leads at the present voltages, amperes. */
function leadAmps(system: ComponentSystem, stimulus: Stimulus): number {
  const { amps, siemens, red } = stimulus;
  return siemens > 0 ? Math.abs(amps - siemens * system.work.volts[red]!) : amps;
}

/**
 * Whether the currents that do not add up yet can matter to the reading: in a network that gives no power one ampere
 * anywhere moves the leads by no more than one ampere into the leads does. Not so where it lifts a gate over its threshold:
 * who asks for a board whose gates may stand there (a drawn one) has every node settle.
 */
function readingSettled(system: ComponentSystem, stimulus: Stimulus, share: number): boolean {
  return unaccounted(system) <= share * steadied(system, stimulus, system.work.volts) * leadAmps(system, stimulus);
}

/** The currents that do not add up yet, amperes summed over the nodes. */
function unaccounted({ size, work: { residual } }: ComponentSystem): number {
  let total = 0;
  for (let i = 0; i < size; i++) total += Math.abs(residual[i]!);
  return total;
}

/** What rounding of the voltages alone can leave at each node, amperes. */
function roundingNoise(
  { work: { volts, noise }, resistorA, resistorB, siemens }: ComponentSystem,
  stimulus: Stimulus,
): void {
  noise.fill(0);
  for (let r = 0; r < siemens.length; r++) {
    const [a, b] = [resistorA[r]!, resistorB[r]!];
    const rounding = siemens[r]! * (Math.abs(volts[a]!) + Math.abs(volts[b]!)) * 4.5e-16;
    noise[a] = noise[a]! + rounding;
    noise[b] = noise[b]! + rounding;
  }
  const { red } = stimulus;
  noise[red] = noise[red]! + stimulus.siemens * Math.abs(volts[red]!) * 4.5e-16;
}

/** The node that breaks Kirchhoff's current law the most, or -1 when none does. */
function worstNode(system: ComponentSystem, stimulus: Stimulus): number {
  const { residual, largest, noise } = system.work;
  roundingNoise(system, stimulus);
  let worst = -1;
  let excess = 1;
  for (let i = 0; i < system.size; i++) {
    const ratio = Math.abs(residual[i]!) / (Math.max(1e-6 * largest[i]!, 1e-15) + noise[i]!);
    if (ratio > excess || Number.isNaN(ratio)) [worst, excess] = [i, Number.isNaN(ratio) ? Infinity : ratio];
  }
  return worst;
}

/**
 * Falls back on a dense factorisation with pivoting, of the matrix as assembled, when the static order met a vanishing
 * pivot.
 */
function solveByPivoting(system: ComponentSystem): boolean {
  const { size: n, pattern, work } = system;
  const dense = new Float64Array(n * n);
  for (let i = 0; i < n; i++) {
    dense[i * n + i] = work.excess[i]!;
    for (let j = 0; j < n; j++) {
      const slot = i === j ? -1 : pattern.slotOf(i, j);
      if (slot < 0) continue;
      dense[i * n + j] = work.values[slot]!;
      dense[i * n + i] = dense[i * n + i]! - work.values[slot]!;
    }
  }
  const pivots = new Int32Array(n);
  if (!factorDense(dense, pivots, n).ok) return false;
  solveDense(dense, pivots, n, work.step);
  return true;
}
