import fc from 'fast-check';
import { csvCell } from '@/core/csv';
import { readCells } from './csv';

/** What a cell may hold: no lone carriage return, which every reader takes for the end of a line. */
const cell = fc.string({
  maxLength: 20,
  unit: fc.constantFrom('a', 'B', '7', ' ', ',', ';', '"', '\n', '.', '-', 'Ω', '\t'),
});
const table = fc
  .integer({ min: 1, max: 5 })
  .chain((width) => fc.array(fc.array(cell, { minLength: width, maxLength: width }), { minLength: 1, maxLength: 6 }));
/** A table program would take this for a formula: an apostrophe stands before it. */
const shown = (text: string): string =>
  /^[=+\-@\t\r]/u.test(text) && !/^[+-]?\d[\d.,]*$/u.test(text) ? `'${text}` : text;

test('a table that is written is the table that is read, whatever stands in its cells', () => {
  fc.assert(
    fc.property(table, (rows) => {
      // An empty last row cannot be told from the end of the file.
      fc.pre(rows.every((r) => r.some((c) => c !== '')));
      const text = rows.map((r) => r.map(csvCell).join(',')).join('\n');
      expect(readCells(text, ',').rows).toEqual(rows.map((r) => r.map(shown)));
    }),
    { numRuns: 1000, seed: 21 },
  );
});

test('nothing that is written begins as a formula does', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 30 }), (text) => {
      const [[read = ''] = []] = readCells(csvCell(text), ',').rows;
      expect(/^[=@+\-]/u.test(read) && !/^[+-]?\d/u.test(read)).toBe(false);
    }),
    { numRuns: 1000, seed: 22 },
  );
});

test('whatever is pasted is taken apart, and nothing is thrown', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 300, unit: 'binary' }), (text) => {
      expect(readCells(text).rows.length).toBeGreaterThan(0);
    }),
    { numRuns: 500, seed: 23 },
  );
});
