import { THERMAL_VOLTS } from '../part';
import {
  BREAKDOWN,
  SATURATION,
  SLOPE,
  channelCurrent,
  criticalVolts,
  isCutOff,
  junctionAt,
  limitJunction,
  transportAt,
} from '../device';
import { floats } from '../linear';
import type { ComponentSystem, JunctionTable, ThreePinTable } from './componentSystem';
import type { Stimulus } from './stimulus';

/** Volts over which what a clamped source keeps to itself grows by e. */
export const CLAMP_SLOPE = 0.005;
const GAUGE_SIEMENS = 1e6;
const JUNCTION_OUT = new Float64Array(3);
const CHANNEL_OUT = new Float64Array(3);

/**
 * Fills the Jacobian and the node residuals of one component at its present voltages.
 *
 * The Jacobian is off-diagonal entries in `values` and row sums in `excess`: every part of the circuit conserves
 * current, so only the meter's leads have a row sum other than zero.
 * residual[i] is the sum of currents leaving node i; `largest` the largest branch current there. Gives true when some
 * junction had to be limited.
 * `shunt` siemens from every node to the black lead help a hard start; 0 in the accepted solution. `looseAmps` is what
 * each junction may be off its curve by being followed along its tangent.
 */
export function assemble(system: ComponentSystem, stimulus: Stimulus, shunt: number, looseAmps = 0): boolean {
  const { volts, values, excess, residual, largest } = system.work;
  values.set(system.linear);
  excess.fill(0);
  residual.fill(0);
  largest.fill(0);
  const { siemens, resistorA, resistorB } = system;
  // Where only the reading matters nobody asks for the largest current at each node.
  const judged = looseAmps === 0;
  for (let r = 0; r < siemens.length; r++) {
    const a = resistorA[r]!;
    const b = resistorB[r]!;
    const amps = siemens[r]! * (volts[a]! - volts[b]!);
    residual[a] = residual[a]! + amps;
    residual[b] = residual[b]! - amps;
    if (!judged) continue;
    const size = Math.abs(amps);
    if (size > largest[a]!) largest[a] = size;
    if (size > largest[b]!) largest[b] = size;
  }
  let limited = assembleJunctions(system, stimulus, looseAmps);
  limited = assembleBjts(system, system.bjts, stimulus) || limited;
  assembleMosfets(system, system.mosfets);
  const { red, black } = stimulus;
  // The black lead is where every ampere returns to the meter, through next to no resistance.
  excess[black] = excess[black]! + GAUGE_SIEMENS;
  residual[black] = residual[black]! + GAUGE_SIEMENS * volts[black]!;
  excess[red] = excess[red]! + stimulus.siemens;
  const into = stimulus.amps - stimulus.siemens * volts[red]!;
  residual[red] = residual[red]! - into;
  largest[red] = Math.max(largest[red]!, Math.abs(into));
  if (stimulus.clampVolts < Infinity) {
    const v = volts[red]! - volts[black]!;
    // At the clamp's own voltage it takes all the current there is: the solution lies no higher.
    const at = Math.min(v, stimulus.clampVolts);
    if (v - at > 1e-9) limited = true;
    const amps = clampAmps(stimulus, at);
    const g = amps / CLAMP_SLOPE;
    excess[red] = excess[red]! + g;
    residual[red] = residual[red]! + amps + g * (v - at);
  }
  if (shunt > 0) {
    for (let i = 0; i < system.size; i++) {
      excess[i] = excess[i]! + shunt;
      residual[i] = residual[i]! + shunt * volts[i]!;
    }
  }
  return limited;
}

/** What the source keeps to itself at a voltage between the leads, amperes: all that it has at its open voltage. */
export function clampAmps({ amps, clampVolts }: Stimulus, volts: number): number {
  return clampVolts < Infinity ? amps * Math.exp((volts - clampVolts) / CLAMP_SLOPE) : 0;
}

