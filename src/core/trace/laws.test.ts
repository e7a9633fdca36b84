import fc from 'fast-check';
import { EMPTY_BOARD } from '../circuit';
import { parseQuantity } from '../quantity';
import { deriveBoard, readShorthand } from '.';
import type { Fact, TraceEntry } from '.';

const ref = fc.integer({ min: 1, max: 40 }).map((n) => `R${n}`);
const spot = fc.tuple(ref, fc.constantFrom('1', '2')).map(([r, p]) => `${r}.${p}`);
const net = fc.constantFrom('VCC', 'GND', 'FB', 'HV+', 'SW');
const line = fc.oneof(
  fc.tuple(ref, net, net).map(([r, a, b]) => `${r} 472 ${a} ${b}`),
  fc.tuple(spot, spot).map(([a, b]) => `${a} -- ${b}`),
  fc.tuple(spot, net).map(([a, b]) => `${a} -- ${b}`),
  fc.tuple(spot, spot).map(([a, b]) => `${a} -/- ${b}`),
  fc.tuple(net, net).map(([a, b]) => `net ${a} is ${b}`),
  ref.map((r) => `drop ${r}`),
);

function factOf(text: string): Fact {
  const read = readShorthand(text);
  if (!read.ok || !read.value) throw new Error(text);
  return read.value;
}
const entries = (lines: readonly string[]): readonly TraceEntry[] =>
  lines.map((text, i) => ({ id: `l${i}`, fact: factOf(text) }));

test('whatever is typed is read, or refused at a character of the line, and nothing is thrown', () => {
  fc.assert(
    fc.property(
      fc.oneof(
        fc.string({ maxLength: 60 }),
        fc.array(line, { maxLength: 3 }).map((l) => l.join(' ')),
      ),
      (text) => {
        const read = readShorthand(text);
        if (read.ok) return;
        const { at, length } = read.problem.details!;
        expect(at).toBeGreaterThanOrEqual(0);
        expect(at + length).toBeLessThanOrEqual(text.length + 1);
      },
    ),
    { numRuns: 3000, seed: 11 },
  );
});

test('a value said of a part is the value it has, whichever way it was written', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 999 }), fc.constantFrom('', 'k', 'M'), fc.boolean(), (n, prefix, comma) => {
      const said = `${n / 10}${prefix}`.replace('.', comma ? ',' : '.');
      const read = parseQuantity(said);
      const { board } = deriveBoard(EMPTY_BOARD, entries([`R7 is=${said} A B`]));
      const [part] = board.parts;
      expect(part?.kind === 'resistor' && part.value).toBeCloseTo(read.ok ? read.value.value : NaN, 6);
    }),
    { numRuns: 300, seed: 12 },
  );
});

test.each([
  ['is=4k7', 4700],
  ['is=4,7k', 4700],
  ['is=2M2', 2.2e6],
  ['is=0.1M', 1e5],
  ['is=10meg', 1e7],
  ['is=5m', 5e-3],
  ['is=100', 100],
])('a resistor of which %s is said has %d ohm', (said, ohms) => {
  const [part] = deriveBoard(EMPTY_BOARD, entries([`R7 ${said} A B`])).board.parts;
  expect(part?.kind === 'resistor' && part.value).toBeCloseTo(ohms, 9);
});

test('a figure that is none is refused where it stands; a line of before says nothing by it', () => {
  const read = readShorthand('C1 is=10u vr=lots A B', true);
  expect(!read.ok && [read.problem.details, read.problem.sentence]).toEqual([
    { at: 13, length: 4 },
    '“lots” is no figure.',
  ]);
  const { board } = deriveBoard(EMPTY_BOARD, entries(['C1 is=10u vr=lots A B']));
  expect(board.parts).toMatchObject([{ value: 10e-6, nets: ['A', 'B'] }]);
});

test('a fact left out leaves no trace: a board with it and then without is the board that never heard it', () => {
  fc.assert(
    fc.property(fc.array(line, { minLength: 1, maxLength: 25 }), fc.nat(), (lines, n) => {
      const all = entries(lines);
      const without = all.filter((_, i) => i !== n % all.length);
      deriveBoard(EMPTY_BOARD, all);
      const again = deriveBoard(EMPTY_BOARD, without).board;
      expect(again).toEqual(deriveBoard(EMPTY_BOARD, entries(lines.filter((_, i) => i !== n % lines.length))).board);
    }),
    { numRuns: 200, seed: 13 },
  );
});

test('joined is joined whichever end is named first, and pins that are joined carry one name', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(spot, spot), { minLength: 1, maxLength: 15 }), (pairs) => {
      const parts = [...new Set(pairs.flat().map((s) => s.split('.')[0]!))].map((r) => `${r} 472 ${r}a ${r}b`);
      const way = (turn: boolean) =>
        deriveBoard(
          EMPTY_BOARD,
          entries([...parts, ...pairs.map(([a, b]) => (turn ? `${b} -- ${a}` : `${a} -- ${b}`))]),
        ).board;
      const [one, other] = [way(false), way(true)];
      const netOf = (board: typeof one, s: string): string => {
        const [r, p] = s.split('.');
        return board.parts.find((x) => x.ref === r)!.nets[Number(p) - 1]!;
      };
      for (const [a, b] of pairs) {
        expect(netOf(one, a)).toBe(netOf(one, b));
        expect(netOf(other, a)).toBe(netOf(other, b));
      }
    }),
    { numRuns: 150, seed: 14 },
  );
});
