import type { Circuit, Device } from '../device';
import type { WorkDevice } from './workDevice';
import type { WorkPlan } from './workPlan';

/** A diode that charges the supply of an upper gate drive: the nodes it charges from, to, and the one that rides on. */
export interface Bootstrap {
  readonly diode: Device;
  readonly from: number;
  readonly to: number;
  readonly rides: number;
}

/** What it takes to find them: the circuit, its plan, the nodes of nets. */
interface Places {
  readonly circuit: Circuit;
  readonly plan: WorkPlan;
  isSteady(node: number): boolean;
  node(net: string): number;
}

/** Finds the bootstrap diodes: from a net that stands to one that rides on the node of a leg or feeds a BST pin. */
export function findBootstraps(unit: Places): readonly Bootstrap[] {
  const { circuit, plan } = unit;
  const legs = new Set(plan.converters.flatMap((c) => (c.switches.some((s) => s.side === 'bottom') ? c.nodes : [])));
  const fed = new Set(
    [...plan.ics.values()].flatMap((ic) => (ic.roles['BST'] ?? []).map((at) => circuit.pins[ic.index]![at]!)),
  );
  return circuit.devices.flatMap((diode) => {
    const [from, to] = [diode.nodes[0]!, diode.nodes[1]!];
    if (diode.model.kind !== 'junction' || diode.name.includes('/') || unit.isSteady(to)) return [];
    const [, base] = [...plan.riding].find(([net]) => unit.node(net) === to) ?? [];
    if (base === undefined || (!legs.has(base) && !fed.has(to))) return [];
    return [{ diode, from, to, rides: unit.node(base) }];
  });
}

/** Ampere that a bootstrap diode carries in the mean. */
const BOOTSTRAP_AMPS = 3e-3;

/** The supply of an upper drive: as high above its node as its diode's anode above ground, less the drop. */
export function bootstrapSupply({ diode, from, to, rides }: Bootstrap, parameters: Float64Array): WorkDevice {
  const drop = parameters[diode.at + 1]! * Math.log1p(BOOTSTRAP_AMPS / parameters[diode.at]!);
  const g = 0.05;
  return {
    name: diode.name,
    nodes: [to, rides, from],
    joins: [[to, rides]],
    evaluate(x, flow, slope) {
      const high = x[2]! > drop;
      flow.fill(0);
      slope.fill(0);
      flow[0] = g * (x[0]! - x[1]! - (high ? x[2]! - drop : 0));
      flow[1] = -flow[0];
      slope[0] = slope[4] = g;
      slope[1] = slope[3] = -g;
      slope[2] = high ? -g : 0;
      slope[5] = high ? g : 0;
    },
  };
}
