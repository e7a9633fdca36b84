import type { LedgerLine } from '../ledger';
import { archetypeBoard } from '../archetype';
import { deriveBoard } from '../trace';
import { boardEntries, boardFacts } from '.';
import { entryOf } from '@/testing/entryOf';

const line = (seq: number, kind: string, body: unknown, more: Partial<LedgerLine> = {}): LedgerLine => ({
  id: String(seq),
  seq,
  boardId: '1',
  entry: entryOf(kind, body),
  actor: 'Bench A',
  at: seq,
  reverses: null,
  ...more,
});
const start = archetypeBoard('buck-module')!;
const cap = start.parts.find((p) => p.kind === 'capacitor' && p.numbers['vr'] !== undefined)!;

test('a traced line, a change and another part say something about the board; other lines do not', () => {
  expect(boardFacts(entryOf('trace', { text: 'R1 472' }))).toEqual(['R1 472']);
  expect(boardFacts(entryOf('modification', { facts: ['a', 'b'] }))).toEqual(['a', 'b']);
  expect(boardFacts(entryOf('replacement', { ref: 'C1', fitted: { samePart: true, ratedVolts: 63 } }))).toEqual([]);
  expect(boardFacts(entryOf('replacement', { ref: 'C1', fitted: { samePart: false } }))).toEqual([]);
  expect(boardFacts(entryOf('finding', { words: 'x' }))).toEqual([]);
});

test('a better capacitor fitted is on the board with its figures, its old marking gone', () => {
  const fitted = { samePart: false, value: 560e-6, ratedVolts: 16 };
  const lines = [line(1, 'replacement', { ref: cap.ref, fitted })];
  const { board, misfits } = deriveBoard(start, boardEntries(lines, '1'));
  expect(misfits).toEqual([]);
  const now = board.parts.find((p) => p.ref === cap.ref)!;
  expect(now).toMatchObject({ kind: 'capacitor', value: 560e-6, basis: 'seen', nets: cap.nets });
  expect(now.numbers['vr']).toBe(16);
  expect(now.keys.find((k) => k.key === 'mark')?.text).toBe('560u/16V');
  expect(now.numbers['esr']).toBe(cap.numbers['esr']);
});

test('facts come in the order of the log, one line may give several, what is undone gives none', () => {
  const lines = [
    line(3, 'trace', { text: 'R99 1k A B' }),
    line(1, 'modification', { facts: ['R97 1k A B', 'R98 2k A B'] }),
    line(2, 'trace', { text: 'R96 1k A B' }),
    line(4, 'reversal', {}, { reverses: '2' }),
    line(5, 'trace', { text: 'R95 1k A B' }, { boardId: '2' }),
  ];
  expect(boardEntries(lines, '1').map((e) => [e.id, e.fact.kind === 'part' ? e.fact.ref : ''])).toEqual([
    ['1', 'R97'],
    ['1', 'R98'],
    ['3', 'R99'],
  ]);
  expect(boardEntries(lines, '1', ['trace']).map((e) => e.id)).toEqual(['3']);
});
