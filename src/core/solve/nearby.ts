import { channelCurrent, isCutOff, junctionAt, transportAt } from '../device';
import { THERMAL_VOLTS } from '../part';
import { factorDense, floats, floatsOf, solveDense, solveSparse } from '../linear';
import { CLAMP_SLOPE, clampAmps, steadied } from './assemble';
import type { ComponentSystem } from './componentSystem';
import type { Stimulus } from './stimulus';

/** A solution of one component with the factors of its Jacobian, kept: what a network nearly the same does follows from it. */
export interface FactoredSolution {
  readonly system: ComponentSystem;
  readonly values: Float64Array;
  /** Volts per local node; what each junction carried: amperes and siemens; of each transistor as in its table. */
  readonly volts: Float64Array;
  readonly junctionAmps: Float64Array;
  readonly junctionSiemens: Float64Array;
  readonly transistors: Float64Array;
  readonly driven: Stimulus | null;
}

/** Copies what is needed of a component's present, factored solution. */
export function copySolution(system: ComponentSystem): FactoredSolution {
  const { work, junctions, bjts } = system;
  return {
    system,
    values: floatsOf(work.values),
    volts: floatsOf(work.volts),
    junctionAmps: floatsOf(junctions.done.amps),
    junctionSiemens: floatsOf(junctions.done.siemens),
    transistors: floatsOf(bjts.done),
    driven: system.driven,
  };
}

/**
 * Conductances added to a solved network, at most `MOST_BRANCHES`: local nodes of their ends, two for each, and siemens
 * (less than 0 takes away).
 */
export interface AddedBranches {
  readonly ends: Int32Array;
  readonly siemens: Float64Array;
}

export const MOST_ROUNDS = 8;
/** Further off than this, of what is allowed, the rounds would not come home. */
export const MOST_BENT = 2000;

/**
 * Voltages of a network with some conductances added, by the factors of the solution without them: first with every
 * device along its tangent, then, round by round, with what they are off it put back as currents.
 *
 * out      volts per local node.
 * allowed  what may stay unaccounted for, amperes summed over the nodes; more where the source holds the leads.
 * Gives whether that was reached: where the devices bend too much for this, it is not.
 * Source: M. A. Woodbury, Inverting modified matrices (1950); W. W. Hager, SIAM Review 31 (1989); the rounds are the
 * chord method, J. M. Ortega and W. C. Rheinboldt, Iterative Solution of Nonlinear Equations (1970), section 7.1.
 */
export function addBranches(kept: FactoredSolution, added: AddedBranches, out: Float64Array, allowed: number): boolean {
  const { system, volts } = kept;
  const { size: n, nearby: room } = system;
  if (!prepare(kept, added)) return false;
  const { linear, bent, bentBefore } = room;
  // The change along the tangents: what the added conductances draw at the voltages that stood there.
  linear.set(volts);
  if (!take(system, added, volts, linear)) return false;
  out.set(linear);
  bentBefore.fill(0);
  let before = Infinity;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    bendings(kept, out, bent, allowed);
    let left = 0;
    for (let i = 0; i < n; i++) left += Math.abs(bent[i]! - bentBefore[i]!);
    if (left <= allowed * held(kept, out)) return true;
    if (!(left < before / 2 && left < MOST_BENT * allowed)) return false;
    before = left;
    bentBefore.set(bent);
    for (let i = 0; i < n; i++) bent[i] = -bent[i]!;
    solveSparse(system.pattern, kept.values, bent);
    if (!take(system, added, bent, bent)) return false;
    for (let i = 0; i < n; i++) out[i] = linear[i]! + bent[i]!;
  }
  return false;
}

/** How many times what is allowed may be unaccounted for: see `steadied`. */
export function held({ system, driven }: FactoredSolution, volts: Float64Array): number {
  return driven ? steadied(system, driven, volts) : 1;
}

/**
 * Makes ready what the added conductances do, in the component's room: the volts that an ampere through each of them
 * makes, and the factors of (1/g + Uᵀ A⁻¹ U). False where there is no answer.
 */
function prepare({ system, values }: FactoredSolution, { ends, siemens }: AddedBranches): boolean {
  const { size: n, nearby } = system;
  const { columns, matrix, pivots } = nearby;
  const k = siemens.length;
  for (let i = 0; i < k; i++) {
    const z = (columns[i] ??= floats(n));
    if (third(ends, i, columns, z)) continue;
    z.fill(0);
    z[ends[2 * i]!] = 1;
    z[ends[2 * i + 1]!] = z[ends[2 * i + 1]!]! - 1;
    solveSparse(system.pattern, values, z);
  }
  for (let i = 0; i < k; i++)
    for (let j = 0; j < k; j++)
      matrix[i * k + j] = columns[j]![ends[2 * i]!]! - columns[j]![ends[2 * i + 1]!]! + (i === j ? 1 / siemens[i]! : 0);
  return k === 1 ? matrix[0] !== 0 : factorDense(matrix, pivots, k).ok;
}

/** Where two columns before share their first node and end at the nodes of this one, it is what they differ by: into `z`. */
function third(ends: Int32Array, i: number, columns: readonly Float64Array[], z: Float64Array): boolean {
  for (let j = 0; j < i; j++) {
    if (ends[2 * j + 1] !== ends[2 * i]) continue;
    for (let l = 0; l < i; l++) {
      if (ends[2 * l + 1] !== ends[2 * i + 1] || ends[2 * l] !== ends[2 * j]) continue;
      const [there, here] = [columns[l]!, columns[j]!];
      for (let m = 0; m < z.length; m++) z[m] = there[m]! - here[m]!;
      return true;
    }
  }
  return false;
}

