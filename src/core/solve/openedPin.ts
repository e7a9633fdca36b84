import { solveSparse } from '../linear';
import type { ComponentSystem } from './componentSystem';
import { MOST_BENT, MOST_ROUNDS, bendings, held } from './nearby';
import type { FactoredSolution } from './nearby';

/** A pin taken off its node: the part that it is of, its local node, and the ohms that stay in between. */
export interface OpenedPin {
  readonly owner: number;
  readonly node: number;
  readonly ohms: number;
}

/**
 * Voltages of a network with one pin of a part opened, by the factors of the solution without: behind the opened pin the
 * part's devices stand where their currents add up to what little comes through, which is one unknown for itself, and the
 * network is left by rounds as in `addBranches`, along its tangents without what the part did for it.
 *
 * out      volts per local node; that behind the pin is none of them.
 * allowed  what may stay unaccounted for, amperes summed over the nodes.
 * Gives whether that was reached.
 * Source: as `addBranches`; the change of the tangents is of rank one.
 */
export function openPin(kept: FactoredSolution, pin: OpenedPin, out: Float64Array, allowed: number): boolean {
  const { system, values, volts } = kept;
  const { pattern, size: n } = system;
  const { bent, bentBefore, into, from, column } = system.nearby;
  const hung = devicesAt(system, pin);
  if (hung.length === 0) return false;
  const stiff = 1 / pin.ohms + tangents(system, hung, pin.node, volts, into, from);
  column.set(into);
  solveSparse(pattern, values, column);
  const left = stiff - product(from, column, n);
  if (!(left > 0)) return false;
  out.set(volts);
  bentBefore.fill(0);
  let before = Infinity;
  let drop = 0;
  for (let round = 0; round <= MOST_ROUNDS; round++) {
    drop = dropAcross(system, hung, pin, out, drop, SETTLED * allowed);
    if (Number.isNaN(drop)) return false;
    bendings(kept, out, bent, allowed);
    addFlows(system, hung, pin.node, out, 0, -1, bent);
    addFlows(system, hung, pin.node, out, drop, 1, bent);
    let felt = 0;
    for (let i = 0; i < n; i++) felt += from[i]! * (out[i]! - volts[i]!);
    felt /= stiff;
    let off = 0;
    for (let i = 0; i < n; i++) {
      bent[i] = bent[i]! + into[i]! * felt;
      off += Math.abs(bent[i]! - bentBefore[i]!);
    }
    if (off <= allowed * held(kept, out)) return true;
    // The first time all that the part did is off.
    if (round > 0 && !(off < before / 2 && off < MOST_BENT * allowed)) return false;
    if (round > 0) before = off;
    bentBefore.set(bent);
    for (let i = 0; i < n; i++) out[i] = -bent[i]!;
    solveSparse(pattern, values, out);
    const through = product(from, out, n) / left;
    for (let i = 0; i < n; i++) out[i] = volts[i]! + out[i]! + through * column[i]!;
  }
  return false;
}

/** Of what is allowed, the part that may not add up behind the pin. */
const SETTLED = 1e-3;
const MOST_DROP_STEPS = 40;
/** The farthest that one step goes, volts. */
const FARTHEST = 0.2;

/** The devices of the part at the node; none where one of them has a terminal outside. */
function devicesAt(system: ComponentSystem, { owner, node }: OpenedPin): readonly number[] {
  const hung: number[] = [];
  for (let d = 0; d < system.devices.length; d++) {
    if (system.devices[d]!.owner !== owner || !system.terminals[d]!.includes(node)) continue;
    if (system.terminals[d]!.includes(-1)) return [];
    hung.push(d);
  }
  return hung;
}

/** Evaluates a device with what hangs on the node that many volts lower; gives the number of its terminals. */
function evaluate(system: ComponentSystem, d: number, node: number, volts: Float64Array, drop: number): number {
  const nodes = system.terminals[d]!;
  const { ends } = system.work;
  for (let t = 0; t < nodes.length; t++) ends[t] = volts[nodes[t]!]! - (nodes[t] === node ? drop : 0);
  const device = system.devices[d]!;
  device.model.evaluate(system.parameters, device.at, ends, system.rooms[d]!);
  return nodes.length;
}

/** By how much each node's current grows with the pin's volts, and the pin's current with each node's; gives that with its own. */
function tangents(
  system: ComponentSystem,
  hung: readonly number[],
  node: number,
  volts: Float64Array,
  into: Float64Array,
  from: Float64Array,
): number {
  into.fill(0);
  from.fill(0);
  for (const d of hung) {
    const count = evaluate(system, d, node, volts, 0);
    const nodes = system.terminals[d]!;
    const { slope } = system.rooms[d]!;
    for (let t = 0; t < count; t++)
      for (let u = 0; u < count; u++) {
        const [a, b] = [nodes[t]!, nodes[u]!];
        if (b === node) into[a] = into[a]! + slope[t * count + u]!;
        if (a === node) from[b] = from[b]! + slope[t * count + u]!;
      }
  }
  return from[node]!;
}

/** The volts across the opened pin at which as much comes through as the part takes behind it; NaN where they are not found. */
function dropAcross(
  system: ComponentSystem,
  hung: readonly number[],
  { node, ohms }: OpenedPin,
  volts: Float64Array,
  start: number,
  settled: number,
): number {
  let drop = start;
  for (let step = 0; step < MOST_DROP_STEPS; step++) {
    let amps = -drop / ohms;
    let siemens = 1 / ohms;
    for (const d of hung) {
      const count = evaluate(system, d, node, volts, drop);
      const nodes = system.terminals[d]!;
      const { flow, slope } = system.rooms[d]!;
      for (let t = 0; t < count; t++) {
        if (nodes[t] !== node) continue;
        amps += flow[t]!;
        for (let u = 0; u < count; u++) if (nodes[u] === node) siemens += slope[t * count + u]!;
      }
    }
    if (Math.abs(amps) <= settled) return drop;
    if (!(siemens > 0)) return NaN;
    drop += Math.min(FARTHEST, Math.max(-FARTHEST, amps / siemens));
  }
  return NaN;
}

/** Adds what the devices take out of each node, with those at the pin that many volts lower; sign: 1, or -1 to take it away. */
function addFlows(
  system: ComponentSystem,
  hung: readonly number[],
  node: number,
  volts: Float64Array,
  drop: number,
  sign: number,
  into: Float64Array,
): void {
  for (const d of hung) {
    const count = evaluate(system, d, node, volts, drop);
    const nodes = system.terminals[d]!;
    const { flow } = system.rooms[d]!;
    for (let t = 0; t < count; t++) into[nodes[t]!] = into[nodes[t]!]! + sign * flow[t]!;
  }
}

function product(a: Float64Array, b: Float64Array, n: number): number {
  let sum = 0;
  for (let i = 0; i < n; i++) sum += a[i]! * b[i]!;
  return sum;
}
