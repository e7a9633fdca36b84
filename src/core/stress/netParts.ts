import { netKey } from '../circuit';
import { partFigure, junctionFigures } from '../part';
import type { Board } from '../circuit';
import type { Part } from '../part';
import { junctionDrop } from '../stages';

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
