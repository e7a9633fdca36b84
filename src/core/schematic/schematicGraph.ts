import { netKey, pinNames, pinsOnNet } from '../circuit';
import type { Board, Part, PartKind } from '../circuit';
import { DisjointSets } from '../graph';

/** A place on a symbol where a wire ends: pixels from the symbol's top left corner. */
export interface SymbolPort {
  readonly id: string;
  readonly pin: number;
  readonly name: string;
  readonly side: 'west' | 'east';
  readonly x: number;
  readonly y: number;
  /** Net name where the wire is cut short and the name written instead. */
  readonly stub: string | null;
}

/** One symbol: its part, size in pixels and ports. */
export interface SymbolBox {
  readonly ref: string;
  readonly kind: PartKind;
  readonly width: number;
  readonly height: number;
  readonly ports: readonly SymbolPort[];
}

/** One wire from port to port, of a net. */
export interface SchematicWire {
  readonly id: string;
  readonly net: string;
  readonly from: string;
  readonly to: string;
}

export interface SchematicGraph {
  readonly symbols: readonly SymbolBox[];
  readonly wires: readonly SchematicWire[];
}

/** A net with at least this many pins is a rail wherever it is: named at each pin instead of drawn. */
const RAIL_PINS = 10;
const TWO_PIN = { width: 60, height: 30 };
const PIN_PITCH = 20;
const BOX_WIDTH = 76;

/**
 * The graph to lay out: a symbol per fitted part with its ports, and wires along the flow from the inlet.
 * Rails are written as names, so that the picture is of stages and not of ground.
 */
export function schematicGraph(board: Board): SchematicGraph {
  const rails = railNets(board);
  const isRail = (net: string): boolean => rails.has(netKey(net));
  const depth = depths(board, isRail);
  const symbols = board.parts.map((part) => symbolOf(part, isRail, depth));
  const portsByNet = new Map<string, { port: string; ref: string; net: string }[]>();
  for (const symbol of symbols) {
    const part = board.parts.find((p) => p.ref === symbol.ref)!;
    for (const port of symbol.ports) {
      const net = part.nets[port.pin]!;
      if (port.stub === null)
        portsByNet.set(netKey(net), [...(portsByNet.get(netKey(net)) ?? []), { port: port.id, ref: symbol.ref, net }]);
    }
  }
  const wires: SchematicWire[] = [];
  for (const [key, ends] of portsByNet) {
    const sorted = [...ends].sort((a, b) => depth.get(a.ref)! - depth.get(b.ref)!);
    const [first, ...rest] = sorted;
    if (!first) continue;
    rest.forEach((end, i) => wires.push({ id: `${key} ${i}`, net: first.net, from: first.port, to: end.port }));
  }
  return { symbols, wires };
}

/** Rails: pins left free, the most connected net of each galvanic island (its ground), and very large nets. */
function railNets(board: Board): ReadonlySet<string> {
  const rails = new Set(['nc']);
  const nets = [...new Set(board.parts.flatMap((p) => p.nets.map(netKey)))];
  const index = new Map(nets.map((n, i) => [n, i]));
  const islands = new DisjointSets(nets.length);
  for (const part of board.parts) {
    if (part.kind === 'capacitor' || part.kind === 'connector') continue;
    const [first, ...rest] = part.kind === 'opto' ? part.nets.slice(0, 2) : part.nets;
    if (first !== undefined) for (const net of rest) islands.union(index.get(netKey(first))!, index.get(netKey(net))!);
  }
  const largest = new Map<number, { net: string; pins: number }>();
  for (const net of nets) {
    const pins = pinsOnNet(board, net).length;
    if (pins >= RAIL_PINS) rails.add(net);
    const island = islands.find(index.get(net)!);
    if (pins > (largest.get(island)?.pins ?? 3)) largest.set(island, { net, pins });
  }
  for (const { net } of largest.values()) rails.add(net);
  return rails;
}

