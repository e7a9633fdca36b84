import type { Part } from '@/core/part';
import { exampleBoard } from '../../../bench/exampleBoards';
import { formerValues } from './formerValues';

test('only a part that has another value now tells what it was', () => {
  const board = exampleBoard('lamp-supply-24v');
  const changed = (p: Part): Part => (p.ref === 'R9' ? ({ ...p, value: 1000, valueText: '1k' } as Part) : p);
  const now = { ...board, parts: board.parts.map(changed) };
  expect([...formerValues(board, now)]).toEqual([['R9', '470\u2009Ω']]);
  expect(formerValues(board, board).size).toBe(0);
  // What is new was nothing before.
  expect(formerValues({ ...board, parts: board.parts.filter((p) => p.ref !== 'R9') }, now).size).toBe(0);
});
