import type { ExpectedReading } from '@/core/expect';
import { expectedWords, lineWords, seenWords } from './lineWords';
import { interpreted, readTyped } from './readReading';
import type { UnpoweredMode } from '@/core/meter';
import { LedgerEntry } from '@/wire/ledger';

const THIN = '\u2009';
const values = (text: string, mode: UnpoweredMode) =>
  readTyped(
    text,
    Array.from(text.split(' '), () => mode),
  ).map((t) => (t.ok ? (t.seen.kind === 'figure' ? t.seen.value : t.seen.kind) : 'no'));

test.each([
  // In diode test a figure of 5 or more is millivolts.
  ['512', 'diode', [0.512]],
  ['0.512', 'diode', [0.512]],
  ['4.9', 'diode', [4.9]],
  ['5', 'diode', [0.005]],
  ['-0.3', 'diode', [-0.3]],
  ['512m', 'diode', [0.512]],
  ['0,512', 'diode', [0.512]],
  ['0.5 V', 'diode', [0.5]],
  ['512', 'ohms', [512]],
  ['4k7', 'ohms', [4700]],
  ['4.7 k', 'ohms', [4700]],
  ['4.7 kΩ', 'ohms', [4700]],
  ['2M2', 'ohms', [2.2e6]],
  ['0R1', 'ohms', [0.1]],
  ['o', 'ohms', ['overload']],
  ['OL', 'diode', ['overload']],
  ['open', 'ohms', ['overload']],
  // Several at once fill the next points.
  ['0.51 o 4k7', 'diode', [0.51, 'overload', 4.7]],
  ['470 o 2k2', 'ohms', [470, 'overload', 2200]],
  ['1 2 3', 'ohms', [1, 2, 3]],
  ['', 'ohms', []],
  ['   ', 'ohms', []],
  ['abc', 'ohms', ['no']],
  ['470 mV', 'ohms', ['no']],
  ['1M2', 'diode', ['no']],
  ['9999', 'diode', [9.999]],
  ['470 ohm', 'diode', ['no']],
  ['0.35', 'esr', [0.35]],
  ['0.35 F', 'esr', ['no']],
  ['440u', 'cap', [440e-6]],
  ['9,1 u', 'cap', [9.1e-6]],
  ['22 nF', 'cap', [22e-9]],
  ['o', 'cap', ['overload']],
  ['470', 'cap', ['no']],
  ['470 ohm', 'cap', ['no']],
  ['12', 'ring', [12]],
  ['o', 'ring', ['overload']],
  ['12.5', 'ring', ['no']],
  ['-3', 'ring', ['no']],
  ['12 V', 'ring', ['no']],
] as const)('%p in %s is %p', (text, mode, wanted) => {
  expect(values(text, mode)).toEqual(wanted.map((w) => (typeof w === 'number' ? expect.closeTo(w, 9) : w)));
});

test.each([
  // Text, what each place is read with, what is read.
  ['650 650', ['diode', 'ohms'], [0.65, 650]],
  ['0.55 47k', ['diode', 'ohms'], [0.55, 47e3]],
  ['4k7 512 440u', ['ohms', 'diode', 'cap'], [4700, 0.512, 440e-6]],
  ['o 0.35 o', ['diode', 'esr', 'ohms'], ['overload', 0.35, 'overload']],
  ['4.7 k 0.6', ['ohms', 'diode'], [4700, 0.6]],
  // A unit of one mode is not taken at a place of another.
  ['0.5 V 0.5 V', ['diode', 'ohms'], [0.5, 'no']],
  // More figures than places: the rest is refused, not dropped.
  ['1 2 3', ['ohms', 'ohms'], [1, 2, 'no']],
  ['1', [], ['no']],
] as const)('%p over places of %p is %p', (text, modes, wanted) => {
  const read = readTyped(text, modes).map((t) =>
    t.ok ? (t.seen.kind === 'figure' ? t.seen.value : t.seen.kind) : 'no',
  );
  expect(read).toEqual(wanted.map((w) => (typeof w === 'number' ? expect.closeTo(w, 9) : w)));
});

test('a figure without a place says which, and how many places there are', () => {
  expect(readTyped('1 22', ['ohms'])[1]).toEqual({ ok: false, why: '22 has no place: one figure is asked for.' });
  expect(readTyped('1 22 333', ['ohms', 'ohms'])[2]).toEqual({
    ok: false,
    why: '333 has no place: 2 points are shown.',
  });
});

