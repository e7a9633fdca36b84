import { exampleBoard } from '../../../bench/exampleBoards';
import { readMarks } from './readMarks';

const board = exampleBoard('lamp-supply-24v');
const netsOf = (ref: string): readonly [string, string] => {
  const [red, black] = board.parts.find((p) => p.ref === ref)!.nets;
  return [red!, black!];
};

test('a reading marks what lies right across it, whichever way the leads were; the last one between two nets counts', () => {
  const [a, b] = netsOf('R9');
  const across = board.parts
    .filter((p) => p.nets.length === 2 && [a, b].every((n) => p.nets.includes(n)))
    .map((p) => p.ref);
  const first = { mode: 'ohms', red: a, black: b, outcome: 'disagree' } as const;
  expect([...readMarks(board, [first])]).toEqual(across.map((ref) => [ref, 'disagree']));
  const swapped = { mode: 'diode', red: b, black: a, outcome: 'agree' } as const;
  expect([...readMarks(board, [first, swapped])]).toEqual(across.map((ref) => [ref, 'agree']));
});

test('what was only noted marks nothing; two legs of a transistor that read wrong mark it, two that read well do not', () => {
  const [a, b] = netsOf('R9');
  expect(readMarks(board, [{ mode: 'ohms', red: a, black: b, outcome: 'noted' }]).size).toBe(0);
  const { nets } = board.parts.find((p) => p.ref === 'M1')!;
  const legs = { mode: 'diode', red: nets[0]!, black: nets[2]! } as const;
  expect(readMarks(board, [{ ...legs, outcome: 'disagree' }]).get('M1')).toBe('disagree');
  expect(readMarks(board, [{ ...legs, outcome: 'agree' }]).has('M1')).toBe(false);
  // A connector on both nets is not what was read.
  const [red, black] = netsOf('J2');
  expect(readMarks(board, [{ mode: 'ohms', red, black, outcome: 'disagree' }]).has('J2')).toBe(false);
});

test('a part whose value was measured is ticked, an empty place is never marked', () => {
  const parts = board.parts.map((p) =>
    p.ref === 'R9' ? { ...p, basis: 'measured' as const } : p.ref === 'C3' ? { ...p, fitted: false } : p,
  );
  const [red, black] = netsOf('C3');
  const marks = readMarks({ ...board, parts }, [{ mode: 'ohms', red, black, outcome: 'agree' }]);
  expect(marks.get('R9')).toBe('agree');
  expect(marks.has('C3')).toBe(false);
});

test('a capacitor that ohms find shorted is not ticked by an ESR meter that likes it, nor the other way round', () => {
  const [red, black] = netsOf('C8');
  const by = (mode: 'ohms' | 'esr' | 'cap', outcome: 'agree' | 'disagree') => ({ mode, red, black, outcome });
  expect(readMarks(board, [by('ohms', 'disagree'), by('esr', 'agree')]).get('C8')).toBe('disagree');
  expect(readMarks(board, [by('esr', 'disagree'), by('cap', 'agree'), by('ohms', 'agree')]).get('C8')).toBe('disagree');
  expect(readMarks(board, [by('esr', 'disagree'), by('esr', 'agree'), by('ohms', 'agree')]).get('C8')).toBe('agree');
});
