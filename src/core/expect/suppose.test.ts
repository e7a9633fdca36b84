import { exampleBoard } from '../../../bench/exampleBoards';
import { findPart } from '../circuit';
import { PoweredReader, alivePoints } from '../work';
import { movedPoints, parseSupposition, supposed } from '.';
import type { Supposition } from '.';

const board = exampleBoard('lamp-supply-24v');

function read(text: string): Supposition {
  const made = parseSupposition(board, text);
  if (!made.ok) throw new Error(made.problem.sentence);
  return made.value;
}

test.each([
  ['R18 27k', { ref: 'R18', value: 27e3 }],
  ['r18 2k7', { ref: 'R18', value: 2700 }],
  ['C8 470u', { ref: 'C8', value: 470e-6 }],
])('%s is another value', (text, change) => {
  const made = read(text);
  expect(made.change?.ref).toBe(change.ref);
  expect(made.change!.value).toBeCloseTo(change.value, 9);
  expect(made.fault).toBeNull();
});

test.each([
  ['C8 open', { kind: 'open', ref: 'C8' }],
  ['M1 short(d,s)', { kind: 'short', ref: 'M1', pins: ['d', 's'] }],
  ['C9:esr=2', { kind: 'esr', ref: 'C9' }],
])('%s is a fault', (text, fault) => {
  expect(read(text).fault).toMatchObject(fault);
});

test.each(['R99 1k', 'R18', 'R18 5V', 'R18 0', 'R18 burnt', ''])('%s is refused with what to write', (text) => {
  const made = parseSupposition(board, text);
  expect(made.ok).toBe(false);
  if (!made.ok) expect(made.problem.remedy).toContain('R3 12k');
});

test('the board as it is noted stays as it is', () => {
  const before = JSON.stringify(board.parts);
  const { board: changed, faults } = supposed(board, [read('R18 27k'), read('C8 open')]);
  expect(JSON.stringify(board.parts)).toBe(before);
  expect(findPart(changed, 'R18')).toMatchObject({ value: 27e3 });
  expect(faults).toHaveLength(1);
  expect(supposed(board, []).board).toBe(board);
});

const condition = { source: 230, load: 'half' } as const;
const sound = PoweredReader.at(board, condition, []);

test('a divider that is turned moves the output by its ratio, and what hangs on its turns', () => {
  const { board: changed } = supposed(board, [read('R18 27k')]);
  const now = alivePoints(PoweredReader.at(changed, condition, []));
  const moved = movedPoints(alivePoints(sound), now);
  const out = moved.find((m) => m.point.red === 'OUT+' && m.point.mode === 'dcv')!;
  // Vref (1 + R18 / R19): 2.495 (1 + 27 / 2.49).
  expect(out.from).toBeCloseTo(2.495 * (1 + 21.5 / 2.49), 1);
  expect(out.to).toBeCloseTo(2.495 * (1 + 27 / 2.49), 1);
  expect(moved.some((m) => m.point.red === 'VCC')).toBe(true);
  expect(moved.some((m) => m.point.what === 'source')).toBe(false);
});

test('nothing supposed moves nothing', () => {
  expect(movedPoints(alivePoints(sound), alivePoints(sound))).toEqual([]);
});
