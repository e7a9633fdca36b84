import { MarkChange, NO_MARKS, PhotoMarks, changeMarks } from './photoMarks';

const at = (x: number, y: number) => ({ x, y });
const pinned = (ref: string, pin: number | null, side: 'front' | 'back', x = 1) =>
  ({ kind: 'pin', pinned: { ref, pin, side, at: at(x, x) } }) as const;

test('a pair is added, taken out and exchanged; indices that are not there change nothing', () => {
  let marks = changeMarks(NO_MARKS, { kind: 'pair', front: at(1, 2), back: at(3, 4) });
  marks = changeMarks(marks, { kind: 'pair', front: at(5, 6), back: at(7, 8) });
  const swapped = changeMarks(marks, { kind: 'swap-pairs', first: 0, second: 1 });
  expect(swapped.pairs).toEqual([
    { front: at(5, 6), back: at(3, 4) },
    { front: at(1, 2), back: at(7, 8) },
  ]);
  expect(changeMarks(swapped, { kind: 'swap-pairs', first: 0, second: 1 })).toEqual(marks);
  expect(changeMarks(marks, { kind: 'swap-pairs', first: 0, second: 9 })).toEqual(marks);
  expect(changeMarks(marks, { kind: 'drop-pair', index: 9 })).toEqual(marks);
  expect(changeMarks(marks, { kind: 'drop-pair', index: 0 }).pairs).toEqual([marks.pairs[1]]);
});

test('a place pinned again moves; each side and each pad has its own', () => {
  const marks = [
    pinned('R1', null, 'front'),
    pinned('R1', 0, 'front'),
    pinned('R1', 0, 'back'),
    pinned('R1', 0, 'front', 9),
  ].reduce(changeMarks, NO_MARKS);
  expect(marks.pinned).toHaveLength(3);
  expect(marks.pinned.find((p) => p.pin === 0 && p.side === 'front')!.at).toEqual(at(9, 9));
  expect(changeMarks(marks, { kind: 'unpin', ref: 'R1', pin: 0, side: 'back' }).pinned).toHaveLength(2);
});

test('no more pairs than can be kept, and what is kept reads back', () => {
  let marks = NO_MARKS;
  for (let i = 0; i < 60; i++) marks = changeMarks(marks, { kind: 'pair', front: at(i, 0), back: at(i, 1) });
  expect(marks.pairs).toHaveLength(40);
  expect(PhotoMarks.parse(JSON.parse(JSON.stringify(marks)))).toEqual(marks);
});

test.each([
  [{ kind: 'pair', front: at(1, 2) }],
  [{ kind: 'pair', front: at(1, 2), back: at(1e9, 0) }],
  [{ kind: 'pin', pinned: { ref: '', pin: 0, side: 'front', at: at(0, 0) } }],
  [{ kind: 'pin', pinned: { ref: 'R1', pin: 0, side: 'top', at: at(0, 0) } }],
  [{ kind: 'drop-pair', index: -1 }],
  [{ kind: 'draw' }],
])('%p is refused', (change) => {
  expect(MarkChange.safeParse(change).success).toBe(false);
});