/**
 * How many times the source's current may be unaccounted for in a reading, for the same error of it: a source that keeps some
 * to itself holds its leads, what is missing anywhere moves them by no more than it does at the leads. Not so where a gate
 * stands near its threshold, or a base conducts: next to nothing lifts it, and what it turns on draws all there is.
 */
export function steadied(system: ComponentSystem, stimulus: Stimulus, volts: Float64Array): number {
  if (!(stimulus.clampVolts < Infinity)) return 1;
  const across = volts[stimulus.red]! - volts[stimulus.black]!;
  const kept = clampAmps(stimulus, Math.min(across, stimulus.clampVolts));
  const times = (across * kept) / (CLAMP_SLOPE * stimulus.amps);
  return times <= 1 || gateAwake(system, volts) || baseAwake(system, volts) ? 1 : times;
}

/** Of its threshold, the part above which a gate is near it. */
const AWAKE = 0.5;

/** Whether some gate, against source or drain, stands near its threshold or above. */
function gateAwake({ mosfets: m, parameters: p }: ComponentSystem, volts: Float64Array): boolean {
  for (let i = 0; i < m.count; i++) {
    const d = m.pins[3 * i]!;
    const g = m.pins[3 * i + 1]!;
    const s = m.pins[3 * i + 2]!;
    if (g < 0 || d === s) continue;
    const o = m.offset[i]!;
    const lower = Math.min(p[o]! * volts[d]!, p[o]! * volts[s]!);
    if (p[o]! * volts[g]! - lower > AWAKE * p[o + 1]!) return true;
  }
  return false;
}

/** Volts from which a base junction lets through what its transistor makes much of. */
const BASE_AWAKE = 0.3;

/** Whether the base of some transistor conducts, to either side. */
function baseAwake({ bjts: q, parameters: p }: ComponentSystem, volts: Float64Array): boolean {
  for (let i = 0; i < q.count; i++) {
    const sign = p[q.offset[i]!]!;
    const lower = Math.min(sign * volts[q.pins[3 * i]!]!, sign * volts[q.pins[3 * i + 2]!]!);
    if (sign * volts[q.pins[3 * i + 1]!]! - lower > BASE_AWAKE) return true;
  }
  return false;
}

function flow(system: ComponentSystem, from: number, to: number, amps: number): void {
  const { residual, largest } = system.work;
  residual[from] = residual[from]! + amps;
  residual[to] = residual[to]! - amps;
  const size = Math.abs(amps);
  if (size > largest[from]!) largest[from] = size;
  if (size > largest[to]!) largest[to] = size;
}

/**
 * The voltage above which a junction's step is limited: the one at which it would carry all that the leads drive,
 * or all the voltage that they have. Nothing on an unpowered board carries more than the meter gives.
 */
function mostJunctionVolts(saturation: number, slope: number, critical: number, stimulus: Stimulus): number {
  const byVolts = Math.min(critical, stimulus.mostVolts);
  return stimulus.mostAmps < Infinity ? Math.min(byVolts, slope * Math.log1p(stimulus.mostAmps / saturation)) : byVolts;
}

/** Limits of so many stimuli are kept; a meter has fewer ranges. */
const MOST_LIMITS = 16;

/** Sets the limit of every junction; each stimulus has its own, and few there are. */
function setLimits(p: Float64Array, j: JunctionTable, stimulus: Stimulus): void {
  if (j.limitAmps === stimulus.mostAmps && j.limitVolts === stimulus.mostVolts) return;
  // Two bounds, one of them infinite.
  const key = stimulus.mostAmps < Infinity ? stimulus.mostAmps : -stimulus.mostVolts;
  const known = j.limits.get(key);
  if (known) j.limit = known;
  else {
    if (j.limits.size >= MOST_LIMITS) j.limits.clear();
    j.limit = floats(j.count);
    j.limits.set(key, j.limit);
    for (let d = 0; d < j.count; d++) {
      const o = j.offset[d]!;
      j.limit[d] = mostJunctionVolts(p[o + SATURATION]!, p[o + SLOPE]!, j.critical[d]!, stimulus);
    }
  }
  j.limitAmps = stimulus.mostAmps;
  j.limitVolts = stimulus.mostVolts;
}

