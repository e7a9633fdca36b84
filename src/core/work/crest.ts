import { isCapacitor } from '../device';
import type { Operation } from './operate';

const ROUNDS = 30;

/**
 * Volts of every node at the crest of what ripples on its rails: reservoirs of the mains at their highest, nodes that hang on
 * them by capacitors alone with them; what a trigger empties again and again when it is fullest.
 */
export function crestVolts({ unit, volts, crests }: Operation): Float64Array {
  if (crests) return Float64Array.from(crests);
  const made = Float64Array.from(volts);
  const { line } = unit;
  const { devices, parameters } = unit.circuit;
  if (!line?.result) return made;
  const moved = new Map<number, number>();
  for (const { nodes, lows } of line.rails) {
    for (const n of lows) moved.set(n, 0);
    for (const n of nodes) moved.set(n, line.result.high.get(n)! - line.result.mean.get(n)!);
  }
  const references = new Set(unit.plan.references.map((n) => unit.node(n)));
  const capacitors = devices.filter((d) => isCapacitor(d) && d.nodes.slice(0, 2).every((n) => unit.isSteady(n)));
  const free = new Set(
    capacitors
      .flatMap((d) => d.nodes.slice(0, 2))
      .filter((n) => !moved.has(n) && !references.has(n) && !line.lineNodes.has(n)),
  );
  for (let round = 0; round < ROUNDS; round++)
    for (const n of free) {
      let [sum, all] = [0, 0];
      for (const d of capacitors) {
        if (!d.nodes.slice(0, 2).includes(n)) continue;
        const far = d.nodes[0] === n ? d.nodes[1]! : d.nodes[0]!;
        sum += parameters[d.at]! * (moved.get(far) ?? 0);
        all += parameters[d.at]!;
      }
      if (all > 0) moved.set(n, sum / all);
    }
  for (const [n, by] of moved) made[n] = volts[n]! + by;
  return made;
}
