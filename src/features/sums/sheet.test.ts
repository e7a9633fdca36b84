import { readNetlist } from '@/core/netlist';
import type { Board } from '@/core/circuit';
import { benchText } from '@/core/quantity';
import { SUMS } from '@/core/sums';
import { emptySheet, readGiven, readSheet, sheetFromQuery, sheetQuery } from './sheet';
import type { SheetState } from './sheet';

function boardOf(text: string): Board {
  const read = readNetlist(`t\n${text}`);
  if (!read.ok) throw new Error();
  return read.value.board;
}
const before = boardOf('C1 a b 470uF vr=63\nR1 a b 2k2\n'.replace('2k2', '2.2k'));
const after = boardOf('C1 a b 330uF vr=63\nR1 a b 2.2k\n');
const bound: SheetState = {
  name: 'discharge-time',
  texts: { vStart: '325', vSafe: '5', r: '2k2' },
  bound: { c: { figure: 'C1.value', value: 470e-6 } },
};

test('an untouched sheet works with its example and says which figures are made up', () => {
  for (const sum of SUMS) {
    const sheet = readSheet(emptySheet(sum.name), null);
    expect([sum.name, sheet.done !== null]).toEqual([sum.name, true]);
    expect(sheet.examples.length).toBeGreaterThan(0);
  }
});

test('a bound input follows the board and says that it moved', () => {
  const then = readSheet(bound, before);
  const now = readSheet(bound, after);
  const time = (s: typeof now): number => s.done!.results['time'] as number;
  expect(then.fields[0]).toMatchObject({ moved: null, example: false });
  expect(now.fields[0]).toMatchObject({ moved: 470e-6 });
  expect(time(now) / time(then)).toBeCloseTo(330 / 470, 9);
  expect(time(then)).toBeCloseTo(2200 * 470e-6 * Math.log(65), 9);
});

test('a figure that is gone leaves its last value and says so', () => {
  const sheet = readSheet(bound, boardOf('R1 a b 2.2k\n'));
  expect(sheet.fields[0]).toMatchObject({ lost: 'C1.value', figure: null });
  expect(sheet.given['c']).toBe(470e-6);
});

test('typed values stay typed; what cannot be read is said at the field and nothing is worked out', () => {
  const sheet = readSheet({ ...bound, texts: { ...bound.texts, vSafe: 'five' } }, before);
  expect(sheet.done).toBeNull();
  expect(sheet.fields.find((f) => f.input.key === 'vSafe')!.error).toContain('five');
  const unit = readSheet({ ...bound, texts: { ...bound.texts, vSafe: '5 A' } }, before);
  expect(unit.fields.find((f) => f.input.key === 'vSafe')!.error).toBe('This wants V.');
});

test('a refusal of the sum stands at the input it names', () => {
  const texts = { vRef: '2.5', rTop: '10k', rBottom: '10k', vTarget: '2', modify: 'top' };
  const sheet = readSheet({ name: 'divider-retarget', texts, bound: {} }, null);
  expect(sheet.fields.find((f) => f.input.key === 'vTarget')!.error).toBe('must be above vRef');
  expect(sheet.done).toBeNull();
});

test('of several ways to give it, an untouched one keeps silent once another is touched', () => {
  const lamp = readSheet({ name: 'discharge-time', texts: { lampW: '60', lampV: '230' }, bound: {} }, null);
  expect(lamp.done!.results['r']).toBeCloseTo((230 * 230) / 60, 6);
  expect(lamp.examples).not.toContain('r');
});

test('an emptied field is missing, not an example', () => {
  const sheet = readSheet({ name: 'stored-energy', texts: { c: '' }, bound: {} }, null);
  expect(sheet.missing).toEqual(['c']);
  expect(sheet.done).toBeNull();
});

test('lists are read with any separator; words as they are', () => {
  const readings = SUMS.find((s) => s.name === 'cap-bank-outlier')!.inputs[0]!;
  expect(readGiven(readings, '468u, 472u;310u  470u')).toEqual([468e-6, 472e-6, 310e-6, 470e-6]);
  expect(readGiven(readings, '468u x')).toMatchObject({ error: expect.stringContaining('x') as string });
  const modify = SUMS.find((s) => s.name === 'divider-retarget')!.inputs.at(-1)!;
  expect(readGiven(modify, 'top')).toBe('top');
});

test('a sheet goes into a link and comes back', () => {
  const back = sheetFromQuery(new URLSearchParams(sheetQuery(bound)), before);
  expect(back).toEqual(bound);
  // On another board the figure is what that board has, and where it has none the input is untouched.
  expect(sheetFromQuery(new URLSearchParams(sheetQuery(bound)), after)!.bound['c']!.value).toBe(330e-6);
  expect(sheetFromQuery(new URLSearchParams(sheetQuery(bound)), null)!.bound).toEqual({});
  expect(sheetFromQuery(new URLSearchParams('sum=moon'), null)).toBeNull();
});

test.each([
  [470e-6, '470u'],
  [2200, '2.2k'],
  [0, '0'],
  [325, '325'],
  [0.2, '200m'],
])('%p is typed as %p and read back', (value, text) => {
  expect(benchText(value)).toBe(text);
  const volts = SUMS.find((s) => s.name === 'stored-energy')!.inputs[1]!;
  expect(readGiven(volts, text)).toBeCloseTo(value, 12);
});
