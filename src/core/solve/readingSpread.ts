import type { ComponentSystem } from './componentSystem';
import { evaluateAt } from './deviceFlows';

/**
 * Sum of the squared first-order effects that the spread of every part has on a reading, volts squared.
 *
 * adjoint  volts per ampere at each local node, from the transposed solve.
 */
export function spreadSquares(system: ComponentSystem, adjoint: Float64Array): number {
  const { volts } = system.work;
  let sum = 0;
  for (let d = 0; d < system.devices.length; d++) {
    const { sigmas } = system.devices[d]!;
    const nodes = system.terminals[d]!;
    if (nodes.length === 2) {
      // What goes in at one end comes out at the other.
      const [a, b] = [nodes[0]!, nodes[1]!];
      if (volts[a] === volts[b] || adjoint[a] === adjoint[b]) continue;
      const effect = (adjoint[a]! - adjoint[b]!) * evaluateAt(system, d).flowByLog[0]! * sigmas[0]!;
      sum += effect * effect;
      continue;
    }
    const { flowByLog } = evaluateAt(system, d);
    for (let m = 0; m < sigmas.length; m++) {
      let effect = 0;
      for (let t = 0; t < nodes.length; t++)
        if (nodes[t]! >= 0) effect += adjoint[nodes[t]!]! * flowByLog[t * sigmas.length + m]!;
      sum += (effect * sigmas[m]!) ** 2;
    }
  }
  return sum;
}