/** The same for both junctions of every transistor. */
function setTransistorLimits(p: Float64Array, q: ThreePinTable, stimulus: Stimulus): void {
  if (q.limitAmps === stimulus.mostAmps && q.limitVolts === stimulus.mostVolts) return;
  for (let i = 0; i < q.count; i++) {
    const o = q.offset[i]!;
    const [is, forward, reverse] = [p[o + 1]!, p[o + 4]!, p[o + 5]!];
    q.limit[2 * i] = mostJunctionVolts(is, forward, criticalVolts(is, forward), stimulus);
    q.limit[2 * i + 1] = mostJunctionVolts(is, reverse, criticalVolts(is, reverse), stimulus);
  }
  q.limitAmps = stimulus.mostAmps;
  q.limitVolts = stimulus.mostVolts;
}

/** Within this of its last evaluation a junction is followed along its tangent: off by less than 1e-8 of its current. */
const TANGENT_VOLTS = 2e-6;

function assembleJunctions(system: ComponentSystem, stimulus: Stimulus, looseAmps: number): boolean {
  const { junctions: j, parameters: p } = system;
  const { volts, values, residual, largest } = system.work;
  const { count, a: anodes, k: cathodes, slotAK, slotKA } = j;
  const { volts: doneVolts, amps: doneAmps, siemens: doneSiemens } = j.done;
  const judged = looseAmps === 0;
  const bent = looseAmps * THERMAL_VOLTS;
  let limited = false;
  setLimits(p, j, stimulus);
  for (let d = 0; d < count; d++) {
    const a = anodes[d]!;
    const k = cathodes[d]!;
    const v = volts[a]! - volts[k]!;
    let from = v - doneVolts[d]!;
    const away = Math.abs(from);
    // Off the curve by half its curvature, siemens over thermal volts at the most, times the square of the way.
    const near = away <= TANGENT_VOLTS || (away <= 0.5 * THERMAL_VOLTS && away * away * doneSiemens[d]! <= bent);
    if (!near) {
      if (evaluateJunction(j, p, d, v)) limited = true;
      from = v - doneVolts[d]!;
    }
    const g = doneSiemens[d]!;
    values[slotAK[d]!]! -= g;
    values[slotKA[d]!]! -= g;
    const amps = doneAmps[d]! + g * from;
    residual[a] = residual[a]! + amps;
    residual[k] = residual[k]! - amps;
    if (!judged) continue;
    const size = Math.abs(amps);
    if (size > largest[a]!) largest[a] = size;
    if (size > largest[k]!) largest[k] = size;
  }
  return limited;
}

/** Evaluates a junction at a voltage, or as far towards it as a step may go: then true. */
function evaluateJunction(j: JunctionTable, p: Float64Array, d: number, v: number): boolean {
  const { done } = j;
  const o = j.offset[d]!;
  const breakdown = p[o + BREAKDOWN]!;
  const at =
    v > -0.5 * breakdown
      ? limitJunction(v, j.at[d]!, p[o + SLOPE]!, j.limit[d]!)
      : -breakdown - limitJunction(-v - breakdown, -j.at[d]! - breakdown, p[o + SLOPE]!, 0.1);
  junctionAt(p, o, at, JUNCTION_OUT);
  j.at[d] = at;
  done.volts[d] = at;
  done.amps[d] = JUNCTION_OUT[0]!;
  done.siemens[d] = JUNCTION_OUT[1]!;
  return Math.abs(at - v) > 1e-12;
}

