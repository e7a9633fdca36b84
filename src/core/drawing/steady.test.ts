import type { Board } from '../circuit';
import type { Part } from '../part';
import { exampleBoard } from '../../../bench/exampleBoards';
import { draw, measureDrawing } from '.';

const parallel = (part: Part): Part => ({
  kind: 'resistor',
  ref: 'R999',
  nets: part.nets,
  keys: [],
  numbers: {},
  fitted: true,
  basis: 'seen',
  value: 1000,
  valueText: '1k',
});

/** The board after one small change at a part. */
const CHANGES: Readonly<Record<string, (board: Board, part: Part) => readonly Part[] | null>> = {
  'a part dropped': (b, part) => b.parts.filter((p) => p !== part),
  'a resistor in parallel': (b, part) => (part.nets.length === 2 ? [...b.parts, parallel(part)] : null),
  'a net renamed': (b, part) =>
    b.parts.map((p) => ({ ...p, nets: p.nets.map((n) => (n === part.nets[0] ? 'RENAMED' : n)) })),
};

/** Boards and which of their parts are changed: every one, or every so many. */
const BOARDS = [
  ['lamp-supply-24v', 2],
  ['weather-buck-5v', 2],
  ['radio-charger-5v', 2],
  ['ups-frontend-pfc', 8],
] as const;

describe.each(BOARDS)('%s', (name, step) => {
  const board = exampleBoard(name);
  const before = draw(board);
  const sheet = Math.max(before.drawing.width, before.drawing.height);
  const at = new Map(before.drawing.symbols.map((s) => [s.refs[0]!, s]));

  test.each(Object.keys(CHANGES))('%s, at part after part: hardly anything moves', (what) => {
    let tried = 0;
    for (const [i, part] of board.parts.entries()) {
      if (i % step > 0) continue;
      const parts = CHANGES[what]!(board, part);
      if (!parts) continue;
      tried++;
      const changed = { ...board, parts };
      const { drawing } = draw(changed, undefined, before.standing);
      const moved = drawing.symbols
        .flatMap((s) => {
          const old = at.get(s.refs[0]!);
          return old ? [Math.hypot(old.x - s.x, old.y - s.y)] : [];
        })
        .sort((a, b) => a - b);
      expect([part.ref, moved[moved.length >> 1]! < drawing.grid]).toEqual([part.ref, true]);
      expect([part.ref, Math.max(sheet / 4, moved.at(-1)!)]).toEqual([part.ref, sheet / 4]);
      const { overlaps, through } = measureDrawing(drawing);
      // Two signs of one reference may touch.
      const real = overlaps.filter((o) => !/^name (\S+) \/ name \1$/u.test(o));
      expect([part.ref, real, through]).toEqual([part.ref, [], []]);
    }
    expect(tried).toBeGreaterThan(20 / step);
  });

  test('drawn again with nothing changed, it is the same', () => {
    expect(draw(board, undefined, before.standing).drawing).toEqual(before.drawing);
    expect(draw({ ...board }).drawing).toEqual(before.drawing);
  });
});

test('a board that grows part by part is drawn at every step, and what stands stays', () => {
  const board = exampleBoard('buoy-boost-28');
  let standing: ReturnType<typeof draw>['standing'] | undefined;
  for (let n = 10; n <= board.parts.length; n += 7) {
    const part = { ...board, parts: board.parts.slice(0, n), couplings: [] };
    const made = draw(part, undefined, standing);
    expect(made.drawing.symbols.flatMap((s) => s.refs)).toHaveLength(n);
    standing = made.standing;
  }
});

test('nothing, one part, a part that is joined to nothing: each is drawn', () => {
  const board = exampleBoard('lamp-supply-24v');
  for (const parts of [[], board.parts.slice(0, 1), board.parts.slice(5, 7)]) {
    const { drawing } = draw({ ...board, parts, couplings: [] });
    expect(drawing.symbols).toHaveLength(parts.length);
    expect(measureDrawing(drawing).overlaps).toEqual([]);
  }
});
