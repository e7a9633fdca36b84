import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { findPart } from '../circuit';
import { marking } from '../part';
import { assumeAll, emptyPlace, netlistNumber, netlistText, readNetlist, statePart, writeNetlist } from '.';

const folder = join(__dirname, '../../../fixtures/boards');
const files = readdirSync(folder).filter((f) => f.endsWith('.cir'));
const text = (file: string): string => readFileSync(join(folder, file), 'utf8');

function errorsOf(source: string): readonly { line: number; sentence: string }[] {
  const read = readNetlist(source);
  if (read.ok) throw new Error('expected errors');
  return read.problem.map((p) => ({ line: p.details!.line, sentence: p.sentence }));
}

test.each([
  ['10uF', 1e-5],
  ['400V', 400],
  ['2.2MEG', 2.2e6],
  ['1M', 1e-3],
  ['4.7k', 4700],
  ['5n', 5e-9],
  ['1e-14', 1e-14],
  ['3f', 3e-15],
  ['-5', -5],
  ['0', 0],
])('reads the number %s', (source, value) => expect(netlistNumber(source)).toBeCloseTo(value, 18));

test.each(['4R7', 'abc', '', '1..2'])('refuses the number %p', (source) => expect(netlistNumber(source)).toBeNull());

test.each([4700, 1e6, 4.7e-6, 0.62, 220, 1e-15, 7.26e3])('writes %p so that it reads back', (value) => {
  expect(netlistNumber(netlistText(value))).toBe(value);
});

test.each(files)('%s reads without an error and is written back byte for byte', (file) => {
  const read = readNetlist(text(file));
  expect(read.ok).toBe(true);
  if (read.ok) expect(writeNetlist(read.value.board)).toBe(text(file));
});

test('names without X, marks in quotes, fit=no, couplings and insides are understood', () => {
  const read = readNetlist(text('bench-supply-13v8.cir'));
  if (!read.ok) throw new Error('read');
  const { board } = read.value;
  expect(findPart(board, 'u1')?.kind).toBe('ic');
  expect(findPart(board, 'XU1')?.ref).toBe('U1');
  expect(findPart(board, 'RJP1')?.fitted).toBe(false);
  expect(board.couplings).toHaveLength(8);
  expect(board.subcircuits.get('bv914')?.pins).toHaveLength(14);
  const lamp = readNetlist(text('lamp-supply-24v.cir'));
  expect(lamp.ok && marking(findPart(lamp.value.board, 'J1')!)).toBe('AC IN');
});

test('every error is reported with its line, and nothing is half-read', () => {
  const errors = errorsOf(
    [
      'a broken board',
      'R1 a b',
      'R2 a b 4R7',
      'Z9 a b 1',
      'D1 a b NOPE',
      'R3 a b 1k',
      'R3 b c 2k',
      'K1 L1 L2 0.9',
      'XF1 a FUSE',
      'XRT1 a b NTC',
      'R4 a b 1k tol=',
      '.ac 1 2',
      'R5 a b 1 mark="open',
    ].join('\n'),
  );
  expect(errors.map((e) => e.line)).toEqual([2, 3, 4, 5, 7, 8, 8, 9, 10, 11, 12, 13]);
});

test.each([
  ['.subckt never closed', 't\nX1 a b IN\n.subckt IN 1 2\nR1 1 2 1k', /not closed/u],
  ['wrong pin count', 't\nX1 a b c IN\n.subckt IN 1 2\nR1 1 2 1k\n.ends', /3 nodes/u],
  ['an inside that holds itself', 't\nX1 a b IN\n.subckt IN 1 2\nX2 1 2 IN\n.ends', /holds itself/u],
  ['a model of the wrong kind', 't\nM1 d g s D1\n.model D1 D(IS=1n)', /is D/u],
  ['an empty file', '', /no part/u],
])('refuses %s', (_name, source, sentence) =>
  expect(errorsOf(source).some((e) => sentence.test(e.sentence))).toBe(true),
);

test.each([
  ['t\nD1 a b DX\n.model DX D(IS=5)', /IS of DX/u],
  ['t\nR1 a b 1M', /milli/u],
  ['t\nC1 a b 1F', /femto/u],
])('warns of a number that is implausible for its place: %p', (source, sentence) => {
  const read = readNetlist(source);
  expect(read.ok && read.value.warnings.some((w) => sentence.test(w.sentence))).toBe(true);
});

test('continuations, inline comments and unknown keys survive a round trip; an edit keeps its comment and place', () => {
  const source = 'title\n* head\nR1 a b 1k ; first\n+ tol=5% odd="kept so"\n\nR2 b 0 2k\n.end\n';
  const read = readNetlist(source);
  if (!read.ok) throw new Error('read');
  expect(writeNetlist(read.value.board)).toBe(source);
  const said = statePart(read.value.board, 'R2', { value: 4700, basis: 'seen' });
  if (!said.ok) throw new Error('said');
  expect(writeNetlist(said.value)).toBe(source.replace('R2 b 0 2k', 'R2 b 0 4.7k basis=seen'));
});

test('what is said of a typical circuit replaces its assumption; an empty place stays listed', () => {
  const read = readNetlist('t\nR1 a b 1k\nXRT1 a b NTC r25=5\nR2 a b 3k');
  if (!read.ok) throw new Error('read');
  const board = assumeAll(read.value.board);
  expect(board.parts.every((p) => p.basis === 'assumed')).toBe(true);
  const said = statePart(board, 'RT1', { value: 10, mark: '10D-9', basis: 'seen' });
  expect(said.ok && findPart(said.value, 'RT1')?.numbers['r25']).toBe(10);
  const gone = emptyPlace(board, 'R2');
  expect(gone.ok && findPart(gone.value, 'R2')?.fitted).toBe(false);
  const again = gone.ok ? readNetlist(writeNetlist(gone.value)) : null;
  expect(again?.ok && findPart(again.value.board, 'R2')).toMatchObject({ fitted: false, basis: 'seen' });
  expect(statePart(board, 'R9', { basis: 'seen' }).ok).toBe(false);
  const quoted = statePart(board, 'R1', { mark: '4"7\n k', basis: 'seen' });
  const kept = quoted.ok ? readNetlist(writeNetlist(quoted.value)) : null;
  expect(kept?.ok && marking(findPart(kept.value.board, 'R1')!)).toBe('4″7 k');
});
