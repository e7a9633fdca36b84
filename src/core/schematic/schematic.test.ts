import { EXAMPLE_BOARDS, exampleBoard } from '../../../bench/exampleBoards';
import { ARCHETYPES, archetypeBoard } from '../archetype';
import { findPart, netKey } from '../circuit';
import type { Board } from '../circuit';
import { recogniseStages } from '../stages';
import { arrangeRooms, schematicGraph } from '.';
import type { SchematicGraph, SizedRoom } from '.';

const boards: (readonly [string, Board])[] = [
  ...EXAMPLE_BOARDS.map((n) => [n, exampleBoard(n)] as const),
  ...ARCHETYPES.map((a) => [a.name, archetypeBoard(a.name)!] as const),
];
const graphOf = (board: Board): SchematicGraph => schematicGraph(board, recogniseStages(board));

test.each(boards)('%s: every part stands in one room, every pin has a port on its symbol', (_name, board) => {
  const symbols = graphOf(board).rooms.flatMap((r) => r.symbols);
  expect(symbols.map((s) => s.ref).sort()).toEqual(board.parts.map((p) => p.ref).sort());
  for (const s of symbols) {
    const part = findPart(board, s.ref)!;
    expect(s.kind).toBe(part.kind);
    expect(s.ports.map((p) => p.pin).sort((a, b) => a - b)).toEqual(part.nets.map((_, i) => i));
    for (const p of s.ports) {
      expect(p.side === 'west' ? p.x : s.width - p.x).toBe(0);
      expect(p.y > 0 && p.y < s.height).toBe(true);
    }
    const west = s.ports.filter((p) => p.side === 'west').map((p) => p.y);
    expect(new Set(west).size).toBe(west.length);
  }
});

test.each(boards)(
  '%s: wires join what is joined and nothing else; a net that leaves its room is named there',
  (_name, board) => {
    const rooms = graphOf(board).rooms;
    for (const room of rooms) {
      const portOf = new Map(room.symbols.flatMap((s) => s.ports.map((p) => [p.id, { ref: s.ref, ...p }] as const)));
      const flagOf = new Map(room.flags.map((f) => [f.id, f.net] as const));
      const netOf = (id: string): string => {
        const port = portOf.get(id);
        return netKey(port ? findPart(board, port.ref)!.nets[port.pin]! : flagOf.get(id)!);
      };
      const wired = new Set<string>();
      for (const w of room.wires) {
        expect([netOf(w.from), netOf(w.to)]).toEqual([netKey(w.net), netKey(w.net)]);
        wired.add(w.from).add(w.to);
      }
      expect(new Set(room.wires.map((w) => w.id)).size).toBe(room.wires.length);
      const inside = (net: string): number => [...portOf.keys()].filter((id) => netOf(id) === net).length;
      const whole = (net: string): number => board.parts.flatMap((p) => p.nets).filter((n) => netKey(n) === net).length;
      for (const [id, port] of portOf) {
        const net = netOf(id);
        // Drawn with every pin of the room on a wire, or written by name at each of them.
        if (port.stub === null) expect([id, wired.has(id)]).toEqual([id, true]);
        else expect(wired.has(id)).toBe(false);
        if (port.stub === null && whole(net) > inside(net)) expect([...flagOf.values()].map(netKey)).toContain(net);
        if (port.stub === null && whole(net) === inside(net))
          expect([...flagOf.values()].map(netKey)).not.toContain(net);
      }
    }
  },
);

test.each(boards)('%s: the same board gives the same drawing', (_name, board) => {
  expect(graphOf(board)).toEqual(graphOf(board));
});

describe('rooms in rows', () => {
  const room = (id: string, more: Partial<SizedRoom>): SizedRoom => ({
    id,
    row: 'power',
    island: 0,
    width: 200,
    height: 100,
    ...more,
  });

  test('control on top, feedback below, the primary side first with the barrier behind it', () => {
    const { rooms, barrier } = arrangeRooms(
      [room('out', { island: 1 }), room('in', {}), room('ctl', { row: 'control' }), room('fb', { row: 'feedback' })],
      1500,
    );
    const at = Object.fromEntries(rooms.map((r) => [r.id, r]));
    expect(at['ctl']!.y).toBeLessThan(at['in']!.y);
    expect(at['fb']!.y).toBeGreaterThan(at['in']!.y);
    expect(at['out']!.x).toBeGreaterThan(at['in']!.x + at['in']!.width);
    expect(barrier).toHaveLength(1);
    expect(barrier[0]!.x).toBeGreaterThan(at['in']!.x + at['in']!.width);
    expect(barrier[0]!.x).toBeLessThan(at['out']!.x);
  });

  test('a row too long goes on below', () => {
    const { rooms, width } = arrangeRooms(
      Array.from({ length: 9 }, (_, i) => room(`r${i}`, {})),
      900,
    );
    expect(width).toBeLessThanOrEqual(900);
    expect(new Set(rooms.map((r) => r.y)).size).toBeGreaterThan(1);
  });

  test('a room that grows a little moves nothing', () => {
    const list = [room('a', { width: 205 }), room('b', {}), room('c', { row: 'feedback' })];
    expect(arrangeRooms([{ ...list[0]!, width: 228, height: 110 }, ...list.slice(1)], 1500).rooms).toEqual(
      arrangeRooms(list, 1500).rooms,
    );
  });

  test('the power path stays where it is when control grows above it', () => {
    const list = [room('p', {}), room('c', { row: 'control' })];
    const at = (height: number): number =>
      arrangeRooms([list[0]!, { ...list[1]!, height }], 1500).rooms.find((r) => r.id === 'p')!.y;
    expect(at(600)).toBe(at(100));
  });

  test('nothing gives an empty sheet', () => {
    expect(arrangeRooms([], 1500)).toEqual({ rooms: [], barrier: [], width: 0, top: 0, height: 0 });
  });
});
