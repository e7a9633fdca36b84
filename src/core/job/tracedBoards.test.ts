import type { LedgerEntry, LedgerLine } from '../ledger';
import { archetypeBoard } from '../archetype';
import { entryOf } from '@/testing/entryOf';
import { TracedBoards, jobProgress, toldBefore, untouchedBoard } from '.';
import type { StartBoard } from '.';
import type { Hazard } from '../safety';

const start: StartBoard = { id: '1', label: 'Main', damaged: null, start: archetypeBoard('buck-module')! };
const ref = start.start.parts.find((p) => p.kind === 'resistor')!.ref;
const fact = (value: string): LedgerEntry => entryOf('trace', { text: `${ref} is=${value}` }) as LedgerEntry;
const line = (seq: number, entry: LedgerEntry, more: Partial<LedgerLine> = {}): LedgerLine => ({
  id: `line ${seq}`,
  seq,
  boardId: '1',
  entry,
  actor: 'Bench A',
  at: seq,
  reverses: null,
  ...more,
});
const valueOf = (board: { readonly parts: readonly { readonly ref: string }[] }): number =>
  (board.parts.find((p) => p.ref === ref) as unknown as { readonly value: number }).value;

test('facts that stand and those on their way are on the board; what was fitted is not on the board as found', () => {
  const boards = new TracedBoards();
  const sent = { clientKey: 'k', boardId: '1', entry: fact('3k3'), reverses: null };
  expect(valueOf(boards.of(start, [line(1, fact('2k2'))]).board)).toBe(2200);
  expect(valueOf(boards.of(start, [line(1, fact('2k2'))], [sent]).board)).toBe(3300);
  const undoing = { clientKey: 'u', boardId: '1', entry: fact('4k7'), reverses: 'line 1' };
  expect(valueOf(boards.of(start, [line(1, fact('2k2'))], [undoing]).board)).toBe(4700);
  const takenBack = { clientKey: 'v', boardId: '1', entry: entryOf('reversal', {}) as LedgerEntry, reverses: 'k' };
  expect(valueOf(boards.of(start, [line(1, fact('2k2'))], [sent, takenBack]).board)).toBe(2200);
  const fitted = entryOf('replacement', { ref, fitted: { samePart: false, value: 8200 } }) as LedgerEntry;
  const repaired = boards.of(start, [line(1, fact('2k2')), line(2, fitted)]);
  expect([valueOf(repaired.board), valueOf(repaired.asFound)]).toEqual([8200, 2200]);
});

test('a board stays the same object while its facts stay, acknowledged or not', () => {
  const boards = new TracedBoards();
  const sent = { clientKey: 'k', boardId: '1', entry: fact('3k3'), reverses: null };
  const waiting = boards.of(start, [], [sent]);
  const written = boards.of(start, [line(1, fact('3k3'))]);
  expect(written.board).toBe(waiting.board);
  expect(boards.of(start, [line(1, fact('3k3'))])).toBe(written);
});

test('boards that somebody else derived from the same lines are taken over as they are', () => {
  const lines = [line(1, fact('2k2'))];
  const derived = structuredClone(new TracedBoards().of(start, lines));
  const boards = new TracedBoards([derived], lines);
  expect(boards.of(derived, lines)).toBe(derived);
  // A line more makes another one.
  const more = boards.of(derived, [line(2, fact('5k6')), ...lines]);
  expect(more.board).not.toBe(derived.board);
  expect(valueOf(more.board)).toBe(5600);
  // Taken over with lines that it was not derived from, it is derived anew.
  expect(valueOf(new TracedBoards([derived], []).of(derived, [line(1, fact('6k8'))]).board)).toBe(6800);
});

test('a board without facts is its start', () => {
  const bare = untouchedBoard(start);
  const derived = new TracedBoards().of(start, []);
  expect([bare.board, bare.asFound, bare.entries]).toEqual([derived.board, derived.asFound, derived.entries]);
  expect(bare.trace.misfits).toEqual(derived.trace.misfits);
});

test('what was judged before stands only as long as there is no news, and then lowers nothing', () => {
  const now = { at: 0, boot: 'one', uptime: 0 };
  const open = jobProgress([{ name: 'Mains', kind: 'mains' }], [untouchedBoard(start)], [], now);
  const as = (hazard: Partial<Hazard>) => ({ ...open, hazard: { ...open.hazard, ...hazard } });
  const proved = as({ state: 'DISCHARGED', meterSafe: true });
  expect(toldBefore(proved, false)).toBe(proved);
  expect(toldBefore(proved, true).hazard).toMatchObject({ state: 'UNKNOWN', meterSafe: false });
  expect(toldBefore(as({ state: 'CHARGED', meterSafe: false }), true).hazard.state).toBe('UNKNOWN');
  expect(toldBefore(open, true).hazard.state).toBe('LIVE');
});
