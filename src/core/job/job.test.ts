import { linesOf, standingLines } from '../ledger';
import type { JobSource, LedgerLine } from '../ledger';
import { archetypeBoard, ARCHETYPES } from '../archetype';
import { placesOnNet } from '../circuit';
import { energyStores } from '../safety';
import { diagnosticReadings, jobProgress, jobState } from '.';
import { entryOf } from '@/testing/entryOf';

let seq = 0;
const line = (kind: string, body: unknown, more: Partial<LedgerLine> = {}): LedgerLine => {
  seq++;
  return {
    id: String(seq),
    seq,
    boardId: '1',
    entry: entryOf(kind, body),
    actor: 'Bench A',
    at: seq * 1000,
    boot: 'one',
    uptime: seq,
    reverses: null,
    ...more,
  };
};
const board = archetypeBoard('flyback-opto')!;
const sources: readonly JobSource[] = [{ name: 'Mains lead', kind: 'mains' }];

test('what was undone does not stand, and the undoing itself is no line of the job', () => {
  const first = line('finding', { words: 'x' });
  const second = line('finding', { words: 'y' });
  const undo = line('reversal', { reason: '' }, { reverses: first.id });
  expect(standingLines([undo, second, first]).map((l) => l.id)).toEqual([second.id]);
  expect(linesOf([undo, second, first], 'finding').map((l) => l.body.words)).toEqual(['y']);
});

test('readings count for the diagnosis in the order taken; those after the repair and of other boards do not', () => {
  const body = (value: number, purpose = 'probe') => ({
    mode: 'ohms',
    red: 'a',
    black: 'b',
    seen: { kind: 'figure', value },
    purpose,
    placeConfirmed: true,
  });
  const lines = [
    line('reading', body(1)),
    line('reading', body(2, 'after-repair')),
    line('reading', body(3), { boardId: '2' }),
    line('reading', { ...body(4), seen: { kind: 'figure', value: 4, unsteady: true } }),
  ];
  expect(diagnosticReadings([...lines].reverse(), '1').map((r) => r.seen)).toEqual([
    { kind: 'figure', value: 1 },
    { kind: 'at-least', value: 4 },
  ]);
});

test('a job walks from isolation to the report, each time with one next thing to do', () => {
  const lines: LedgerLine[] = [];
  const now = () => ({ at: (seq + 1) * 1000, boot: 'one', uptime: seq + 1 });
  const where = () => jobProgress(sources, [{ id: '1', board }], lines, now());
  expect(where()).toMatchObject({ attention: 'safe', next: 'Isolate every source', hazard: { state: 'LIVE' } });
  lines.push(line('isolation', { source: 'Mains lead' }));
  expect(where()).toMatchObject({ attention: 'safe', hazard: { state: 'NOT PROVED' }, lamps: { safe: 'part' } });
  for (const s of energyStores(board).filter((x) => x.proof))
    lines.push(line('discharge-proof', { storeKey: s.key, refs: s.refs, volts: 0.02, meterProved: true }));
  expect(where()).toMatchObject({
    attention: 'probe',
    hazard: { state: 'DISCHARGED', meterSafe: true },
    lamps: { safe: 'lit', board: 'part' },
  });
  lines.push(line('fault', { fault: 'C1:short', words: '' }));
  expect(where().attention).toBe('repair');
  lines.push(line('replacement', { ref: 'C1', fitted: { samePart: true } }));
  expect(where().hazard.state).toBe('NOT PROVED');
  lines.push(line('step-closed', { step: 'repair' }));
  expect(where()).toMatchObject({ attention: 'report', lamps: { repair: 'lit' } });
  lines.push(line('recharged', { why: 'powered' }));
  expect(where().hazard.meterSafe).toBe(false);
});

test('two boards with the same designators are proved each by itself', () => {
  const stores = energyStores(board).filter((x) => x.proof);
  const lines = [line('isolation', { source: 'Mains lead' })];
  const prove = (boardId: string): void => {
    for (const s of stores)
      lines.push(
        line('discharge-proof', { storeKey: s.key, refs: s.refs, volts: 0.02, meterProved: true }, { boardId }),
      );
  };
  const boards = ['1', '2'].map((id) => ({ id, board }));
  const state = (): string =>
    jobProgress(sources, boards, lines, { at: (seq + 1) * 1000, boot: 'one', uptime: seq + 1 }).hazard.state;
  prove('1');
  expect(state()).toBe('NOT PROVED');
  prove('2');
  expect(state()).toBe('DISCHARGED');
  lines.push(line('replacement', { ref: 'C1', fitted: { samePart: true } }, { boardId: '2' }));
  expect(state()).toBe('NOT PROVED');
});

test.each(ARCHETYPES.map((a) => a.name))(
  'the typical circuit %s reads, is all assumed, and its nameplate names its own nets',
  (name) => {
    const made = archetypeBoard(name)!;
    expect(made.parts.every((p) => p.basis === 'assumed')).toBe(true);
    const nets = new Set(made.parts.flatMap((p) => p.nets));
    expect(nets.has(made.nameplate!.inputRail!)).toBe(true);
    for (const o of made.nameplate!.outputs!) expect(nets.has(o.rail!) && nets.has(o.return!)).toBe(true);
    expect(archetypeBoard('nothing like it')).toBeNull();
  },
);

test('leads are told places in words, the easiest first', () => {
  const [first] = placesOnNet(board, 'HV+');
  expect(first?.words).toBe('C1 plus (big capacitor)');
  expect(placesOnNet(board, 'OUT+')[0]?.words).toBe('J2 pin 1 (DC OUT)');
  expect(placesOnNet(board, 'DRAIN').map((p) => p.words)).toContain('M1 drain, middle leg or tab');
  for (let i = 1, list = placesOnNet(board, 'HV-'); i < list.length; i++)
    expect(list[i]!.ease).toBeGreaterThanOrEqual(list[i - 1]!.ease);
});

test('how a job ended is what its last standing line says, with who and when', () => {
  const said = (outcome: string, waitingFor = '', more: Partial<LedgerLine> = {}) =>
    line('job-state', { outcome, waitingFor }, { boardId: null, ...more });
  expect(jobState([])).toEqual({ outcome: 'open', waitingFor: '', archived: false, said: null });
  const first = said('open', 'a coil');
  const second = said('repaired', '', { actor: 'Bench B' });
  expect(jobState([first])).toMatchObject({ outcome: 'open', waitingFor: 'a coil' });
  expect(jobState([second, first])).toMatchObject({ outcome: 'repaired', said: { actor: 'Bench B', at: second.at } });
  // Taken back, what was said before stands again.
  const undo = line('reversal', { reason: '' }, { reverses: second.id });
  expect(jobState([undo, second, first])).toMatchObject({ outcome: 'open', said: { id: first.id } });
});
