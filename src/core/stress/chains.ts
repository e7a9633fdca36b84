import { netKey } from '../circuit';
import { parallelOhms, partFigure } from '../part';
import type { Board } from '../circuit';
import type { Part } from '../part';
import { forwardVolts, farNet } from './netParts';
import type { PartsByNet } from './netParts';

/** One element of a chain: parallel resistors taken together, or a diode in its forward direction. */
interface Link {
  readonly parts: readonly Part[];
  readonly from: string;
  readonly ohms: number;
  readonly drop: number;
}

/**
 * A way for direct current from a rail to its return through resistors and forward diodes only.
 *
 * amps     through it; an upper bound where `bounded`: something at its end sets the current lower.
 * volts    of each net in between, against the return.
 * stopped  the part at which the way is lost, or null.
 */
export interface Chain {
  readonly links: readonly Link[];
  readonly amps: number;
  readonly volts: ReadonlyMap<string, number>;
  readonly bounded: boolean;
  readonly stopped: Part | null;
}

/** Every chain that begins on the rail. `pinsSilent`: IC pins (as `u1.3`) that draw nothing worth counting. */
export function railChains(
  board: Board,
  parts: PartsByNet,
  rails: ReadonlySet<string>,
  back: string,
  volts: number,
  pinsSilent: ReadonlySet<string>,
): readonly Chain[] {
  const chains: Chain[] = [];
  for (const rail of rails) {
    const firsts = groupsFrom(board, parts, rail, new Set()).filter((l) => !rails.has(far(l)));
    for (const first of firsts) chains.push(follow(board, parts, first, netKey(back), volts, pinsSilent));
  }
  return chains;
}

const far = (link: Link): string => farNet(link.parts[0]!, link.from);

/** What conducts away from a net: resistors to each far net as one, diodes and opto LEDs forward. */
function groupsFrom(board: Board, parts: PartsByNet, net: string, used: ReadonlySet<Part>): readonly Link[] {
  const links: Link[] = [];
  const byFar = new Map<string, Part[]>();
  for (const part of parts.get(net) ?? []) {
    if (used.has(part)) continue;
    if (part.kind === 'resistor') {
      const end = farNet(part, net);
      if (end !== net) byFar.set(end, [...(byFar.get(end) ?? []), part]);
    } else if (
      (part.kind === 'diode' || part.kind === 'opto') &&
      netKey(part.nets[0]!) === net &&
      netKey(part.nets[1]!) !== net
    )
      links.push({ parts: [part], from: net, ohms: 0, drop: forwardVolts(board, part) });
  }
  for (const group of byFar.values()) links.push({ parts: group, from: net, ohms: parallelOhms(group), drop: 0 });
  return links;
}

function follow(
  board: Board,
  parts: PartsByNet,
  first: Link,
  back: string,
  volts: number,
  pinsSilent: ReadonlySet<string>,
): Chain {
  const links = [first];
  const used = new Set(first.parts);
  let stopped: Part | null = null;
  let held = 0;
  for (;;) {
    const end = far(links.at(-1)!);
    if (end === back) break;
    const draws = (parts.get(end) ?? []).find((p) => !used.has(p) && drawsAt(p, end, pinsSilent));
    if (draws) {
      // A shunt reference at the end holds its cathode at its reference or above: the most current is known.
      if (draws.kind === 'shunt-reference' && netKey(draws.nets[2]!) === end)
        held = partFigure(draws, 'referenceVolts') ?? 2.5;
      else stopped = draws;
      if (held > 0) return settle(links, volts, held, true, null);
      break;
    }
    const next = groupsFrom(board, parts, end, used);
    if (next.length !== 1) {
      stopped = next[0]?.parts[0] ?? links.at(-1)!.parts[0]!;
      break;
    }
    links.push(next[0]!);
    for (const p of next[0]!.parts) used.add(p);
    if (links.length > 12) break;
  }
  return settle(links, volts, 0, false, stopped);
}

/** Whether a part takes or gives current at a net in a way this reckoning does not follow. */
function drawsAt(part: Part, net: string, pinsSilent: ReadonlySet<string>): boolean {
  switch (part.kind) {
    case 'resistor':
    case 'capacitor':
    case 'mov':
    case 'connector':
      return false;
    case 'diode':
      // Reverse biased, or forward and followed.
      return false;
    case 'opto':
      return netKey(part.nets[0]!) !== net;
    case 'ic':
    case 'shunt-reference':
      return part.nets.some((n, i) => netKey(n) === net && !pinsSilent.has(`${part.ref.toLowerCase()}.${i + 1}`));
    default:
      return true;
  }
}

function settle(links: readonly Link[], volts: number, held: number, bounded: boolean, stopped: Part | null): Chain {
  const ohms = links.reduce((sum, l) => sum + l.ohms, 0);
  const drops = links.reduce((sum, l) => sum + l.drop, 0);
  const amps = ohms > 0 ? Math.max(0, volts - drops - held) / ohms : 0;
  const nets = new Map<string, number>();
  let left = volts;
  if (stopped === null)
    for (const link of links) {
      left -= link.ohms * amps + Math.min(left, link.drop);
      nets.set(far(link), Math.max(0, left));
    }
  return { links, amps, volts: nets, bounded, stopped };
}