/** Steps from the first connector to each part, rails not crossed; what hangs on rails alone comes after. */
function depths(board: Board, isRail: (net: string) => boolean): Map<string, number> {
  const depth = new Map<string, number>();
  const starts = [...board.parts.filter((p) => p.kind === 'connector'), ...board.parts];
  for (const start of starts) {
    if (depth.has(start.ref)) continue;
    let wave: Part[] = [start];
    let level = depth.size === 0 ? 0 : Math.max(0, neighbourDepth(board, start, depth));
    while (wave.length > 0) {
      const next: Part[] = [];
      for (const part of wave) {
        if (depth.has(part.ref)) continue;
        depth.set(part.ref, level);
        for (const net of part.nets) {
          const pins = pinsOnNet(board, net);
          if (!isRail(net)) next.push(...pins.map((p) => p.part).filter((p) => !depth.has(p.ref)));
        }
      }
      wave = next;
      level++;
    }
  }
  return depth;
}

function neighbourDepth(board: Board, part: Part, depth: ReadonlyMap<string, number>): number {
  const near = part.nets.flatMap((net) => pinsOnNet(board, net).map((p) => depth.get(p.part.ref) ?? -1));
  return Math.max(-1, ...near) + 1;
}

function symbolOf(part: Part, isRail: (net: string) => boolean, depth: ReadonlyMap<string, number>): SymbolBox {
  const names = pinNames(part);
  const port = (pin: number, side: 'west' | 'east', x: number, y: number): SymbolPort => {
    const net = part.nets[pin]!;
    return { id: `${part.ref} ${pin}`, pin, name: names[pin]!, side, x, y, stub: isRail(net) ? net : null };
  };
  if (part.nets.length === 2 && part.kind !== 'connector' && part.kind !== 'ic') {
    const { width, height } = TWO_PIN;
    // A part between a wire and a rail has its wire to the west, whatever its pin order.
    const swap = isRail(part.nets[0]!) && !isRail(part.nets[1]!);
    const [west, east] = swap ? [1, 0] : [0, 1];
    return {
      ref: part.ref,
      kind: part.kind,
      width,
      height,
      ports: [port(west, 'west', 0, height / 2), port(east, 'east', width, height / 2)],
    };
  }
  const outlet = part.kind === 'connector' && (depth.get(part.ref) ?? 0) > 0;
  const sides = sidesOf(part, outlet);
  const rows = Math.max(sides.filter((s) => s === 'west').length, sides.filter((s) => s === 'east').length, 1);
  const height = rows * PIN_PITCH + 6;
  const counts = { west: 0, east: 0 };
  const ports = sides.map((side, pin) => {
    const y = 3 + PIN_PITCH / 2 + PIN_PITCH * counts[side]++;
    return port(pin, side, side === 'west' ? 0 : BOX_WIDTH, y);
  });
  return { ref: part.ref, kind: part.kind, width: BOX_WIDTH, height, ports };
}

/** Which side each pin stands on: inputs west, outputs east; an IC's first half west. */
function sidesOf(part: Part, outlet: boolean): readonly ('west' | 'east')[] {
  const fixed: Readonly<Record<string, readonly ('west' | 'east')[]>> = {
    bridge: ['west', 'west', 'east', 'east'],
    opto: ['east', 'east', 'west', 'west'],
    'shunt-reference': ['east', 'west', 'west'],
    regulator: ['west', 'west', 'east'],
    relay: ['west', 'west', 'east', 'east'],
    triac: ['west', 'east', 'west'],
    bjt: ['east', 'west', 'east'],
    mosfet: ['east', 'west', 'east'],
  };
  const known = fixed[part.kind];
  if (known) return known;
  if (part.kind === 'connector') return part.nets.map(() => (outlet ? 'west' : 'east'));
  return part.nets.map((_, i) => (i < part.nets.length / 2 ? 'west' : 'east'));
}
