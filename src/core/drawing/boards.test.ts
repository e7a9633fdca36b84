import { netKey } from '../circuit';
import { recogniseStages } from '../stages';
import { testBoards } from '@/testing/boards';
import { wrongJoints } from '@/testing/joints';
import { boardsTogether, exampleBoard } from '../../../bench/exampleBoards';
import { draw, measureDrawing } from '.';
import { readDrawing } from './readDrawing';

const drawn = testBoards().map(({ name, board }) => ({ name, board, drawing: draw(board).drawing }));

describe.each(drawn)('$name', ({ board, drawing }) => {
  test('symbols and letters touch neither each other nor a wire; every pin is reached; few crossings and bends', () => {
    const m = measureDrawing(drawing);
    expect([m.overlaps, m.through, m.unreached]).toEqual([[], [], []]);
    expect(m.crossingsPerNet).toBeLessThanOrEqual(0.25);
    expect(m.bendsPerWire).toBeLessThanOrEqual(2.5);
    expect(m.wired).toBeGreaterThanOrEqual(0.85);
    expect(m.shape).toBeGreaterThanOrEqual(1);
    expect(m.shape).toBeLessThanOrEqual(2.2);
  });

  test('every part is drawn once, with every pin on its net, on the grid and on the edge of its symbol', () => {
    expect(drawing.symbols.flatMap((s) => s.refs).sort()).toEqual(board.parts.map((p) => p.ref).sort());
    const pins = drawing.symbols.flatMap((s) =>
      s.pins.map((p) => {
        expect([p.x % drawing.grid, p.y % drawing.grid]).toEqual([0, 0]);
        const edge = p.x === s.x || p.x === s.x + s.width || p.y === s.y || p.y === s.y + s.height;
        expect([p.ref, p.pin, edge]).toEqual([p.ref, p.pin, true]);
        return `${p.ref} ${p.index} ${netKey(p.net)}`;
      }),
    );
    expect(pins.sort()).toEqual(board.parts.flatMap((p) => p.nets.map((n, i) => `${p.ref} ${i} ${netKey(n)}`)).sort());
  });

  test('wires join what is joined and nothing else', () => {
    expect(wrongJoints(board, drawing)).toEqual([]);
  });

  test('everything lies on the sheet, and every symbol has its designator', () => {
    for (const box of [...drawing.symbols, ...drawing.texts, ...drawing.names])
      expect(
        box.x >= 0 && box.y >= 0 && box.x + box.width <= drawing.width && box.y + box.height <= drawing.height,
      ).toBe(true);
    const lettered = new Set(drawing.texts.map((t) => t.of));
    expect(drawing.symbols.filter((s) => !s.refs.some((r) => lettered.has(r))).map((s) => s.refs)).toEqual([]);
  });

  test('a transformer between islands is one symbol on the barrier', () => {
    const map = recogniseStages(board);
    const [barrier] = drawing.barriers;
    for (const { refs, purpose } of map.cores) {
      const symbols = drawing.symbols.filter((s) => s.refs.some((r) => refs.includes(r)));
      expect(symbols.map((s) => [...s.refs].sort())).toEqual([[...refs].sort()]);
      const [symbol] = symbols;
      const islands = new Set(
        symbol!.pins.flatMap((p) => {
          const i = map.islands.findIndex((x) => x.nets.some((n) => netKey(n) === netKey(p.net)));
          return i < 0 ? [] : [i];
        }),
      );
      if (purpose !== 'transformer' || islands.size < 2 || !barrier) continue;
      const [[x]] = barrier.points as [readonly [number, number]];
      // Both sides of a core stand on their sides of the line, or both on one where the islands share a side.
      if (symbol!.x < x && x < symbol!.x + symbol!.width) expect(symbol!.x + symbol!.width / 2).toBe(x);
    }
  });
});

test('a board that says nothing of its inlet begins where the power is switched into the core', () => {
  for (const name of ['sign-royer-12', 'dock-pushpull-48']) {
    const { nameplate, ...bare } = exampleBoard(name);
    expect(nameplate).toBeDefined();
    const { drawing } = draw(bare);
    const x = (ref: string): number => drawing.symbols.find((s) => s.refs.includes(ref))!.x;
    expect([name, x('J1') < x('J2')]).toEqual([name, true]);
  }
});

test('two hundred parts are drawn as well', () => {
  const board = boardsTogether(['lamp-supply-24v', 'quay-charger-24v', 'weather-buck-5v']);
  expect(board.parts.length).toBeGreaterThanOrEqual(200);
  const m = measureDrawing(draw(board).drawing);
  expect([m.overlaps, m.through, m.unreached]).toEqual([[], [], []]);
  expect(m.crossingsPerNet).toBeLessThanOrEqual(0.25);
  expect(m.wired).toBeGreaterThanOrEqual(0.85);
});

test('the power goes from left to right: each stage of its way is right of the one before', () => {
  let pairs = 0;
  const wrong: string[] = [];
  for (const { name, board, drawing } of drawn) {
    const centre = (k: number): number => drawing.stages[k]!.x + drawing.stages[k]!.width / 2;
    for (const [a, b] of readDrawing(board, recogniseStages(board)).order) {
      pairs++;
      if (centre(b) <= centre(a)) wrong.push(`${name}: ${drawing.stages[a]!.kind}, ${drawing.stages[b]!.kind}`);
    }
  }
  expect(pairs).toBeGreaterThan(200);
  expect(wrong).toEqual([]);
});

test('what hangs between a rail and its return hangs down from it', () => {
  let [right, all] = [0, 0];
  for (const { board, drawing } of drawn) {
    const signs = new Set(drawing.names.flatMap((n) => (n.sign === null ? [] : [netKey(n.net)])));
    for (const s of drawing.symbols) {
      if (s.pins.length !== 2 || s.turn % 2 === 0 || board.parts.find((p) => p.ref === s.refs[0])?.kind !== 'capacitor')
        continue;
      const foot = s.pins.find((p) => signs.has(netKey(p.net)));
      if (!foot || s.pins.every((p) => signs.has(netKey(p.net)))) continue;
      all++;
      if (foot.side === 'down') right++;
    }
  }
  expect(all).toBeGreaterThan(100);
  expect(right / all).toBeGreaterThanOrEqual(0.97);
});
