import { seededRandom } from '../quantity';
import { COLUMN_KEYS, EMPTY_ROW, cellValue, deriveRow, judgeSweep, lightestRow, thinRows, writeSweepCsv } from '.';
import type { SweepRow, SweepSetup } from '.';
import { readSweepText } from '@/wire/csv';

const row = (more: Partial<SweepRow>): SweepRow => ({ ...EMPTY_ROW, ...more });
const setup = (more: Partial<SweepSetup> = {}): SweepSetup => ({
  title: 't',
  setBy: 'iout',
  claimed: null,
  sagLimit: 0.05,
  efficiency: null,
  ...more,
});
const verdict = (s: SweepSetup, rows: readonly SweepRow[], what: string) =>
  judgeSweep(s, rows).find((v) => v.what === what);

describe('derived columns', () => {
  const light = row({ vin: 12, iin: 0.02, vout: 5.02, iout: 0 });
  const loaded = row({ vin: 12, iin: 0.95, vout: 4.92, iout: 2 });
  test('by hand', () => {
    const d = deriveRow(loaded, light);
    expect(d.pin).toBeCloseTo(11.4, 9);
    expect(d.pout).toBeCloseTo(9.84, 9);
    expect(d.efficiency).toBeCloseTo(0.863158, 6);
    expect(d.regulation).toBeCloseTo(-0.01992, 5);
    expect(d.sourceR).toBeCloseTo(0.05, 9);
    expect(d.ratio).toBeCloseTo(0.41, 9);
  });
  test('what is missing gives nothing, never a NaN', () => {
    expect(deriveRow(row({ vout: 5 }), light)).toEqual({
      pin: null,
      pout: null,
      efficiency: null,
      regulation: expect.closeTo(-0.003984, 6) as number,
      sourceR: null,
      ratio: null,
    });
    for (const value of Object.values(deriveRow(row({ vin: 0, iin: 0, vout: 0, iout: 0 }), row({ vout: 0, iout: 0 }))))
      expect(value === null || Number.isFinite(value)).toBe(true);
  });
  test('the lightest row is the one of least output current', () => {
    expect(lightestRow([loaded, light])).toBe(light);
    expect(lightestRow([row({ vin: 1 })])).toBeNull();
    expect(lightestRow([row({ vout: 3 }), row({ vout: 4 })])!.vout).toBe(3);
  });
});

describe('verdicts', () => {
  const sweep = [
    row({ vin: 12, iin: 0.02, vout: 5.02, iout: 0 }),
    row({ vin: 12, iin: 0.5, vout: 4.98, iout: 1 }),
    row({ vin: 12, iin: 0.95, vout: 4.7, iout: 2 }),
  ];
  test('sag against its limit, with the source resistance', () => {
    expect(verdict(setup(), sweep, 'sag')).toMatchObject({ verdict: 'over', rows: [2] });
    const ok = verdict(setup({ sagLimit: 0.1 }), sweep, 'sag')!;
    expect(ok.verdict).toBe('ok');
    // 0.32 V over 2 A.
    expect(ok.words.replace(/\s/gu, ' ')).toContain('sags 6.4 % at 2 A');
    expect(ok.words.replace(/\s/gu, ' ')).toContain('160 mΩ');
  });
  test('claimed against measured names the worst row', () => {
    const claimed = { column: 'vout', value: 5, tolerance: 0.05 } as const;
    const v = verdict(setup({ claimed }), sweep, 'claimed')!;
    expect(v).toMatchObject({ verdict: 'over', rows: [2] });
    expect(v.words).toContain('-6 %');
    expect(verdict(setup({ claimed: { ...claimed, tolerance: 0.07 } }), sweep, 'claimed')!.verdict).toBe('ok');
    expect(verdict(setup({ claimed }), [], 'claimed')!.verdict).toBe('open');
  });
  test('efficiency at the heaviest load against the sum', () => {
    // 4.7 · 2 / (12 · 0.95) = 0.825.
    expect(verdict(setup({ efficiency: 0.86 }), sweep, 'efficiency')!.verdict).toBe('ok');
    expect(verdict(setup({ efficiency: 0.93 }), sweep, 'efficiency')!.verdict).toBe('over');
    expect(
      verdict(setup({ efficiency: 0.9 }), [row({ vin: 1, iin: 1, vout: 2, iout: 1 })], 'efficiency'),
    ).toMatchObject({
      verdict: 'over',
      words: expect.stringContaining('more out than in') as string,
    });
    expect(verdict(setup({ efficiency: 0.9 }), [row({ vout: 5 })], 'efficiency')!.verdict).toBe('open');
  });
  test('runaway: the output rises as the input falls', () => {
    const falling = [24, 22, 20, 18, 16].map((vin, i) => row({ vin, vout: [5, 5.01, 5.2, 5.9, 7][i]! }));
    const v = verdict(setup(), falling, 'runaway')!;
    expect(v).toMatchObject({ verdict: 'over', rows: [0, 2] });
    expect(v.words.replace(/\s/gu, ' ')).toContain('from 24 V to 20 V');
  });
  test.each([
    ['noise', [24, 22, 20, 18].map((vin, i) => row({ vin, vout: [5, 5.02, 4.99, 5.04][i]! }))],
    ['falling with the input', [24, 20, 16].map((vin) => row({ vin, vout: vin / 4 }))],
    ['going up again', [10, 14, 10, 14].map((vin) => row({ vin, vout: vin / 2 }))],
    ['a start from off', [10, 9].map((vin, i) => row({ vin, vout: [0, 5][i]! }))],
  ])('no runaway: %s', (_name, rows) => expect(verdict(setup(), rows, 'runaway')!.verdict).toBe('ok'));
  test('too little to say', () => expect(verdict(setup(), [row({ vin: 3 })], 'runaway')!.verdict).toBe('open'));
});

