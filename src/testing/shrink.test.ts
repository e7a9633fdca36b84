import fc from 'fast-check';
import { csvCell } from '@/core/csv';
import { readNetlist, writeNetlist } from '@/core/netlist';
import { parseQuantity } from '@/core/quantity';
import { readShorthand } from '@/core/trace';
import { boardToJson } from '@/wire/boardCopy';
import { BoardJson } from '@/wire/boardJson';
import { readCells } from '@/wire/csv';
import { readEntry } from '@/wire/ledger';
import { ODD_WORDS } from './hostile';

/** Properties whose counterexamples are shrunk to the smallest; the seed is fixed, `fuzz` uses fresh ones. */
const RUNS = { seed: 7001, numRuns: 500 } as const;

const word = fc.oneof(
  { weight: 5, arbitrary: fc.constantFrom('a', 'b', 'GND', '0', '1k', '4.7u', 'tol=5%', 'vr=50', 'DX', 'FUSE') },
  { weight: 1, arbitrary: fc.constantFrom(...ODD_WORDS) },
  { weight: 1, arbitrary: fc.string({ unit: 'grapheme', maxLength: 6 }) },
);
const net = fc.constantFrom('a', 'b', 'GND', 'VCC', '0', 'a.b');
const keys = fc.array(fc.constantFrom('tol=5%', 'vr=50', 'mark="a b"', 'at=3,4', 'note="x; y"'), { maxLength: 2 });
/** An element that is one: letters, its nets, what it is, and some keys. */
const element = (letters: string, nets: number, ...values: readonly string[]) =>
  fc.tuple(fc.array(net, { minLength: nets, maxLength: nets }), fc.constantFrom(...values), keys).map(
    ([on, value, more]) =>
      (n: number) =>
        [`${letters}${n}`, ...on, value, ...more].join(' '),
  );
const line = fc.oneof(
  { weight: 4, arbitrary: element('R', 2, '1k', '4.7MEG', '0', '2k2') },
  { weight: 3, arbitrary: element('C', 2, '100n', '470u', '1p') },
  { weight: 2, arbitrary: element('D', 2, 'DX') },
  { weight: 2, arbitrary: element('XU', 3, 'KV51', 'CONN', 'REG3') },
  { weight: 2, arbitrary: fc.constantFrom('* a remark', '', '.model DX D(IS=1n N=1.8)').map((text) => () => text) },
  {
    weight: 1,
    arbitrary: fc.array(word, { maxLength: 6 }).map((words) => (n: number) => [`R${n}`, ...words].join(' ')),
  },
);
const netlist = fc
  .array(line, { maxLength: 8 })
  .map((lines) => ['title', '.model DX D(IS=1n N=1.7)', ...lines.map((make, n) => make(n + 1))].join('\n'));

test('whatever a netlist says is read or refused; what is read is written and reads back as the same board', () => {
  let sound = 0;
  fc.assert(
    fc.property(netlist, (text) => {
      const read = readNetlist(text);
      if (read.ok) sound++;
      if (!read.ok) return read.problem.length > 0 && read.problem.every((p) => p.sentence !== '');
      const again = readNetlist(writeNetlist(read.value.board));
      if (!again.ok) throw new Error(again.problem.map((p) => p.sentence).join());
      expect(boardToJson(again.value.board).parts).toEqual(boardToJson(read.value.board).parts);
      return true;
    }),
    RUNS,
  );
  expect(sound).toBeGreaterThan(RUNS.numRuns / 4);
});

const cell = fc.string({
  unit: fc.constantFrom('a', '7', ',', ';', '"', "'", '=', '-', ' ', '\n', '\t', 'µ'),
  maxLength: 6,
});

test('cells that were written come back, whatever is in them; only what begins a formula has gained an apostrophe', () => {
  const table = fc
    .integer({ min: 2, max: 4 })
    .chain((n) => fc.array(fc.array(cell, { minLength: n, maxLength: n }), { minLength: 1, maxLength: 5 }));
  fc.assert(
    fc.property(table, (rows) => {
      const text = rows.map((r) => r.map(csvCell).join(',')).join('\n');
      const back = readCells(text, ',').rows;
      const plain = (c: string): string => c.replace(/^'(?=[=+\-@\t\r])/u, '');
      expect(back.map((r) => r.map(plain))).toEqual(rows.map((r) => r.map(plain)));
      for (const c of back.flat()) expect(c).not.toMatch(/^(?:[=@\t]|[+-](?!\d[\d.,]*(?:e[+-]?\d+)?$))/iu);
    }),
    RUNS,
  );
});

test('a table is parted by what parts it, not by what stands inside quotes; no row is swallowed', () => {
  const plain = fc.string({ unit: fc.constantFrom('a', '7', '.', ' '), minLength: 1, maxLength: 5 });
  fc.assert(
    fc.property(
      fc.constantFrom(',', ';', '\t'),
      fc.array(plain, { minLength: 2, maxLength: 4 }),
      fc.nat(4),
      (by, cells, n) => {
        const quoted = `"x${by === ',' ? ';' : ','}y"`;
        const rows = [[quoted, ...cells], ...Array.from({ length: n }, () => ['z', ...cells])];
        const read = readCells(rows.map((r) => r.join(by)).join('\n'));
        expect(read.separator).toBe(by);
        expect(read.rows).toHaveLength(n + 1);
        expect(read.rows.every((r) => r.length === cells.length + 1)).toBe(true);
      },
    ),
    RUNS,
  );
});

test('any text is a figure, a line of the shorthand, an entry, a board, or is none: never an exception', () => {
  const anything = fc.oneof(
    fc.string({ unit: 'grapheme', maxLength: 40 }),
    word,
    fc.string({ unit: 'binary', maxLength: 20 }),
  );
  fc.assert(
    fc.property(anything, fc.jsonValue(), (text, json) => {
      const figure = parseQuantity(text);
      if (figure.ok) expect(Number.isFinite(figure.value.value)).toBe(true);
      readShorthand(text);
      readEntry(text, json);
      BoardJson.safeParse(json);
    }),
    { ...RUNS, numRuns: 2000 },
  );
});
