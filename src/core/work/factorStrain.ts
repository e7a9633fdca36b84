import type { PowerConverter } from '../stages';
import { controllerOf } from './makeCell';
import { oneWay, shareOf } from './modelled';
import type { Modelled } from './modelled';
import type { Operation } from './operate';
import { flowsOf } from './workDevice';

const USUAL_HERTZ = 65e3;
/** Crest and root of the mean square of a rectified sine over its mean. */
const [CREST, FORM] = [Math.PI / 2, Math.PI / (2 * Math.SQRT2)];

/**
 * What a power-factor stage does: its choke carries a rectified sine with the ripple of its switching on top; the switch takes
 * it while it is on, the diode gives on what the rail takes, twice a period of the mains. highs: volts of the nodes at their
 * crest.
 */
export function factorStrain(operation: Operation, c: PowerConverter, highs: Float64Array): Modelled | null {
  const { unit, volts } = operation;
  const device = unit.lastDevices.find((d) => d.name === 'power-factor stage');
  const [sw, out, low] = [c.nodes[0], c.outputs[0], c.switches[0]?.low].map((n) =>
    n === undefined ? -1 : unit.node(n),
  ) as [number, number, number];
  if (!device || sw < 0 || out < 0 || low < 0) return null;
  const flow = flowsOf(device, volts);
  const [takes, gives] = [flow[0]!, -flow[1]!];
  const rail = volts[out]! - volts[low]!;
  const farads = unit.faradsBetween(out, low) || unit.faradsAt(out);
  // Volts peak to peak that twice the frequency of the mains leaves on the rail.
  const mains = unit.plan.board.nameplate?.hertz ?? 50;
  const ripple = farads > 0 ? gives / (2 * Math.PI * mains * farads) : 0;
  const crest = Math.SQRT2 * unit.condition.source;
  const coil = unit.circuit.devices.find(
    (d) => d.model.kind === 'windings' && c.coils.some((l) => d.name.split('+').includes(l)),
  );
  const henries = coil ? unit.circuit.parameters[coil.at + coil.model.states]! : Infinity;
  const hertz = controllerOf(unit, c)?.facts['fSwitch'] ?? USUAL_HERTZ;
  const more = (crest * Math.max(1 - crest / Math.max(rail, crest), 0)) / (henries * hertz);
  const [peak, rms] = [takes * CREST + more / 2, takes * FORM];
  const onShare = Math.sqrt(Math.max(1 - (8 * crest) / (3 * Math.PI * Math.max(rail, 1)), 0));
  const switches = c.switches.flatMap((s) => s.refs);
  const top = highs[low]! + rail + ripple / 2 + DIODE_VOLTS;
  return {
    states: new Map([[sw, [highs[low]!, top]]]),
    across: () => null,
    through(d, mean) {
      if (switches.includes(d.name)) {
        const n = switches.length;
        return d.model.kind === 'junction' ? null : oneWay((takes - gives) / n, (rms * onShare) / n, peak / n);
      }
      if (d.model.kind === 'junction' && d.nodes[0] === sw && d.nodes[1] === out)
        return oneWay(gives, Math.sqrt(Math.max(rms ** 2 * (1 - onShare ** 2), 0)), peak);
      if (d === coil) return oneWay(takes, rms, peak);
      // What carries the rectified current in the mean carries it in the shape of the mains.
      const own = Math.abs(mean);
      return d.model.kind !== 'junction' && takes > 0 && Math.abs(own - takes) < ALIKE * takes
        ? oneWay(own, own * FORM, own * CREST)
        : null;
    },
    ripple: (d) =>
      d.nodes.slice(0, 2).includes(out) ? (gives / Math.SQRT2) * shareOf(unit.circuit.parameters[d.at]!, farads) : 0,
  };
}

const DIODE_VOLTS = 1;
/** Currents that differ by less than this share are one current. */
const ALIKE = 0.15;
