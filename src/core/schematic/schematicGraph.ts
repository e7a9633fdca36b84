import { findPart, netKey, pinNames } from '../circuit';
import type { Board } from '../circuit';
import type { Part, PartKind } from '../part';
import type { StageKind, StageMap } from '../stages';
import { LABEL_PIXELS, STUB_PIXELS, labelOf } from './labels';
import { ROOM_ROWS, roomsOf } from './rooms';
import type { RoomRow } from './rooms';

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

/** The room that a symbol takes with its label and its stubs' names, pixels beyond the symbol's box. */
export interface Margin {
  readonly west: number;
  readonly east: number;
  readonly top: number;
}

/** One symbol: its part, size in pixels, ports and margin. */
export interface SymbolBox {
  readonly ref: string;
  readonly kind: PartKind;
  readonly label: string;
  readonly width: number;
  readonly height: number;
  readonly margin: Margin;
  readonly ports: readonly SymbolPort[];
}

/** The name of a net that leaves its room, written at the end of a wire. */
export interface NetFlag {
  readonly id: string;
  readonly net: string;
  readonly width: number;
  readonly height: number;
}

/** One wire of a net, from port or flag to port. */
export interface SchematicWire {
  readonly id: string;
  readonly net: string;
  readonly from: string;
  readonly to: string;
}

/** One stage's room: what stands in it and what is wired inside. */
export interface SchematicRoom {
  readonly id: string;
  readonly kind: StageKind | 'unplaced';
  readonly row: RoomRow;
  /** Index of the galvanic island that most of its pins are on, -1 without. */
  readonly island: number;
  readonly symbols: readonly SymbolBox[];
  readonly flags: readonly NetFlag[];
  readonly wires: readonly SchematicWire[];
}

export interface SchematicGraph {
  readonly rooms: readonly SchematicRoom[];
}

/** A net with at least this many pins is a rail wherever it is: named at each pin instead of drawn. */
const RAIL_PINS = 10;
const TWO_PIN = { width: 60, height: 30 };
const PIN_PITCH = 20;
const BOX_WIDTH = 76;

/**
 * The schematic to lay out: a room for each stage, in it a symbol for each part with its ports, wires for the nets
 * that stay, and names for those that leave. Reference nets and very large nets are names everywhere.
 */
export function schematicGraph(board: Board, map: StageMap): SchematicGraph {
  const rails = namedNets(board, map);
  const islandOf = new Map(map.islands.flatMap((island, i) => island.nets.map((n) => [netKey(n), i] as const)));
  const rooms = roomsOf(map).map((room): SchematicRoom => {
    const parts = room.parts.flatMap((ref) => findPart(board, ref) ?? []);
    const inside = countPins(parts);
    const isStub = (net: string): boolean => rails.has(netKey(net)) || (inside.get(netKey(net)) ?? 0) < 2;
    const symbols = parts.map((part) => symbolOf(part, isStub));
    const { wires, flags } = wiresOf(board, room.id, parts, symbols, inside);
    return {
      id: room.id,
      kind: room.kind,
      row: ROOM_ROWS[room.kind],
      island: mainIsland(parts, islandOf),
      symbols,
      flags,
      wires,
    };
  });
  return { rooms };
}

function countPins(parts: readonly Part[]): ReadonlyMap<string, number> {
  const count = new Map<string, number>();
  for (const net of parts.flatMap((p) => p.nets.map(netKey))) count.set(net, (count.get(net) ?? 0) + 1);
  return count;
}

function mainIsland(parts: readonly Part[], islandOf: ReadonlyMap<string, number>): number {
  const votes = new Map<number, number>();
  for (const net of parts.flatMap((p) => p.nets)) {
    const island = islandOf.get(netKey(net));
    if (island !== undefined) votes.set(island, (votes.get(island) ?? 0) + 1);
  }
  return [...votes].sort((a, b) => b[1] - a[1])[0]?.[0] ?? -1;
}

/** Nets that are named at each pin: pins left free, the reference nets of the islands, and very large nets. */
function namedNets(board: Board, map: StageMap): ReadonlySet<string> {
  const rails = new Set(['nc', ...map.islands.filter((i) => i.nets.length > 2).map((i) => netKey(i.reference))]);
  for (const [net, pins] of countPins(board.parts)) if (pins >= RAIL_PINS) rails.add(net);
  return rails;
}

