import { RESISTOR } from '../device';
import type { ComponentSystem } from './componentSystem';
import { evaluateAt } from './deviceFlows';

/**
 * First-order effect that each draw of the parts has on a reading, volts for one sigma, at the draw's number in
 * `work.effects`; gives the sum of their squares.
 *
 * adjoint  volts per ampere at each local node, from the transposed solve.
 * least    effects below this, volts, are left out where they show without a closer look, given that no device carries
 *          more than `mostAmps`.
 */
export function spreadEffects(system: ComponentSystem, adjoint: Float64Array, least = 0, mostAmps = 0): number {
  const { volts, effects } = system.work;
  effects.fill(0);
  for (let d = 0; d < system.devices.length; d++) {
    const { model, at, sigmas, draws } = system.devices[d]!;
    const nodes = system.terminals[d]!;
    if (nodes.length === 2) {
      // What goes in at one end comes out at the other.
      const [a, b] = [nodes[0]!, nodes[1]!];
      if (volts[a] === volts[b]) continue;
      if (mostAmps > 0 && Math.abs(adjoint[a]! - adjoint[b]!) * mostAmps * sigmas[0]! <= least) continue;
      const flowByLog =
        model === RESISTOR ? (volts[b]! - volts[a]!) / system.parameters[at]! : evaluateAt(system, d).flowByLog[0]!;
      const effect = (adjoint[a]! - adjoint[b]!) * flowByLog * sigmas[0]!;
      effects[draws[0]!] = effects[draws[0]!]! + effect;
      continue;
    }
    const { flowByLog } = evaluateAt(system, d);
    for (let m = 0; m < sigmas.length; m++) {
      let effect = 0;
      for (let t = 0; t < nodes.length; t++)
        if (nodes[t]! >= 0) effect += adjoint[nodes[t]!]! * flowByLog[t * sigmas.length + m]!;
      effects[draws[m]!] = effects[draws[m]!]! + effect * sigmas[m]!;
    }
  }
  let sum = 0;
  for (let i = 1; i < effects.length; i++) sum += effects[i]! * effects[i]!;
  return sum;
}

/**
 * The draws that spread a reading the most: their numbers, the effect of one sigma of each, and how far each spreads, one
 * sigma of its log.
 */
export interface MainDraws {
  readonly draws: readonly number[];
  readonly effects: readonly number[];
  readonly spreads?: readonly number[];
}

/** At most this many are told, those with less than this share of the variance not. */
const MOST_DRAWS = 6;
const LEAST_SHARE = 0.02;

/** The main ones of what `spreadEffects` found. */
export function mainDraws({ work: { effects, drawSigmas } }: ComponentSystem, squares: number): MainDraws {
  const found: number[] = [];
  for (let i = 1; i < effects.length; i++) if (effects[i]! * effects[i]! > LEAST_SHARE * squares) found.push(i);
  if (found.length > MOST_DRAWS) found.sort((a, b) => Math.abs(effects[b]!) - Math.abs(effects[a]!));
  const draws = found.slice(0, MOST_DRAWS);
  return { draws, effects: draws.map((i) => effects[i]!), spreads: draws.map((i) => drawSigmas[i]!) };
}
