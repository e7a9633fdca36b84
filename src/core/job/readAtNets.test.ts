import { exampleBoard } from '../../../bench/exampleBoards';
import { entryOf } from '@/testing/entryOf';
import type { LedgerLine } from '../ledger';
import { readAtNets } from '.';

const board = exampleBoard('lamp-supply-24v');
let lines: LedgerLine[] = [];
const add = (kind: string, body: unknown, more: Partial<LedgerLine> = {}): LedgerLine => {
  const seq = lines.length + 1;
  const line: LedgerLine = {
    id: String(seq),
    seq,
    boardId: '1',
    entry: entryOf(kind, body),
    actor: 'Bench A',
    at: seq,
    reverses: null,
    ...more,
  };
  lines.push(line);
  return line;
};
const volts = (red: string, black: string, value: number, mode = 'dcv'): LedgerLine =>
  add('powered-reading', { mode, red, black, value, source: 230, load: 'full' });
const now = (): Record<string, number> => Object.fromEntries(readAtNets(board, lines, '1'));

beforeEach(() => {
  lines = [];
});

test('what was read last at a net against its own reference, either way round', () => {
  volts('HV+', 'HV-', 318);
  volts('HV+', 'HV-', 322);
  volts('OUT-', 'OUT+', -23.8);
  expect(now()).toEqual({ 'hv+': 322, 'out+': 23.8 });
});

test('other meters, other boards, across the barrier and between two nets say nothing of one net', () => {
  volts('HV+', 'HV-', 8, 'ripple');
  volts('HV+', 'OUT-', 300);
  volts('OUT+', 'raw+', 0.1);
  add('powered-reading', lines[0]!.entry.kind === 'powered-reading' ? lines[0]!.entry.body : {}, { boardId: '2' });
  expect(now()).toEqual({});
});

test('what was taken back, or read before a part was fitted, is read no more', () => {
  const wrong = volts('OUT+', 'OUT-', 2.38);
  add('reversal', { reason: 'a decade off' }, { reverses: wrong.id });
  expect(now()).toEqual({});
  volts('HV+', 'HV-', 322);
  add('replacement', { ref: 'C1', was: 'dried up', fitted: { source: 'new', samePart: true }, words: '' });
  expect(now()).toEqual({});
  volts('HV+', 'HV-', 319);
  expect(now()).toEqual({ 'hv+': 319 });
});
