import type { PowerConverter } from '../stages';
import { controllerOf } from './makeCell';
import { oneWay } from './modelled';
import type { Modelled } from './modelled';
import type { Operation } from './operate';
import { flowsOf } from './workDevice';

const USUAL_HERTZ = 300e3;

/**
 * What a converter with one choke does whose switch is inside a part that nobody has opened: its node goes between its rails,
 * its choke carries the mean with a ripple on top. highs: volts of the nodes at their crest.
 */
export function plainStrain(operation: Operation, c: PowerConverter, highs: Float64Array): Modelled | null {
  const { unit, volts } = operation;
  const { devices, parameters } = unit.circuit;
  const node = unit.node(c.nodes[0] ?? '');
  const supply = unit.node(c.supply);
  const coil = devices.find((d) => d.model.kind === 'windings' && d.model.states === 1 && c.coils.includes(d.name));
  if (!coil || node < 0 || supply < 0) return null;
  const out = coil.nodes.find((n) => n !== node && n !== supply);
  const ic = controllerOf(unit, c) ?? c.ics.flatMap((ref) => unit.plan.ics.get(ref) ?? [])[0];
  const ground = ic ? unit.ground(ic) : -1;
  if (ground < 0) return null;
  const far = unit.node(c.outputs[0] ?? '');
  const [vin, low] = [highs[supply]! - highs[ground]!, highs[ground]!];
  const stepsUp = c.topology === 'boost';
  const vout = Math.abs(volts[stepsUp ? far : (out ?? far)]! - volts[ground]!);
  if (!(vin > 0) || !(vout > 0)) return null;
  const hertz = ic?.facts['fSwitch'] ?? USUAL_HERTZ;
  const henries = parameters[coil.at + coil.model.states]!;
  const duty = stepsUp ? Math.max(1 - vin / vout, 0) : Math.min(vout / vin, 1);
  const ripple = ((stepsUp ? vin : vin - vout) * duty) / (henries * hertz);
  return {
    states: new Map([[node, [low, low + (stepsUp ? vout : vin)]]]),
    across: () => null,
    through(d, mean) {
      const amps = Math.abs(coilMean(operation, coil.name));
      if (d === coil)
        return {
          mean: amps,
          rms: Math.hypot(amps, ripple / Math.sqrt(12)),
          high: amps + ripple / 2,
          low: amps - ripple / 2,
        };
      if (d.model.kind !== 'junction' || d.name.includes('/') || !d.nodes.includes(node)) return null;
      const off = 1 - duty;
      return oneWay(Math.max(Math.abs(mean), amps * off), amps * Math.sqrt(off), amps + ripple / 2);
    },
    ripple: () => 0,
  };
}

/** Mean amperes of a choke. */
function coilMean({ unit, volts }: Operation, name: string): number {
  const flow = unit.lastDevices.find((d) => d.name === name);
  return flow ? flowsOf(flow, volts)[0]! : 0;
}
