import { linesOf, standingLines } from '../ledger';
import type { JobSource, LedgerLine } from '../ledger';
import { archetypeBoard } from '../archetype';
import { energyStores } from '../safety';
import type { Moment } from '../safety';
import { STEPS, STEP_NAMES, diagnosticReadings, jobProgress, liveSource } from '.';
import { entryOf } from '@/testing/entryOf';

const board = archetypeBoard('buck-module')!;
const boards = [{ id: '1', board }];
const sources: readonly JobSource[] = [
  { name: 'Battery', kind: 'battery' },
  { name: 'Panel', kind: 'solar' },
];
const MINUTE = 60_000;
const START = 1_700_000_000_000;

/** A ledger written minute by minute: `[kind, body]` each, later ones later. */
function ledger(...entries: readonly (readonly [string, unknown, Partial<LedgerLine>?])[]): LedgerLine[] {
  return entries.map(([kind, body, more], i) => ({
    id: String(i + 1),
    seq: i + 1,
    boardId: '1',
    entry: entryOf(kind, body),
    actor: 'Bench A',
    at: START + i * 1000,
    boot: 'one',
    uptime: i,
    reverses: null,
    ...more,
  }));
}
const isolated = [
  ['isolation', { source: 'Battery' }],
  ['isolation', { source: 'Panel' }],
] as const;
const proofs = energyStores(board)
  .filter((s) => s.proof)
  .map((s) => ['discharge-proof', { storeKey: s.key, refs: s.refs, volts: 0.01, meterProved: true }] as const);
const at = (lines: readonly LedgerLine[], minutes = 1) => jobProgress(sources, boards, lines, later(minutes));
const later = (minutes: number): Moment => ({ at: START + minutes * MINUTE, boot: 'one', uptime: minutes * 60 });

test.each([
  ['nothing done', [], 'safe', 'Isolate every source', 'LIVE'],
  ['one of two isolated', [isolated[0]], 'safe', 'Isolate every source', 'LIVE'],
  ['all isolated', [...isolated], 'safe', /^Prove C\d+ discharged$/u, 'NOT PROVED'],
  ['all proved', [...isolated, ...proofs], 'probe', 'Take the first reading', 'DISCHARGED'],
  [
    'one reading',
    [...isolated, ...proofs, ['reading', { mode: 'ohms', red: 'a', black: 'b', seen: { kind: 'overload' } }] as const],
    'probe',
    'Take the next reading',
    'DISCHARGED',
  ],
  [
    'a fault called',
    [...isolated, ...proofs, ['fault', { fault: 'D1:short' }] as const],
    'repair',
    /fit the parts/u,
    'DISCHARGED',
  ],
  [
    'the repair closed',
    [...isolated, ...proofs, ['fault', { fault: 'D1:short' }] as const, ['step-closed', { step: 'repair' }] as const],
    'report',
    /report/u,
    'DISCHARGED',
  ],
  ['powered again', [...isolated, ...proofs, ['recharged', { why: 'x' }] as const], 'safe', /^Prove/u, 'NOT PROVED'],
] as const)('%s: what is next', (_name, entries, attention, next, hazard) => {
  const progress = at(ledger(...entries));
  expect(progress.attention).toBe(attention);
  expect(progress.next).toMatch(next);
  expect(progress.hazard.state).toBe(hazard);
});

test('proofs run out, and the job goes back to making safe', () => {
  const lines = ledger(...isolated, ...proofs);
  expect(at(lines, 14).attention).toBe('probe');
  expect(at(lines, 16)).toMatchObject({ attention: 'safe', hazard: { state: 'NOT PROVED' }, lamps: { safe: 'part' } });
});

test('an isolation undone makes the job live again', () => {
  const lines = ledger(...isolated, ['reversal', { reason: 'wrong lead' }, { reverses: '2' }]);
  expect(liveSource(sources, lines)).toBe('Panel');
  expect(at(lines).hazard.state).toBe('LIVE');
  expect(liveSource(sources, ledger(...isolated))).toBeNull();
});

test('a fault taken back sends the job back to Probe', () => {
  const lines = ledger(...isolated, ...proofs, ['fault', { fault: 'D1:short' }]);
  const undone = [...lines, ...ledger(['reversal', { reason: '' }])].map((l, i, all) =>
    i === all.length - 1 ? { ...l, id: '99', seq: 99, reverses: lines.at(-1)!.id } : l,
  );
  expect(at(lines).attention).toBe('repair');
  expect(at(undone).attention).toBe('probe');
});

test('a job that is done points at its report, whatever its hazard', () => {
  const lines = ledger(['job-state', { outcome: 'repaired', waitingFor: '' }]);
  expect(at(lines)).toMatchObject({ attention: 'report', lamps: { report: 'lit' } });
});

test('an empty board is traced or chosen before anything is read on it', () => {
  const empty = [{ id: '1', board: { ...board, parts: [] } }];
  const progress = jobProgress(sources, empty, ledger(...isolated), later(1));
  expect(progress).toMatchObject({ attention: 'board', lamps: { board: 'unlit' }, hazard: { state: 'NOT PROVED' } });
  expect(progress.next).toMatch(/Trace the board, or choose a typical circuit/u);
  expect(progress.hazard.reason).toMatch(/What is not traced is not empty/u);
});

test('a row of a sweep was read on a powered board: it ends the proofs as well', () => {
  const lines = ledger(...isolated, ...proofs);
  expect(at(lines).hazard.meterSafe).toBe(true);
  expect(at(ledger(...isolated, ...proofs, ['sweep-rows', { sweep: '1' }])).hazard.meterSafe).toBe(false);
});

test('lines stand in the order of their numbers, however they come', () => {
  const lines = ledger(['action', { words: 'a' }], ['action', { words: 'b' }], ['action', { words: 'c' }]);
  expect(standingLines([lines[2]!, lines[0]!, lines[1]!]).map((l) => l.seq)).toEqual([1, 2, 3]);
  expect(linesOf([...lines].reverse(), 'action').map((l) => l.body.words)).toEqual(['a', 'b', 'c']);
});

test('a reading agreed without a figure counts as such; its place may be unconfirmed', () => {
  const lines = ledger([
    'reading',
    { mode: 'diode', red: 'a', black: 'b', seen: { kind: 'agrees' }, purpose: 'probe', placeConfirmed: false },
  ]);
  expect(diagnosticReadings(lines, '1')).toEqual([
    { mode: 'diode', red: 'a', black: 'b', seen: { kind: 'agrees' }, placeConfirmed: false },
  ]);
  expect(diagnosticReadings(lines, '2')).toEqual([]);
});

test('the six steps have names, each once', () => {
  expect(STEPS).toHaveLength(6);
  expect(new Set(STEPS.map((s) => STEP_NAMES[s])).size).toBe(6);
});