/**
 * Takes from voltages what currents through the added conductances do to them.
 *
 * before  voltages without them; into: where to take it from, may be the same. False where there is no answer.
 */
function take(
  { size: n, nearby }: ComponentSystem,
  { ends, siemens }: AddedBranches,
  before: Float64Array,
  into: Float64Array,
): boolean {
  const { columns, matrix, pivots, through } = nearby;
  const k = siemens.length;
  for (let i = 0; i < k; i++) through[i] = before[ends[2 * i]!]! - before[ends[2 * i + 1]!]!;
  if (k === 1) through[0] = through[0]! / matrix[0]!;
  else solveDense(matrix, pivots, k, through);
  for (let i = 0; i < k; i++) {
    const z = columns[i]!;
    const amps = through[i]!;
    if (!Number.isFinite(amps)) return false;
    for (let j = 0; j < n; j++) into[j] = into[j]! - amps * z[j]!;
  }
  return true;
}

const AT = new Float64Array(3);

/** Of what is allowed, the part by which one junction may be off unseen, and how far it may be followed for that. */
const UNBENT = 3e-3;
const MOST_STRAIGHT = 0.5 * THERMAL_VOLTS;

/** By how much the devices are off the tangents at their solved voltages: amperes out of each node. */
export function bendings(
  { system, volts, junctionAmps, junctionSiemens, transistors, driven }: FactoredSolution,
  next: Float64Array,
  out: Float64Array,
  allowed: number,
): void {
  const { junctions: j, bjts, mosfets, parameters: p } = system;
  out.fill(0);
  if (driven) {
    const { red, black } = driven;
    const stood = volts[red]! - volts[black]!;
    const moved = next[red]! - next[black]! - stood;
    const kept = clampAmps(driven, stood);
    out[red] = clampAmps(driven, stood + moved) - kept - (kept / CLAMP_SLOPE) * moved;
  }
  const least = UNBENT * allowed * THERMAL_VOLTS;
  for (let d = 0; d < j.count; d++) {
    const a = j.a[d]!;
    const k = j.k[d]!;
    const moved = next[a]! - next[k]! - (volts[a]! - volts[k]!);
    // Off its tangent by no more than its siemens over thermal volts times the square of the way.
    if (moved * moved * junctionSiemens[d]! <= least && moved < MOST_STRAIGHT && moved > -MOST_STRAIGHT) continue;
    junctionAt(p, j.offset[d]!, next[a]! - next[k]!, AT);
    const amps = AT[0]! - junctionAmps[d]! - junctionSiemens[d]! * moved;
    out[a] = out[a]! + amps;
    out[k] = out[k]! - amps;
  }
  for (let i = 0; i < bjts.count; i++) {
    const c = bjts.pins[3 * i]!;
    const b = bjts.pins[3 * i + 1]!;
    const e = bjts.pins[3 * i + 2]!;
    const o = bjts.offset[i]!;
    const sign = p[o]!;
    const forward = transportBent(p, o, p[o + 4]!, sign * (next[b]! - next[e]!), transistors, 6 * i, 0);
    const backward = transportBent(p, o, p[o + 5]!, sign * (next[b]! - next[c]!), transistors, 6 * i, 1);
    const across = sign * (forward - backward);
    const first = (sign * forward) / p[o + 2]!;
    const second = (sign * backward) / p[o + 3]!;
    out[c] = out[c]! + across - second;
    out[e] = out[e]! - across - first;
    out[b] = out[b]! + first + second;
  }
  for (let i = 0; i < mosfets.count; i++) {
    const d = mosfets.pins[3 * i]!;
    const g = mosfets.pins[3 * i + 1]!;
    const s = mosfets.pins[3 * i + 2]!;
    if (d === s) continue;
    const o = mosfets.offset[i]!;
    const sign = p[o]!;
    // A floating gate sits at its source.
    const gateStood = g < 0 ? 0 : sign * (volts[g]! - volts[s]!);
    const gateNow = g < 0 ? 0 : sign * (next[g]! - next[s]!);
    const stood = sign * (volts[d]! - volts[s]!);
    const now = sign * (next[d]! - next[s]!);
    const threshold = p[o + 1]!;
    if (isCutOff(gateStood, stood, threshold) && isCutOff(gateNow, now, threshold)) continue;
    channelCurrent(gateStood, stood, threshold, p[o + 2]!, p[o + 3]!, AT);
    const followed = AT[0]! + AT[1]! * (gateNow - gateStood) + AT[2]! * (now - stood);
    channelCurrent(gateNow, now, threshold, p[o + 2]!, p[o + 3]!, AT);
    const amps = sign * (AT[0]! - followed);
    out[d] = out[d]! + amps;
    out[s] = out[s]! - amps;
  }
}

/**
 * By how much one of a transistor's two junctions is off its tangent at some volts, amperes of transport; `first`: where the
 * transistor stands in the table of what was told of it, `which` of its junctions.
 */
function transportBent(
  p: Float64Array,
  o: number,
  slope: number,
  now: number,
  transistors: Float64Array,
  first: number,
  which: 0 | 1,
): number {
  transportAt(p[o + 1]!, slope, now, AT);
  const told = first + 2 + 2 * which;
  return AT[0]! - transistors[told]! - transistors[told + 1]! * (now - transistors[first + which]!);
}
