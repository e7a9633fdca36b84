import type { Circuit, DeviceModel } from '../device';
import type { WorkPlan } from './workPlan';

const IDEAL_SWITCH: DeviceModel = { kind: 'channel', terminals: 3, states: 0, drawn: [], evaluate: () => undefined };
const IDEAL_BODY: DeviceModel = { kind: 'junction', terminals: 2, states: 0, drawn: [], evaluate: () => undefined };
/** A switch inside an integrated circuit of which nothing is known: threshold, transconductance, ohm; its body diode. */
const USUAL_SWITCH = [1, 3, 20, 0.3];
const USUAL_BODY = [1e-9, 0.04, 0.1];

/** The circuit with a switch for each converter whose switch sits in an integrated circuit with an unknown inside. */
export function withSwitches(plan: WorkPlan, circuit: Circuit): Circuit {
  const devices = [...circuit.devices];
  const parameters = [...circuit.parameters];
  const index = new Map(plan.board.parts.map((p, i) => [p.ref, i]));
  for (const c of plan.converters) {
    for (const ref of c.ics) {
      const ic = plan.ics.get(ref);
      if (!ic || devices.some((d) => d.model.kind === 'channel' && d.name.startsWith(`${ref}/`))) continue;
      const pins = circuit.pins[index.get(ref)!]!;
      const at = (...roles: string[]): number | undefined =>
        roles.map((r) => ic.roles[r]?.[0]).find((i) => i !== undefined);
      const lowSide = c.topology === 'boost' || c.topology === 'flyback' || c.topology === 'forward';
      const high = lowSide ? at('DRAIN', 'SW') : at('VIN', 'DRAIN');
      const low = lowSide ? at('CS', 'SOURCE', 'GND') : at('SW', 'SOURCE');
      if (high === undefined || low === undefined) continue;
      const owners = [index.get(ref)!, index.get(ref)!, index.get(ref)!];
      const name = `${ref}/switch`;
      const [h, l] = [pins[high]!, pins[low]!];
      const base = { owners, sigmas: [], draws: [], name };
      devices.push({ ...base, model: IDEAL_SWITCH, nodes: [h, l, l], at: parameters.length });
      parameters.push(...USUAL_SWITCH.slice(0, 3), ic.facts['switchRon'] ?? USUAL_SWITCH[3]!);
      devices.push({ ...base, model: IDEAL_BODY, nodes: [l, h], at: parameters.length });
      parameters.push(...USUAL_BODY);
    }
  }
  return { ...circuit, devices, parameters: Float64Array.from(parameters) };
}
