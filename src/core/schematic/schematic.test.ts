import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { ARCHETYPES, archetypeBoard } from '../archetype';
import { findPart, netKey } from '../circuit';
import type { Board } from '../circuit';
import { expectReading } from '../expect';
import { solverFor } from '../meter';
import { readNetlist } from '../netlist';
import { schematicGraph } from '.';

const folder = join(__dirname, '../../../fixtures/boards');
const boards: (readonly [string, Board])[] = [
  ...readdirSync(folder)
    .filter((f) => f.endsWith('.cir'))
    .map((file) => {
      const read = readNetlist(readFileSync(join(folder, file), 'utf8'));
      if (!read.ok) throw new Error(file);
      return [file, read.value.board] as const;
    }),
  ...ARCHETYPES.map((a) => [a.name, archetypeBoard(a.name)!] as const),
];

test.each(boards)('%s: every part stands once, every pin has a port on its symbol', (_name, board) => {
  const graph = schematicGraph(board);
  expect(graph.symbols.map((s) => s.ref).sort()).toEqual(board.parts.map((p) => p.ref).sort());
  for (const s of graph.symbols) {
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

test.each(boards)('%s: wires join what is joined and nothing else', (_name, board) => {
  const graph = schematicGraph(board);
  const portOf = new Map(graph.symbols.flatMap((s) => s.ports.map((p) => [p.id, { ref: s.ref, ...p }] as const)));
  const netOf = (id: string): string => netKey(findPart(board, portOf.get(id)!.ref)!.nets[portOf.get(id)!.pin]!);
  const groups = new Map<string, Set<string>>();
  for (const w of graph.wires) {
    expect(netOf(w.from)).toBe(netKey(w.net));
    expect(netOf(w.to)).toBe(netKey(w.net));
    const ends = groups.get(netKey(w.net)) ?? new Set();
    groups.set(netKey(w.net), ends.add(w.from).add(w.to));
  }
  expect(new Set(graph.wires.map((w) => w.id)).size).toBe(graph.wires.length);
  // A net is either drawn, with every one of its pins on a wire, or written by name at each of them.
  for (const [id, port] of portOf) {
    const net = netOf(id);
    const pins = board.parts.flatMap((p) => p.nets.filter((n) => netKey(n) === net)).length;
    if (port.stub === null && pins > 1) expect([id, groups.get(net)?.has(id)]).toEqual([id, true]);
    if (port.stub !== null) expect(groups.has(net)).toBe(false);
  }
});

test.each(boards)('%s: the same board gives the same drawing', (_name, board) => {
  expect(schematicGraph(board)).toEqual(schematicGraph(board));
});

test.each(ARCHETYPES.map((a) => a.name))(
  '%s: across every part of it the meter is told what to expect, and why',
  (name) => {
    const board = archetypeBoard(name)!;
    const solver = solverFor(board, []);
    for (const part of board.parts) {
      const [a, b] = part.nets;
      if (a === undefined || b === undefined || netKey(a) === netKey(b) || [a, b].map(netKey).includes('nc')) continue;
      for (const mode of ['diode', 'ohms'] as const) {
        const e = expectReading(board, solver, mode, a, b);
        expect(e.why).not.toBe('');
        // On a typical circuit nobody has looked at, no figure is held against the board.
        expect(e.judged && e.through.length > 0).toBe(false);
        if (e.nominal === null) continue;
        expect(e.low!).toBeLessThanOrEqual(e.nominal);
        expect(e.high!).toBeGreaterThanOrEqual(e.nominal);
      }
    }
  },
);