function assembleBjts(system: ComponentSystem, q: ThreePinTable, stimulus: Stimulus): boolean {
  const { parameters: p } = system;
  const { volts, values } = system.work;
  const out = JUNCTION_OUT;
  let limited = false;
  setTransistorLimits(p, q, stimulus);
  const { done } = q;
  for (let i = 0; i < q.count; i++) {
    const o = q.offset[i]!;
    const c = q.pins[3 * i]!;
    const b = q.pins[3 * i + 1]!;
    const e = q.pins[3 * i + 2]!;
    const sign = p[o]!;
    const saturation = p[o + 1]!;
    const bf = p[o + 2]!;
    const br = p[o + 3]!;
    const slopeF = p[o + 4]!;
    const slopeR = p[o + 5]!;
    const vbe = sign * (volts[b]! - volts[e]!);
    const vbc = sign * (volts[b]! - volts[c]!);
    const at = 6 * i;
    if (!(Math.abs(vbe - done[at]!) <= TANGENT_VOLTS && Math.abs(vbc - done[at + 1]!) <= TANGENT_VOLTS)) {
      const atBe = limitJunction(vbe, q.at[2 * i]!, slopeF, q.limit[2 * i]!);
      const atBc = limitJunction(vbc, q.at[2 * i + 1]!, slopeR, q.limit[2 * i + 1]!);
      if (Math.abs(atBe - vbe) > 1e-12 || Math.abs(atBc - vbc) > 1e-12) limited = true;
      q.at[2 * i] = atBe;
      q.at[2 * i + 1] = atBc;
      done[at] = atBe;
      done[at + 1] = atBc;
      transportAt(saturation, slopeF, atBe, out);
      done[at + 2] = out[0]!;
      done[at + 3] = out[1]!;
      transportAt(saturation, slopeR, atBc, out);
      done[at + 4] = out[0]!;
      done[at + 5] = out[1]!;
    }
    const gf = done[at + 3]!;
    const forward = done[at + 2]! + gf * (vbe - done[at]!);
    const gr = done[at + 5]!;
    const backward = done[at + 4]! + gr * (vbc - done[at + 1]!);
    // Transport current c to e, and the two base components.
    flow(system, c, e, sign * (forward - backward));
    flow(system, b, e, (sign * forward) / bf);
    flow(system, b, c, (sign * backward) / br);
    // Rows c b e, columns c b e of d(current leaving)/d(volts).
    const s = 9 * i;
    addAt(values, q.slots, s + 1, gf - gr - gr / br);
    addAt(values, q.slots, s + 2, -gf);
    addAt(values, q.slots, s + 3, -gr / br);
    addAt(values, q.slots, s + 5, -gf / bf);
    addAt(values, q.slots, s + 6, -gr);
    addAt(values, q.slots, s + 7, gr - gf - gf / bf);
  }
  return limited;
}

function assembleMosfets(system: ComponentSystem, m: ThreePinTable): void {
  const { parameters: p } = system;
  const { volts, values } = system.work;
  const out = CHANNEL_OUT;
  for (let i = 0; i < m.count; i++) {
    const o = m.offset[i]!;
    const d = m.pins[3 * i]!;
    const g = m.pins[3 * i + 1]!;
    const s = m.pins[3 * i + 2]!;
    if (d === s) continue;
    const sign = p[o]!;
    // A floating gate sits at its source.
    const vgs = g < 0 ? 0 : sign * (volts[g]! - volts[s]!);
    const vds = sign * (volts[d]! - volts[s]!);
    const threshold = p[o + 1]!;
    m.at[2 * i] = 0;
    if (isCutOff(vgs, vds, threshold)) continue;
    channelCurrent(vgs, vds, threshold, p[o + 2]!, p[o + 3]!, out);
    const gm = out[1]!;
    const gd = out[2]!;
    m.at[2 * i] = out[0]!;
    flow(system, d, s, sign * out[0]!);
    const at = 9 * i;
    addAt(values, m.slots, at + 1, gm);
    addAt(values, m.slots, at + 2, -gd - gm);
    addAt(values, m.slots, at + 6, -gd);
    addAt(values, m.slots, at + 7, -gm);
  }
}

function addAt(values: Float64Array, slots: Int32Array, at: number, amount: number): void {
  const slot = slots[at]!;
  if (slot >= 0) values[slot] = values[slot]! + amount;
}
