import { channelCurrent } from './channel';
import { junctionCurrent } from './junction';
import type { Network } from './network';

/** Current of one two-terminal branch in a solution: from node a to node b, with the volts from a to b. */
export interface ElementFlow {
  readonly owner: number;
  readonly a: number;
  readonly b: number;
  readonly amps: number;
  readonly volts: number;
}

const OUT = new Float64Array(3);

/** Every branch current of one component, transistors split into their branches; `voltsOf` gives node voltages. */
export function elementFlows(
  network: Network,
  component: number,
  voltsOf: (node: number) => number,
): readonly ElementFlow[] {
  const inside = (node: number): boolean => network.component[node] === component;
  const flows: ElementFlow[] = [];
  const add = (owner: number, a: number, b: number, amps: number): void => {
    flows.push({ owner, a, b, amps, volts: voltsOf(a) - voltsOf(b) });
  };
  for (const r of network.resistors) {
    if (inside(r.a)) add(r.owner, r.a, r.b, (voltsOf(r.a) - voltsOf(r.b)) / r.ohms);
  }
  for (const d of network.diodes) {
    if (!inside(d.a)) continue;
    const v = voltsOf(d.a) - voltsOf(d.k);
    junctionCurrent(v, d.saturationAmps, d.slopeVolts, d.seriesOhms, d.breakdownVolts, d.breakdownAmps, OUT);
    add(d.owner, d.a, d.k, OUT[0]!);
  }
  for (const q of network.bjts) {
    if (!inside(q.c)) continue;
    const vbe = q.polarity * (voltsOf(q.b) - voltsOf(q.e));
    const vbc = q.polarity * (voltsOf(q.b) - voltsOf(q.c));
    const forward = q.saturationAmps * Math.expm1(Math.min(vbe / q.forwardSlope, 300));
    const backward = q.saturationAmps * Math.expm1(Math.min(vbc / q.reverseSlope, 300));
    add(q.owner, q.c, q.e, q.polarity * (forward - backward));
    add(q.owner, q.b, q.e, (q.polarity * forward) / q.forwardGain);
    add(q.owner, q.b, q.c, (q.polarity * backward) / q.reverseGain);
  }
  for (const m of network.mosfets) {
    if (!inside(m.d) || !inside(m.g)) continue;
    const vgs = m.polarity * (voltsOf(m.g) - voltsOf(m.s));
    const vds = m.polarity * (voltsOf(m.d) - voltsOf(m.s));
    channelCurrent(vgs, vds, m.thresholdVolts, m.transconductance, m.onOhms, OUT);
    add(m.owner, m.d, m.s, m.polarity * OUT[0]!);
  }
  return flows;
}
