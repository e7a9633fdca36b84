import { exampleBoard } from '../../../bench/exampleBoards';
import { around, leadPads } from './leadPads';

const board = exampleBoard('lamp-supply-24v');
const netsOf = (ref: string) => board.parts.find((p) => p.ref === ref)!.nets;
const pad = (ref: string, pin: number | null, side: 'front' | 'back', x: number, y: number) => ({
  ref,
  pin,
  side,
  at: { x, y },
});

test('both leads go to pinned pads of their nets on one photograph, those of one part first', () => {
  const [drain, , source] = netsOf('M1') as [string, string, string];
  const marks = {
    pairs: [],
    pinned: [
      pad('M1', 0, 'back', 100, 100),
      pad('M1', 2, 'back', 160, 100),
      // Nearer, but of another part.
      pad('R7', netsOf('R7').indexOf(source), 'back', 110, 100),
      pad('M1', 0, 'front', 1, 1),
    ],
  };
  expect(leadPads(board, marks, drain, source)).toEqual({
    side: 'back',
    red: expect.objectContaining({ x: 100, y: 100 }),
    black: expect.objectContaining({ x: 160, y: 100 }),
    redWords: 'M1 pin 1',
    blackWords: 'M1 pin 3',
  });
});

test('nothing is shown where a lead has no pad on the photograph that has the other, nor by a part that is pinned as a whole', () => {
  const [drain, , source] = netsOf('M1') as [string, string, string];
  const apart = [pad('M1', 0, 'back', 1, 1), pad('M1', 2, 'front', 2, 2)];
  expect(leadPads(board, { pairs: [], pinned: apart }, drain, source)).toBeNull();
  const whole = [pad('M1', null, 'back', 1, 1), pad('M1', 2, 'back', 2, 2)];
  expect(leadPads(board, { pairs: [], pinned: whole }, drain, source)).toBeNull();
});

test('what is shown holds both places and stays on the picture', () => {
  const picture = { width: 1500, height: 980 };
  for (const [a, b] of [
    [
      { x: 5, y: 5 },
      { x: 60, y: 40 },
    ],
    [
      { x: 20, y: 960 },
      { x: 1480, y: 20 },
    ],
  ] as const) {
    const s = around(a, b, picture);
    expect(s.x >= 0 && s.y >= 0 && s.x + s.width <= 1500.001 && s.y + s.height <= 980.001).toBe(true);
    for (const p of [a, b])
      expect(p.x >= s.x && p.x <= s.x + s.width && p.y >= s.y && p.y <= s.y + s.height).toBe(true);
  }
});
