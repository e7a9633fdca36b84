import { archetypeBoard } from '@/core/archetype';
import { sideOf } from './sideOf';

const board = archetypeBoard('buck-module')!;
const [first, second] = board.parts.filter((p) => p.nets.length === 2);
const at = { x: 1, y: 1 };
const pin = (ref: string, index: number | null, side: 'front' | 'back') => ({ ref, pin: index, side, at });
const marks = {
  pairs: [],
  pinned: [pin(first!.ref, null, 'front'), pin(second!.ref, 0, 'back'), pin(second!.ref, 1, 'back')],
};

test('a part on one side alone says which; one that is pinned on both, or nowhere, says nothing', () => {
  expect(sideOf(board, marks, { part: first!.ref })).toBe('front');
  expect(sideOf(board, marks, { part: second!.ref })).toBe('back');
  expect(sideOf(board, marks, { part: 'R999' })).toBeNull();
  const both = { ...marks, pinned: [...marks.pinned, pin(first!.ref, 0, 'back')] };
  expect(sideOf(board, both, { part: first!.ref })).toBeNull();
});

test('a net lies where its pads are pinned; a part without pads says nothing of it', () => {
  expect(sideOf(board, marks, { nets: [second!.nets[0]!] })).toBe('back');
  expect(sideOf(board, { ...marks, pinned: [pin(first!.ref, null, 'front')] }, { nets: [first!.nets[0]!] })).toBeNull();
  expect(sideOf(board, marks, {})).toBeNull();
});
