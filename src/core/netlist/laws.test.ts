import fc from 'fast-check';
import { netlistNumber, netlistText, readNetlist, writeNetlist } from '.';

const net = fc.constantFrom('A', 'B', 'GND', 'HV+', 'OUT-', 'n1', '0');
/** Written figures, from picofarads to megohms, as a person writes them in a board file. */
const figure = fc
  .tuple(fc.integer({ min: 1, max: 9999 }), fc.constantFrom('', 'k', 'meg', 'm', 'u', 'n', 'p'))
  .map(([n, prefix]) => `${n / 10}${prefix}`);
const element = (i: number) =>
  fc.oneof(
    fc.tuple(net, net, figure).map(([a, b, v]) => `R${i} ${a} ${b} ${v}`),
    fc.tuple(net, net, figure, figure).map(([a, b, v, r]) => `C${i} ${a} ${b} ${v} vr=${r}`),
    fc.tuple(net, net, figure).map(([a, b, v]) => `L${i} ${a} ${b} ${v} dcr=0.1`),
    fc.tuple(net, net).map(([a, b]) => `D${i} ${a} ${b} DX`),
    fc.constantFrom('* a remark', ''),
  );
const file = fc
  .array(fc.nat(), { minLength: 1, maxLength: 25 })
  .chain((list) => fc.tuple(...list.map((_, i) => element(i + 1))))
  .map((lines) => ['a board', 'R99 A B 1k', ...lines, '.model DX D(IS=1n N=1.8)', ''].join('\n'));

test('a board file that is read and written again is the file it was, remarks and spacing too', () => {
  fc.assert(
    fc.property(file, (text) => {
      const read = readNetlist(text);
      expect(read.ok).toBe(true);
      if (read.ok) expect(writeNetlist(read.value.board)).toBe(text);
    }),
    { numRuns: 300, seed: 5 },
  );
});

test('a figure written is the figure read, to the precision it is written with', () => {
  fc.assert(
    fc.property(fc.double({ min: 1e-13, max: 1e12, noNaN: true }), (value) => {
      const read = netlistNumber(netlistText(value));
      expect(Math.abs(read! / value - 1)).toBeLessThan(1e-6);
    }),
    { numRuns: 2000, seed: 6 },
  );
});

test('whatever a file holds, it is read or its lines are named, and nothing is thrown', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 400, unit: 'binary' }), (text) => {
      const read = readNetlist(text);
      if (!read.ok) expect(read.problem.length).toBeGreaterThan(0);
    }),
    { numRuns: 500, seed: 7 },
  );
});
