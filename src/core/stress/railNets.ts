import { netKey } from '../circuit';
import { partFigure, isOpenSwitch, junctionFigures } from '../part';
import type { Board } from '../circuit';
import type { Part } from '../part';
import { junctionDrop } from '../stages';

/** Shunts and links up to this do not make another rail. */
const SHUNT_OHMS = 1;
const LED_DROP = 1.4;

/** Fitted parts of a board by net key. */
export type PartsByNet = ReadonlyMap<string, readonly Part[]>;

export function partsByNet(board: Board): PartsByNet {
  const map = new Map<string, Part[]>();
  for (const part of board.parts) {
    if (!part.fitted) continue;
    for (const net of new Set(part.nets.map(netKey))) {
      if (net === 'nc') continue;
      const here = map.get(net);
      if (here) here.push(part);
      else map.set(net, [part]);
    }
  }
  return map;
}

/** The other end of a two-terminal part, by net key. */
export function farNet(part: Part, net: string): string {
  const [a = '', b = ''] = part.nets.map(netKey);
  return a === net ? b : a;
}

/**
 * The nets that stand at the rail's voltage: the rail itself and what fuses, closed switches, chokes and shunts lead
 * to, where a capacitor to the return shows that it is a rail and no switching node.
 */
export function railNets(board: Board, parts: PartsByNet, rail: string, back: string): ReadonlySet<string> {
  const nets = new Set([netKey(rail)]);
  const smooth = (net: string): boolean =>
    (parts.get(net) ?? []).some((p) => p.kind === 'capacitor' && farNet(p, net) === netKey(back) && p.value >= 100e-9);
  const coupled = new Set(board.couplings.flatMap((k) => [k.first.toLowerCase(), k.second.toLowerCase()]));
  for (const net of nets) {
    for (const part of parts.get(net) ?? []) {
      const leads =
        part.kind === 'fuse' ||
        (part.kind === 'switch' && !isOpenSwitch(part)) ||
        (part.kind === 'inductor' && !coupled.has(part.ref.toLowerCase())) ||
        (part.kind === 'resistor' && part.value <= SHUNT_OHMS);
      if (!leads) continue;
      const far = farNet(part, net);
      const plain = part.kind !== 'inductor' && part.kind !== 'resistor';
      if (far !== netKey(back) && (plain || smooth(far))) nets.add(far);
    }
  }
  return nets;
}

/** What a diode does when its anode is higher: volts across it at work. */
export function forwardVolts(board: Board, part: Part): number {
  if (part.kind === 'opto') return 1.1;
  const drop = junctionDrop(board, part);
  // From 1 mA to a working current: some 0.1 V on a rectifier, more on a light-emitting one.
  return drop > LED_DROP ? drop + 0.1 : drop + 0.05;
}

/** The breakdown of a zener or surge clamp, or null: printed volts, else the model's. */
export function clampVolts(board: Board, part: Part): number | null {
  if (part.kind !== 'diode') return null;
  const clamps = partFigure(part, 'ratedWatts') !== undefined || /^(?:DTV|TVS|DZ|Z)/iu.test(part.ref);
  if (!clamps) return null;
  const { breakdownVolts } = junctionFigures(board.models.get(part.model.toLowerCase()));
  return partFigure(part, 'ratedVolts') ?? (breakdownVolts < Infinity ? breakdownVolts : null);
}