test('a tilde marks a figure that creeps or jumps', () => {
  expect(readTyped('~47k', ['ohms'])).toEqual([{ ok: true, seen: { kind: 'figure', value: 47e3, unsteady: true } }]);
  expect(readTyped('47k', ['ohms'])).toEqual([{ ok: true, seen: { kind: 'figure', value: 47e3 } }]);
});

test.each([
  ['4k7', 'ohms', `4.7${THIN}kΩ`],
  ['512', 'diode', `0.512${THIN}V`],
  ['o', 'ohms', 'OL'],
  ['~47k', 'ohms', `creeping, 47${THIN}kΩ`],
] as const)('%p in %s shows as %p before Enter', (text, mode, words) => {
  const [typed] = readTyped(text, [mode]);
  expect(interpreted(typed!, mode)).toBe(words);
});

test('what cannot be read says so in words', () => {
  const [typed] = readTyped('4k7k', ['ohms']);
  expect(interpreted(typed!, 'ohms')).toMatch(/4k7k/u);
});

const expected = (
  nominal: number | null,
  low: number | null,
  high: number | null,
  unit: 'V' | 'ohm',
): ExpectedReading => ({
  mode: unit === 'V' ? 'diode' : 'ohms',
  red: 'a',
  black: 'b',
  nominal,
  low,
  high,
  sigma: 1,
  unit,
  basis: 'seen',
  why: '',
  judged: true,
  through: [],
});

test.each([
  [expected(0.5, 0.48, 0.52, 'V'), `0.480${THIN}V to 0.520${THIN}V`],
  [expected(4700, 4600, 4800, 'ohm'), `4.6${THIN}kΩ to 4.8${THIN}kΩ`],
  [expected(null, 2.5, null, 'V'), 'OL'],
  [expected(100, null, null, 'ohm'), `100${THIN}Ω`],
])('an expectation as a band: %#', (e, words) => expect(expectedWords(e)).toBe(words));

test('a reading that agrees without a figure says so', () => {
  expect(seenWords('ohms', { kind: 'agrees' })).toMatch(/agrees/u);
  expect(seenWords('diode', { kind: 'figure', value: 0.512 })).toBe(`0.512${THIN}V`);
  expect(seenWords('ohms', { kind: 'overload' })).toBe('OL');
});

const conditions = {};
test.each([
  [
    {
      kind: 'reading',
      body: { mode: 'diode', red: 'A', black: 'B', seen: { kind: 'figure', value: 0.5 }, conditions },
    },
    /diode test 0\.500/u,
    /red A, black B/u,
  ],
  [
    {
      kind: 'reading',
      body: { mode: 'ohms', red: 'A', black: 'B', seen: { kind: 'overload' }, purpose: 'after-repair', conditions },
    },
    /ohms OL/u,
    /after repair/u,
  ],
  [{ kind: 'finding', body: { place: 'F1', severity: 'fault', words: 'Blackened.' } }, /seen: Blackened/u, /F1/u],
  [{ kind: 'isolation', body: { source: 'Mains lead' } }, /isolated/u, /Mains lead/u],
  [
    { kind: 'discharge-proof', body: { storeKey: 'x', refs: ['C1'], volts: 0.04, meterProved: true } },
    /C1 read 0\.040/u,
    /proved/u,
  ],
  [{ kind: 'recharged', body: { why: 'powered' } }, /proofs ended/u, /powered/u],
  [{ kind: 'action', body: { words: 'Cleaned.' } }, /Cleaned/u, /^$/u],
  [{ kind: 'override', body: { what: 'proof', reason: 'open for a month' } }, /without proof/u, /a month/u],
  [{ kind: 'fault', body: { fault: 'M1:short(d,s)', words: 'surge' } }, /M1:short/u, /surge/u],
  [{ kind: 'check-skipped', body: { ref: 'R5', fault: 'R5:open', reason: 'potted' } }, /R5 not checked/u, /potted/u],
  [{ kind: 'step-closed', body: { step: 'repair' } }, /repair closed/u, /^$/u],
  [
    { kind: 'replacement', body: { ref: 'M1', was: 'X', fitted: { source: 'new', samePart: true }, words: 'stock' } },
    /M1 replaced \(new\)/u,
    /stock/u,
  ],
  [{ kind: 'safety-test', body: { test: 'Earth continuity', result: '0.1 ohm' } }, /Earth continuity: 0\.1/u, /^$/u],
  [{ kind: 'reversal', body: { reason: 'typed wrongly' } }, /undone/u, /typed wrongly/u],
])('the log says in words: %#', (entry, head, text) => {
  const words = lineWords(LedgerEntry.parse(entry));
  expect(words.head).toMatch(head);
  expect(words.text).toMatch(text);
});
