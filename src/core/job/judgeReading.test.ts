import type { LedgerLine, ReadingBody } from '../ledger';
import { archetypeBoard } from '../archetype';
import { boardNets } from '../circuit';
import type { Board } from '../circuit';
import { alsoCheck } from '../diagnose';
import { parseFault } from '../fault';
import { readBoard, solverFor } from '../meter';
import { readNetlist } from '../netlist';
import { deriveBoard } from '../trace';
import { testBoards } from '@/testing/boards';
import {
  boardEntries,
  diagnosticReadings,
  expectAt,
  isPlaceConfirmed,
  judgeReading,
  presentReadings,
  repairState,
} from '.';
import type { JudgedJob, Purpose } from '.';
import { entryOf } from '@/testing/entryOf';

function boardOf(...lines: string[]): Board {
  const read = readNetlist(['t', ...lines].join('\n'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  return read.value.board;
}

/** A log on one board, and the job as every screen derives it. */
class Log {
  lines: LedgerLine[] = [];
  constructor(readonly start: Board) {}
  add(kind: string, body: unknown, reverses: string | null = null): LedgerLine {
    const seq = this.lines.length + 1;
    const line = { id: `l${seq}`, seq, boardId: '1', entry: entryOf(kind, body), actor: 'Bench A', at: seq, reverses };
    this.lines.push(line);
    return line;
  }
  read(value: number | 'OL', purpose: Purpose, more: object = {}): LedgerLine {
    const seen = value === 'OL' ? { kind: 'overload' } : { kind: 'figure', value };
    return this.add('reading', { mode: 'ohms', red: 'a', black: 'b', seen, purpose, placeConfirmed: true, ...more });
  }
  get job(): JudgedJob {
    const { board } = deriveBoard(this.start, boardEntries(this.lines, '1'));
    return { boards: [{ id: '1', board, start: this.start }], lines: this.lines };
  }
  judge(line: LedgerLine, as?: Purpose) {
    return judgeReading(this.job, { ...line, body: line.entry.body as ReadingBody }, as)!;
  }
}

// R1 and R2 side by side: 500 ohm whole, 1 kohm with one of them open.
const PAIR = ['R1 a b 1k', 'R2 a b 1k', 'R3 b c 2.2k'] as const;
const call = (log: Log, fault = 'R2:open') => log.add('fault', { fault, words: '' });
const fit = (log: Log, ref: string, value?: number) =>
  log.add('replacement', { ref, was: '', fitted: { samePart: value === undefined, value }, words: '' });

test.each<[string, (log: Log) => LedgerLine, number, 'agree' | 'disagree']>([
  ['probing compares with the healthy board', (l) => (call(l), l.read(1000, 'probe')), 500, 'disagree'],
  ['a check is read with the called fault in place', (l) => (call(l), l.read(1000, 'also-check')), 1000, 'agree'],
  [
    'once the part is replaced, not any more',
    (l) => (call(l), fit(l, 'R2'), l.read(1000, 'also-check')),
    500,
    'disagree',
  ],
  [
    'the check before that stays as it was',
    (l) => (call(l), [l.read(1000, 'also-check'), fit(l, 'r2')][0]!),
    1000,
    'agree',
  ],
  [
    'after the repair the new part is whole',
    (l) => (call(l), fit(l, 'R2'), l.read(500, 'after-repair', { ref: 'R2' })),
    500,
    'agree',
  ],
  [
    'a fault not yet repaired is still there',
    (l) => (call(l), fit(l, 'R1'), l.read(1000, 'after-repair', { ref: 'R1' })),
    1000,
    'agree',
  ],
  [
    'a call that was taken back is none',
    (l) => (l.add('reversal', {}, call(l).id), l.read(1000, 'also-check')),
    500,
    'disagree',
  ],
  [
    'the call of that time counts, not a later one',
    (l) => (call(l), [l.read(1000, 'also-check'), call(l, 'R3:short')][0]!),
    1000,
    'agree',
  ],
  [
    'a part of another value is read as it is now',
    (l) => (fit(l, 'R2', 3000), l.read(750, 'after-repair', { ref: 'R2' })),
    750,
    'agree',
  ],
  [
    'and what was read before it was fitted, as it was',
    (l) => [l.read(500, 'after-repair'), fit(l, 'R2', 3000)][0]!,
    500,
    'agree',
  ],
  [
    'a change on purpose counts from its line on',
    (l) => [l.read(500, 'probe'), l.add('modification', { facts: ['R2 is=3k'] })][0]!,
    500,
    'agree',
  ],
  [
    'and not when it was undone',
    (l) => (l.add('reversal', {}, l.add('modification', { facts: ['R2 is=3k'] }).id), l.read(500, 'probe')),
    500,
    'agree',
  ],
  [
    'what was found out later was always so',
    (l) => [l.read(750, 'probe'), l.add('trace', { text: 'R2 is=3k' })][0]!,
    750,
    'agree',
  ],
])('%s', (_name, write, nominal, outcome) => {
  const log = new Log(boardOf(...PAIR));
  const judged = log.judge(write(log));
  expect(judged.expected?.nominal).toBeCloseTo(nominal, 2);
  expect(judged.outcome).toBe(outcome);
});

test.each<[string, object, 'noted' | 'disagree', number]>([
  ['creeping, as the figure says', { seen: { kind: 'figure', value: 300, unsteady: true } }, 'noted', 1],
  ['creeping, as only the conditions say', { conditions: { settled: 'creeping' } }, 'noted', 1],
  ['jumping', { conditions: { settled: 'jumping' } }, 'noted', 0],
  ['on a live board', { conditions: { powered: true } }, 'noted', 0],
  ['settled', {}, 'disagree', 1],
])('300 ohm for 500 is %s: judged, weighed and counted alike', (_name, more, outcome, evidence) => {
  const log = new Log(boardOf(...PAIR));
  const line = log.read(300, 'probe', more);
  expect(log.judge(line).outcome).toBe(outcome);
  expect(diagnosticReadings(log.lines, '1')).toHaveLength(evidence);
  expect(presentReadings(log.lines, log.job.boards[0]!)).toHaveLength(evidence);
  const [seen] = diagnosticReadings(log.lines, '1').map((r) => r.seen.kind);
  if (outcome === 'noted' && evidence === 1) expect(seen).toBe('at-least');
});

test('a place that is not on the board any more has no expectation and no verdict; a strange board none at all', () => {
  const log = new Log(boardOf(...PAIR));
  const line = log.read(500, 'probe', { red: 'gone' });
  expect(log.judge(line)).toMatchObject({ expected: null, outcome: null });
  expect(expectAt(log.job, { boardId: '2', purpose: 'probe', mode: 'ohms', red: 'a', black: 'b' })).toBeNull();
});

test('a linked fault that its check has found is still there until it is replaced', () => {
  for (const { board } of testBoards()) {
    const trigger = board.parts.find((p) => p.kind === 'mosfet' && alsoCheck(board, `${p.ref}:short(d,s)`).length > 0);
    if (!trigger) continue;
    const called = `${trigger.ref}:short(d,s)`;
    const check = alsoCheck(board, called).find((c) => c.fault.endsWith(':open'))!;
    const log = new Log(board);
    call(log, called);
    const { mode, red, black } = check.point;
    log.read('OL', 'also-check', { mode, red, black, ref: check.ref });
    const asked = { boardId: '1', purpose: 'after-repair' as const, mode, red, black, ref: trigger.ref };
    expect(expectAt(log.job, asked)!.faults.map((f) => f.ref)).toEqual([check.ref]);
    fit(log, check.ref);
    expect(expectAt(log.job, asked)!.faults).toEqual([]);
    return;
  }
  throw new Error('no board with a switch that takes others with it');
});

test('everywhere: a check that reads what the called fault leaves there agrees, whoever asks', () => {
  const off: string[] = [];
  let seen = 0;
  for (const { name, board } of testBoards()) {
    for (const part of board.parts.filter((p) => ['mosfet', 'bjt', 'diode'].includes(p.kind))) {
      const called = part.kind === 'mosfet' ? `${part.ref}:short(d,s)` : `${part.ref}:short`;
      const fault = parseFault(board, called);
      const checks = fault.ok ? alsoCheck(board, called) : [];
      if (!fault.ok || checks.length === 0) continue;
      const real = solverFor(board, [fault.value]);
      const log = new Log(board);
      call(log, called);
      for (const { point, ref } of checks) {
        const read = readBoard(board, real, point.mode as 'ohms', point.red, point.black);
        if (!read.ok) continue;
        const shown = read.value.reading;
        const { mode, red, black } = point;
        const line = log.read(shown.kind === 'figure' ? shown.value : 'OL', 'also-check', { mode, red, black, ref });
        seen++;
        if (log.judge(line).outcome === 'disagree') off.push(`${name} ${called} ${ref}`);
      }
    }
  }
  expect(off).toEqual([]);
  expect(seen).toBeGreaterThan(36);
}, 60_000);

test('a place is confirmed by parts that were seen there, not by what is only assumed or by nothing at all', () => {
  const typical = archetypeBoard('flyback-opto')!;
  const [first = '', second = ''] = boardNets(typical);
  // Also where nothing joins the two: a reading across a barrier is not surer of its place.
  expect(isPlaceConfirmed(typical, 'ohms', first, second)).toBe(false);
  const half = boardOf('R1 a b 1k', 'R2 b c 1k basis=assumed', 'R3 c d 1k');
  expect(isPlaceConfirmed(half, 'ohms', 'a', 'b')).toBe(true);
  // Both ends were seen, but what lies between is only assumed.
  expect(isPlaceConfirmed(half, 'ohms', 'b', 'c')).toBe(false);
  expect(isPlaceConfirmed(boardOf('R1 a b 1k', 'R2 c d 1k'), 'ohms', 'a', 'c')).toBe(true);
});

describe('with another instrument than the meter', () => {
  const BULK = ['C1 a b 100u esr=0.2', 'C2 b c 100u esr=0.2', 'R1 a b 47k', 'R2 c d 1k'] as const;
  const at = (log: Log, mode: 'esr' | 'cap', value: number | 'OL', purpose: Purpose, more: object = {}) =>
    log.read(value, purpose, { mode, ...more });

  test.each([
    ['esr', 0.21, 'agree'],
    ['esr', 2, 'disagree'],
    ['esr', 0.09, 'agree'],
    ['cap', 104e-6, 'agree'],
    ['cap', 45e-6, 'disagree'],
    ['cap', 'OL', 'disagree'],
  ] as const)('%s %p on 100 uF with 0.2 ohm: %s', (mode, value, outcome) => {
    const log = new Log(boardOf(...BULK));
    const judged = log.judge(at(log, mode, value, 'probe'));
    expect(judged.outcome).toBe(outcome);
    expect(judged.expected).toMatchObject({ mode, unit: mode === 'esr' ? 'ohm' : 'F', basis: 'seen', through: ['C1'] });
  });

  // Q = √(L/C)/R of 1 mH, 10 nF and 3.162 ohm is 100, ln(1/0.15) Q/π = 60 cycles; rp=31620 in parallel with it halves Q.
  test.each([
    ['L1 a b 1m dcr=3.162', 60, 'agree'],
    ['L1 a b 1m dcr=3.162', 12, 'agree'],
    ['L1 a b 1m dcr=3.162', 7, 'noted'],
    ['L1 a b 1m dcr=3.162', 3, 'disagree'],
    ['L1 a b 1m dcr=3.162', 'OL', 'agree'],
    ['L1 a b 1m dcr=3.162 rp=31620', 30, 'agree'],
    ['L1 a b 1m dcr=3.162 rp=31620', 2, 'disagree'],
    // What is held still by its neighbour tells nothing; what is no winding, or only assumed, neither.
    ['L1 a b 1m dcr=3.162\nR1 a b 47', 0, 'noted'],
    ['R1 a b 47', 0, 'noted'],
    ['L1 a b 1m dcr=3.162 basis=assumed', 0, 'noted'],
  ] as const)('a ring tester on %s: %p cycles %s', (lines, value, outcome) => {
    const log = new Log(boardOf(...lines.split('\n')));
    const judged = log.judge(log.read(value, 'probe', { mode: 'ring' }));
    expect(judged).toMatchObject({ outcome, expected: { mode: 'ring', unit: 'cycles' } });
  });

  test('where nothing has capacity, or nothing joins the nets, no figure is a fault', () => {
    const log = new Log(boardOf(...BULK));
    const resistive = log.judge(at(log, 'cap', 1e-9, 'probe', { red: 'c', black: 'd' }));
    expect(resistive).toMatchObject({ outcome: 'noted', expected: { nominal: null } });
    const parted = new Log(boardOf('R1 a b 1k', 'R2 c d 1k'));
    const apart = parted.judge(at(parted, 'esr', 'OL', 'probe', { red: 'a', black: 'c' }));
    expect(apart).toMatchObject({ outcome: 'agree', expected: { nominal: null, judged: true } });
  });

  test('a part that was read across with it is read so again after the repair', () => {
    const log = new Log(boardOf(...BULK));
    const pointOf = () => repairState([{ ...log.job.boards[0]!, asFound: log.start }], null!, log.lines).fits[0]!.told;
    call(log, 'C1:esr=4');
    expect(pointOf()!.expected).toMatchObject({ mode: 'ohms' });
    at(log, 'esr', 4.1, 'probe');
    fit(log, 'C1');
    expect(pointOf()!.expected).toMatchObject({ mode: 'esr', red: 'a', black: 'b' });
    expect(log.judge(at(log, 'esr', 4.1, 'after-repair', { ref: 'C1' })).outcome).toBe('disagree');
    expect(log.judge(at(log, 'esr', 0.19, 'after-repair', { ref: 'C1' })).outcome).toBe('agree');
  });
});