describe('tables pasted and read', () => {
  test('headings in any order and spelling; derived ones are passed over, strange ones named', () => {
    const read = readSweepText('Output volts (V),efficiency,I_in,Vin,colour,note\n5.02,0.8,20m,12,red,"a, b"\n', 'vin');
    expect(read.rows).toEqual(
      [row({ vout: 5.02, iin: 0.02, vin: 12, note: 'a, b' })].map((r) => ({ ...r, iin: read.rows[0]!.iin })),
    );
    expect(read.troubles).toEqual([
      { line: 1, sentence: '“colour” is no column of a sweep; it is left out.', text: '' },
    ]);
  });
  test('two bare columns are what was set and the output', () => {
    expect(readSweepText('0 5.02\n'.replace(' ', '\t'), 'iout').rows).toEqual([row({ iout: 0, vout: 5.02 })]);
    expect(readSweepText('10;5,01\n12;5,02', 'vin').rows).toEqual([
      row({ vin: 10, vout: 5.01 }),
      row({ vin: 12, vout: 5.02 }),
    ]);
  });
  test('more bare columns stand in the order of the table', () => {
    expect(readSweepText('12,0.5,5V01,1,,41,warm', 'vin').rows).toEqual([
      row({ vin: 12, iin: 0.5, vout: 5.01, iout: 1, celsius: 41, note: 'warm' }),
    ]);
  });
  test('malformed rows are named by line with their text, the rest is kept', () => {
    const read = readSweepText('vin,vout\n10,5\n11,five\n12,5.1\n\n,\n13 A,5\n14,5,9\n15,5.2\n', 'vin');
    expect(read.rows.map((r) => r.vin)).toEqual([10, 12, 15]);
    expect(read.troubles).toEqual([
      { line: 3, sentence: '“five” is no figure for output volts.', text: '11,five' },
      { line: 7, sentence: '“13 A” is no figure for input volts.', text: '13 A,5' },
      { line: 8, sentence: 'There are 3 cells for 2 columns.', text: '14,5,9' },
    ]);
  });
  test.each([
    ['5.0', 5],
    ['5V1', 5.1],
    ['20m', 0.02],
    ['1e3', 1000],
    ['', null],
    ['-', null],
    ['NaN', undefined],
    ['Infinity', undefined],
    ['5 A', undefined],
    ['OL', undefined],
  ] as const)('the cell “%s” of output volts is %p', (text, value) => {
    const read = cellValue(text, 'vout');
    if (typeof value === 'number') expect(read).toBeCloseTo(value, 12);
    else expect(read).toBe(value);
  });
  test('a temperature may carry its degrees', () => expect(cellValue('41.5 °C', 'celsius')).toBe(41.5));
  test('what is written is read back, row for row', () => {
    const random = seededRandom(11);
    const rows = Array.from({ length: 200 }, (_, i) =>
      row({
        ...Object.fromEntries(
          COLUMN_KEYS.map((k) => [k, random() < 0.2 ? null : Number((random() * 100).toPrecision(5))]),
        ),
        vout: i,
        note: random() < 0.5 ? '' : 'a "b", c;d',
      }),
    );
    for (const derived of [true, false]) {
      const read = readSweepText(writeSweepCsv(rows, derived), 'vin');
      expect(read.troubles).toEqual([]);
      expect(read.rows).toEqual(rows);
    }
  });
  test('twenty thousand rows are taken and no more, and that is said', () => {
    const read = readSweepText(Array.from({ length: 20_050 }, (_, i) => `${i},5`).join('\n'), 'vin');
    expect(read.rows).toHaveLength(20_000);
    expect(read.troubles).toEqual([
      { line: 20_001, sentence: 'More than 20000 rows: from here on nothing was taken.', text: '' },
    ]);
  });
});

test('thinning keeps ends, peaks and order', () => {
  const rows = Array.from({ length: 5000 }, (_, i) =>
    row({ vin: i, vout: i === 3210 ? 99 : i === 17 ? -4 : Math.sin(i) }),
  );
  const thin = thinRows(rows, 'vout', 400);
  expect(thin.length).toBeLessThanOrEqual(402);
  expect(thin[0]!.vin).toBe(0);
  expect(thin.at(-1)!.vin).toBe(4999);
  expect(thin.some((r) => r.vout === 99) && thin.some((r) => r.vout === -4)).toBe(true);
  for (let i = 1; i < thin.length; i++) expect(thin[i]!.vin!).toBeGreaterThan(thin[i - 1]!.vin!);
  expect(thinRows(rows.slice(0, 10), 'vout', 400)).toHaveLength(10);
});
