import ELK from 'elkjs/lib/elk.bundled.js';
import { EXAMPLE_BOARDS, exampleBoard } from '../../../bench/exampleBoards';
import { ARCHETYPES, archetypeBoard } from '@/core/archetype';
import { boardNets } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { schematicGraph } from '@/core/schematic';
import { recogniseStages } from '@/core/stages';
import { layOut } from './elkLayout';
import type { SchematicLayout } from './elkLayout';
import { inSight } from './inSight';

const elk = new ELK();
const lay = (board: Board): Promise<SchematicLayout> => layOut(schematicGraph(board, recogniseStages(board)), elk);

interface Box {
  readonly name: string;
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}

/** The boxes of symbols, of their labels, of cut nets' names and of flags. */
function boxesOf(layout: SchematicLayout): readonly Box[] {
  const boxes: Box[] = [];
  for (const s of layout.symbols) {
    const { x, y } = layout.at.get(s.ref)!;
    boxes.push({ name: s.ref, x, y, w: s.width, h: s.height });
    const wide = 6.2 * s.label.length;
    boxes.push({ name: `${s.ref} label`, x: x + s.width / 2 - wide / 2, y: y - 15, w: wide, h: 13 });
    for (const p of s.ports) {
      if (p.stub === null) continue;
      const name = 5 * p.stub.length;
      boxes.push({
        name: `${s.ref} ${p.stub}`,
        x: p.side === 'west' ? x - 10 - name : x + s.width + 10,
        y: y + p.y - 5,
        w: name,
        h: 9,
      });
    }
  }
  for (const f of layout.flags) boxes.push({ name: f.id, ...layout.at.get(f.id)!, w: f.width, h: f.height });
  return boxes;
}

function clashes(boxes: readonly Box[]): string[] {
  return boxes.flatMap((a, i) =>
    boxes
      .slice(0, i)
      .filter((b) => a.x < b.x + b.w - 0.5 && b.x < a.x + a.w - 0.5 && a.y < b.y + b.h - 0.5 && b.y < a.y + a.h - 0.5)
      .map((b) => `${a.name} on ${b.name}`),
  );
}

const boards: (readonly [string, Board])[] = [
  ...EXAMPLE_BOARDS.map((n) => [n, exampleBoard(n)] as const),
  ...ARCHETYPES.map((a) => [a.name, archetypeBoard(a.name)!] as const),
];

test.each(boards)(
  '%s: no symbol, label or name lies on another, all stand inside their rooms',
  async (_name, board) => {
    const layout = await lay(board);
    expect(clashes(boxesOf(layout))).toEqual([]);
    expect(layout.symbols.map((s) => s.ref).sort()).toEqual(board.parts.map((p) => p.ref).sort());
    for (const room of layout.graph.rooms) {
      const frame = layout.rooms.find((r) => r.id === room.id)!;
      for (const s of room.symbols) {
        const { x, y } = layout.at.get(s.ref)!;
        expect(
          x >= frame.x &&
            y >= frame.y &&
            x + s.width <= frame.x + frame.width &&
            y + s.height <= frame.y + frame.height,
        ).toBe(true);
      }
    }
    for (const a of layout.rooms) {
      for (const b of layout.rooms)
        if (a !== b)
          expect(a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height).toBe(
            false,
          );
    }
  },
);

test.each(EXAMPLE_BOARDS.map((n) => [n, exampleBoard(n)] as const))(
  '%s: a resistor added in parallel moves the median other symbol by less than 24 px',
  async (_name, board) => {
    const before = await lay(board);
    const resistors = board.parts.filter((p) => p.kind === 'resistor' && p.fitted);
    for (const r of [resistors[0]!, resistors[Math.floor(resistors.length / 2)]!, resistors.at(-1)!]) {
      const after = await lay({ ...board, parts: [...board.parts, { ...r, ref: 'R999' }] });
      const moved = board.parts
        .filter((p) => p.ref !== r.ref)
        .map((p) =>
          Math.hypot(
            after.at.get(p.ref)!.x - before.at.get(p.ref)!.x,
            after.at.get(p.ref)!.y - before.at.get(p.ref)!.y,
          ),
        )
        .sort((a, b) => a - b);
      expect(moved[Math.floor(moved.length / 2)]!).toBeLessThan(24);
    }
  },
);

test('the power path runs left to right: input, rectifier, storage before switch, transformer, output', async () => {
  const layout = await lay(exampleBoard('lamp-supply-24v'));
  const room = (id: string) => layout.rooms.find((r) => r.id.startsWith(id))!;
  const along = (id: string): number => room(id).y * 10 + room(id).x;
  const order = [
    'mains-input',
    'emi-filter',
    'rectifier',
    'bulk',
    'switch',
    'transformer',
    'output-rectifier',
    'output-filter',
  ].map(along);
  expect(order).toEqual([...order].sort((a, b) => a - b));
  expect(room('feedback').y).toBeGreaterThan(room('switch').y);
  expect(room('controller').y).toBeLessThan(room('switch').y);
});

test('what is probed comes into sight whole: a part between the nets, else the nearest two, one on each', async () => {
  const board = exampleBoard('lamp-supply-24v');
  const layout = await lay(board);
  const whole = (seen: ReturnType<typeof inSight>, ref: string): boolean => {
    const at = layout.at.get(ref)!;
    const symbol = layout.symbols.find((s) => s.ref === ref)!;
    const [left, top] = [seen!.x - seen!.size.width / 2, seen!.y - seen!.size.height / 2];
    return (
      at.x >= left &&
      at.y >= top &&
      at.x + symbol.width <= left + seen!.size.width &&
      at.y + symbol.height <= top + seen!.size.height
    );
  };
  const nets = boardNets(board);
  let apart = 0;
  for (const one of nets)
    for (const other of nets) {
      if (one === other) continue;
      const on = (net: string) => board.parts.filter((p) => layout.at.has(p.ref) && p.nets.includes(net));
      const seen = inSight(board, layout, { nets: [one, other] });
      if (on(one).length === 0 || on(other).length === 0) continue;
      const both = on(one).filter((p) => p.nets.includes(other));
      if (both.length > 0) expect(both.some((p) => whole(seen, p.ref))).toBe(true);
      else {
        apart++;
        expect([on(one).some((p) => whole(seen, p.ref)), on(other).some((p) => whole(seen, p.ref))]).toEqual([
          true,
          true,
        ]);
      }
    }
  expect(apart).toBeGreaterThan(100);
  expect(inSight(board, layout, { nets: [] })).toBeNull();
  expect(inSight(board, layout, { part: 'ZZ9' })).toBeNull();
});
