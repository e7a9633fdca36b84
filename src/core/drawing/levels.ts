import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { isElectrolytic } from '../part';
import type { Part } from '../part';
import type { StageMap } from '../stages';

/** Farads from which a capacitor between a net and the reference says that the net is a rail. */
const RAIL_FARADS = 90e-9;
const ROUNDS = 60;
/** Height of an auxiliary supply between its reference and the rail. */
const SUPPLY_LEVEL = 0.7;

/** Nets drawn by the sign of their island, by key, with the island's number. */
export function signNets(board: Board, map: StageMap): ReadonlyMap<string, number> {
  const pins = new Map<string, number>();
  for (const net of board.parts.flatMap((p) => p.nets.map(netKey))) pins.set(net, (pins.get(net) ?? 0) + 1);
  const signs = new Map<string, number>();
  map.islands.forEach((island, i) => {
    island.references.forEach((net, k) => {
      const count = pins.get(netKey(net)) ?? 0;
      if (k === 0 ? island.nets.length > 2 && count > 2 : count >= 7) signs.set(netKey(net), i);
    });
  });
  return signs;
}

/** Pairs of a part's pins that carry a current between them. */
export function carriers(part: Part): readonly (readonly [number, number])[] {
  switch (part.kind) {
    case 'mosfet':
    case 'bjt':
      return [[0, 2]];
    case 'triac':
      return [[0, 1]];
    case 'shunt-reference':
      return [[2, 1]];
    case 'regulator':
      return [
        [0, 2],
        [2, 1],
      ];
    case 'opto':
    case 'relay':
      return [
        [0, 1],
        [2, 3],
      ];
    case 'bridge':
    case 'connector':
      return [];
    case 'ic':
      return part.nets.length === 2 ? [[0, 1]] : [];
    default:
      return [[0, 1]];
  }
}

/**
 * How high each net stands on the sheet, by key: 0 the reference, 1 a rail, the others between them as if every part were
 * a resistor. Only what is drawn hangs on it.
 */
export function netLevels(
  board: Board,
  map: StageMap,
  signs: ReadonlyMap<string, number>,
): ReadonlyMap<string, number> {
  const fixed = new Map<string, number>([...signs.keys()].map((n) => [n, 0]));
  const rail = (net: string, level = 1): void => {
    if (!fixed.has(net)) fixed.set(net, level);
  };
  for (const part of board.parts) {
    const nets = part.nets.map(netKey);
    if (part.kind === 'bridge') {
      rail(nets[3]!, 0);
      rail(nets[2]!);
      rail(nets[0]!);
      rail(nets[1]!, 0.1);
    }
    if (part.kind === 'capacitor' && (isElectrolytic(part) || part.value >= RAIL_FARADS)) {
      if (fixed.get(nets[1]!) === 0) rail(nets[0]!);
      else if (fixed.get(nets[0]!) === 0) rail(nets[1]!);
    }
    if (part.kind === 'ic')
      map.pins[part.ref]?.forEach((p, i) => {
        if (p.role === 'VCC' || p.role === 'VIN') rail(nets[i]!, SUPPLY_LEVEL);
      });
  }
  for (const part of board.parts)
    if (part.kind === 'connector' && part.nets.length === 2) {
      rail(netKey(part.nets[0]!));
      rail(netKey(part.nets[1]!), 0.1);
    }
  return relaxed(board, fixed);
}

function relaxed(board: Board, fixed: ReadonlyMap<string, number>): ReadonlyMap<string, number> {
  const near = new Map<string, string[]>();
  const join = (a: string, b: string): void => {
    near.set(a, [...(near.get(a) ?? []), b]);
    near.set(b, [...(near.get(b) ?? []), a]);
  };
  for (const part of board.parts)
    for (const [i, k] of carriers(part)) join(netKey(part.nets[i]!), netKey(part.nets[k]!));
  const level = new Map(fixed);
  for (const net of near.keys()) if (!level.has(net)) level.set(net, 0.5);
  for (let round = 0; round < ROUNDS; round++)
    for (const [net, list] of near) {
      if (fixed.has(net)) continue;
      level.set(net, list.reduce((sum, n) => sum + level.get(n)!, 0) / list.length);
    }
  return level;
}
