import type { Board } from '../circuit';
import { ATTACKS } from '@/testing/fuzz';
import type { Attack } from '@/testing/fuzz';
import { wrongJoints } from '@/testing/joints';
import { ALL_BOARDS, exampleBoard, exampleLabels } from '../../../bench/exampleBoards';
import { stranger } from '../../../bench/strangers';
import { draw, measureDrawing } from '.';

/** What is wrong with the drawing of a board, whatever the board is: nothing covers another, and all is joined as it is. */
function flaws(board: Board): readonly string[] {
  const { drawing } = draw(board);
  const { overlaps, through, unreached } = measureDrawing(drawing);
  const drawn = drawing.symbols.flatMap((s) => s.refs).sort();
  const missing = board.parts.map((p) => p.ref).filter((ref) => !drawn.includes(ref));
  const places = [...drawing.symbols, ...drawing.texts, ...drawing.names].flatMap((b) => [b.x, b.y, b.width, b.height]);
  return [
    ...overlaps,
    ...through,
    ...unreached,
    ...wrongJoints(board, drawing),
    ...missing.map((ref) => `${ref} is not drawn`),
    ...(places.every(Number.isFinite) ? [] : ['something stands nowhere']),
  ];
}

/** Boards that nobody has seen: changed in several ways, renamed, and of some up to half their parts not traced. */
const STRANGERS = ALL_BOARDS.filter((_, i) => i % 2 === 0).map((name, i) => [name, [0, 0.15, 0.5][i % 3]!] as const);

test.each(STRANGERS)('a stranger like %s, up to %p of its parts missing', (name, missing) => {
  const { made } = stranger({ board: exampleBoard(name), labels: exampleLabels(name) }, 21, missing);
  expect(flaws(made.board)).toEqual([]);
});

const HOSTILE: readonly Attack[] = ['netlists', 'shorthand', 'boards', 'units'];

test.each(HOSTILE)('hostile %s that become a board are drawn like any other', (attack) => {
  const boards: Board[] = [];
  for (let seed = 1; boards.length < 24 && seed <= 400; seed++) {
    try {
      const board = ATTACKS[attack](seed);
      if (board && board.parts.length > 0) boards.push(board);
    } catch {
      // Refused at the door: that is another test's.
    }
  }
  expect(boards).toHaveLength(24);
  expect(boards.flatMap((board, i) => flaws(board).map((flaw) => `${i}: ${flaw}`))).toEqual([]);
});

test('the judge is no yes-man: every wire given to another net is found, and nearly every one left out', () => {
  const board = exampleBoard('radio-charger-5v');
  const { drawing } = draw(board);
  expect(wrongJoints(board, drawing)).toEqual([]);
  let missed = 0;
  drawing.wires.forEach((wire, i) => {
    const others = drawing.wires.filter((_, k) => k !== i);
    const other = others.find((w) => w.net !== wire.net)!;
    const turned = { ...drawing, wires: [...others, { ...wire, net: other.net }] };
    expect([i, wrongJoints(board, turned).length > 0]).toEqual([i, true]);
    if (wrongJoints(board, { ...drawing, wires: others }).length === 0) missed++;
  });
  // What is told by name at both ends does without its wire.
  expect(missed / drawing.wires.length).toBeLessThan(0.15);
});
