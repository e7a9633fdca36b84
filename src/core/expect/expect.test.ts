import { solverFor } from '../meter';
import { readNetlist } from '../netlist';
import { decadeSlip, expectReading, judge } from '.';

function at(lines: string, mode: 'diode' | 'ohms', red: string, black: string) {
  const read = readNetlist(`t\n${lines}`);
  if (!read.ok) throw new Error(read.problem[0]!.sentence);
  return expectReading(read.value.board, solverFor(read.value.board, []), mode, red, black);
}

test('the sum by hand adds up: each part says its share', () => {
  const e = at('R1 a m 1k\nR2 m b 3k\nR3 a b 4k', 'ohms', 'a', 'b');
  expect(e.nominal).toBeCloseTo(2000, 6);
  // Shares of power: R3 half, R2 three eighths, R1 one eighth.
  expect(e.why).toBe('2\u2009kΩ = R3 1\u2009kΩ + R2 750\u2009Ω + R1 250\u2009Ω');
  expect(e.through).toEqual(['R3', 'R2', 'R1']);
  expect(e.low!).toBeLessThan(2000);
  expect(e.high!).toBeGreaterThan(2000);
});

test('nothing joined reads OL, and says why', () => {
  const e = at('C1 a b 1u\nR1 a c 1\nR2 b d 1', 'ohms', 'a', 'b');
  expect(e).toMatchObject({ nominal: null, judged: true });
  expect(e.why).toMatch(/nothing .* joins/u);
});

test.each([
  ['agree', { kind: 'figure', value: 1010 }],
  ['agree', { kind: 'agrees' }],
  ['disagree', { kind: 'figure', value: 700 }],
  ['disagree', { kind: 'figure', value: 3000 }],
  ['disagree', { kind: 'overload' }],
  ['noted', { kind: 'figure', value: 700, unsteady: true }],
] as const)('on a seen 1 kohm: %s to %p', (outcome, seen) => {
  expect(judge(at('R1 a b 1k tol=5%', 'ohms', 'a', 'b'), seen)).toBe(outcome);
});

test.each([
  ['noted', { kind: 'figure', value: 700 }],
  ['noted', { kind: 'overload' }],
  ['disagree', { kind: 'figure', value: 2 }],
] as const)('on an assumed 1 kohm: %s to %p', (outcome, seen) => {
  expect(judge(at('R1 a b 1k basis=assumed', 'ohms', 'a', 'b'), seen)).toBe(outcome);
});

test('a pin of an IC with nothing known inside is noted, never judged', () => {
  const e = at('XU1 a b CHIP\nR1 a b 10k', 'ohms', 'a', 'b');
  expect(e.judged).toBe(false);
  expect(judge(e, { kind: 'figure', value: 4000 })).toBe('noted');
  expect(judge(e, { kind: 'figure', value: 1 })).toBe('disagree');
});

test('OL expected: a figure disagrees, OL agrees', () => {
  const e = at('D1 b a DX\n.model DX D(IS=1n N=1.7)', 'diode', 'a', 'b');
  expect(judge(e, { kind: 'overload' })).toBe('agree');
  expect(judge(e, { kind: 'figure', value: 0.5 })).toBe('disagree');
});

test.each([
  [4.7, 4700],
  [47, 4700],
  [470, 4700],
  [4700, null],
  [9000, null],
  [47000, 4700],
] as const)('%p ohm against 4.7 kohm: meant %p?', (typed, meant) => {
  const slip = decadeSlip(at('R1 a b 4.7k', 'ohms', 'a', 'b'), typed);
  // Two decades are no slip of a prefix.
  if (typed === 47) expect(slip).toBeNull();
  else if (meant === null) expect(slip).toBeNull();
  else expect(slip).toBeCloseTo(meant, 6);
});