/** Wires of a room: each net's ports in a row from the first; a flag where the net goes on elsewhere. */
function wiresOf(
  board: Board,
  room: string,
  parts: readonly Part[],
  symbols: readonly SymbolBox[],
  inside: ReadonlyMap<string, number>,
): { readonly wires: readonly SchematicWire[]; readonly flags: readonly NetFlag[] } {
  const whole = countPins(board.parts);
  const ends = new Map<string, { net: string; ports: string[] }>();
  symbols.forEach((symbol, i) => {
    for (const port of symbol.ports) {
      if (port.stub !== null) continue;
      const net = parts[i]!.nets[port.pin]!;
      const known = ends.get(netKey(net));
      if (known) known.ports.push(port.id);
      else ends.set(netKey(net), { net, ports: [port.id] });
    }
  });
  const wires: SchematicWire[] = [];
  const flags: NetFlag[] = [];
  for (const [key, { net, ports }] of ends) {
    const [first, ...rest] = ports;
    rest.forEach((port, i) => wires.push({ id: `${room} ${key} ${i}`, net, from: first!, to: port }));
    if (whole.get(key)! === inside.get(key)!) continue;
    const flag = { id: `${room} flag ${key}`, net, width: 14 + STUB_PIXELS * net.length, height: 14 };
    flags.push(flag);
    wires.push({ id: `${room} ${key} flag`, net, from: first!, to: flag.id });
  }
  return { wires, flags };
}

function symbolOf(part: Part, isStub: (net: string) => boolean): SymbolBox {
  const names = pinNames(part);
  const label = labelOf(part);
  const port = (pin: number, side: 'west' | 'east', x: number, y: number): SymbolPort => {
    const net = part.nets[pin]!;
    return { id: `${part.ref} ${pin}`, pin, name: names[pin]!, side, x, y, stub: isStub(net) ? net : null };
  };
  if (part.nets.length === 2 && part.kind !== 'connector' && part.kind !== 'ic') {
    const { width, height } = TWO_PIN;
    // A part between a wire and a name has its wire to the west, whatever its pin order.
    const swap = isStub(part.nets[0]!) && !isStub(part.nets[1]!);
    const [west, east] = swap ? [1, 0] : [0, 1];
    const ports = [port(west, 'west', 0, height / 2), port(east, 'east', width, height / 2)];
    return { ref: part.ref, kind: part.kind, label, width, height, ports, margin: marginOf(label, width, ports) };
  }
  const sides = sidesOf(part);
  const rows = Math.max(sides.filter((s) => s === 'west').length, sides.filter((s) => s === 'east').length, 1);
  const height = rows * PIN_PITCH + 6;
  const counts = { west: 0, east: 0 };
  const ports = sides.map((side, pin) => {
    const y = 3 + PIN_PITCH / 2 + PIN_PITCH * counts[side]++;
    return port(pin, side, side === 'west' ? 0 : BOX_WIDTH, y);
  });
  return {
    ref: part.ref,
    kind: part.kind,
    label,
    width: BOX_WIDTH,
    height,
    ports,
    margin: marginOf(label, BOX_WIDTH, ports),
  };
}

/** Space for the label above and for the names of cut nets at the sides. */
function marginOf(label: string, width: number, ports: readonly SymbolPort[]): Margin {
  const spare = Math.max(0, (LABEL_PIXELS * label.length - width) / 2);
  const side = (which: 'west' | 'east'): number => {
    const names = ports.filter((p) => p.side === which && p.stub !== null).map((p) => p.stub!.length);
    return Math.ceil(Math.max(spare, 6, ...names.map((n) => 16 + STUB_PIXELS * n)));
  };
  return { west: side('west'), east: side('east'), top: 20 };
}

/** Which side each pin stands on: inputs west, outputs east; an IC's first half west. */
function sidesOf(part: Part): readonly ('west' | 'east')[] {
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
  if (part.kind === 'connector') return part.nets.map(() => 'east');
  return part.nets.map((_, i) => (i < part.nets.length / 2 ? 'west' : 'east'));
}
