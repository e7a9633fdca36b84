import type { Board } from '../circuit';
import type { JobFacts, JobSource } from '../ledger';
import { Log, boards, main, sources } from '@/testing/ledgers';
import { correctedJob, everySource, isolatedBy, jobHazard, liveSource } from '.';

const TAKEN_IN: JobFacts = {
  unit: 'Lamp',
  serial: '1',
  nameplate: { source: 'battery', inputMax: 15 },
  complaint: 'dead',
  symptoms: ['dead'],
  history: '',
  accessories: '',
  sources,
};
const first = sources[0]!;

test('a correction changes what it names; taken back, it is as before; the later one holds', () => {
  const log = new Log();
  const one = log.add('correction', { unit: 'Lantern', symptoms: [] }, null);
  log.add('correction', { serial: '77' }, null);
  expect(correctedJob(TAKEN_IN, log.lines)).toMatchObject({
    unit: 'Lantern',
    serial: '77',
    symptoms: [],
    complaint: 'dead',
  });
  log.undo(one);
  expect(correctedJob(TAKEN_IN, log.lines)).toMatchObject({ unit: 'Lamp', serial: '77', symptoms: ['dead'] });
});

test('a source taken off the list is still asked for, and so is one whose correction was taken back', () => {
  const log = new Log();
  log.add('isolation', { source: 'Battery', id: 's2' }, null);
  expect(log.state).toBe('LIVE');
  const off = log.add('correction', { sources: [sources[1]] }, null);
  expect(correctedJob(TAKEN_IN, log.lines).sources).toEqual([sources[1]]);
  expect(log.state).toBe('LIVE');
  expect(liveSource(sources, log.lines)).toBe('Battery');
  log.undo(off);
  const more = log.add('correction', { sources: [...sources, { id: 's3', name: 'Panel', kind: 'solar' }] }, null);
  log.add('isolation', { source: 'Battery', id: 's1' }, null);
  expect(liveSource(sources, log.lines)).toBe('Panel');
  log.undo(more);
  expect(log.state).toBe('LIVE');
  log.add('isolation', { source: 'Panel', id: 's3' }, null);
  expect(log.state).toBe('NOT PROVED');
});

test('a source that is named later was there before: what was proved before it was off proves nothing', () => {
  const log = new Log().isolate().prove();
  expect(log.state).toBe('DISCHARGED');
  log.add('correction', { sources: [...sources, { id: 's3', name: 'Panel', kind: 'solar' }] }, null);
  expect(log.state).toBe('LIVE');
  log.add('isolation', { source: 'Panel', id: 's3' }, null);
  expect(log.state).toBe('NOT PROVED');
  log.prove();
  expect(log.state).toBe('DISCHARGED');
});

test('a correction that waits here adds its sources at once and takes none away', () => {
  const log = new Log().isolate().prove();
  const waiting = (list: readonly JobSource[]) =>
    log.hazard([{ boardId: null, entry: { kind: 'correction', body: { sources: list } }, reverses: null }]).state;
  expect(waiting([...sources, { id: 's3', name: 'Panel', kind: 'solar' }])).toBe('LIVE');
  expect(waiting([first])).toBe('DISCHARGED');
});

test('an isolation by name alone means what the source was called when it came in', () => {
  const one = [{ id: 's1', name: 'Mains lead', kind: 'mains' }] as const;
  const log = new Log();
  log.add('isolation', { source: 'Panel' }, null);
  log.add('correction', { sources: [{ id: 's1', name: 'Panel', kind: 'solar' }] }, null);
  expect(isolatedBy(one, log.lines)).toEqual([null]);
  log.add('isolation', { source: 'mains lead' }, null);
  expect(isolatedBy(one, log.lines)).toEqual(['Bench A']);
  expect(everySource(one, log.lines)).toMatchObject([{ id: 's1', name: 'Panel', first: 'Mains lead' }]);
});

test('a nameplate may raise what a store is taken for; a lower one takes nothing away, nor does taking it back', () => {
  const log = new Log();
  const start: Board = { ...main, nameplate: { source: 'dc', inputRail: 'IN', inputReturn: 'GND', inputMax: 30 } };
  const at = (nameplate: Board['nameplate']): number => {
    const on = [{ id: '1', board: nameplate ? { ...start, nameplate } : start, start }, boards[1]!];
    const { stores } = jobHazard(sources, on, log.lines, log.moment(), { unit: start.nameplate });
    return stores.find((s) => s.store.boardId === '1' && s.store.refs.includes('C1'))!.store.volts.nominal;
  };
  const before = at(undefined);
  const high = { ...start.nameplate, inputMax: 400 };
  const raised = log.add('correction', { nameplate: high });
  expect(at(high)).toBeGreaterThan(before);
  log.undo(raised);
  expect(at(undefined)).toBeGreaterThan(before);
  const low = new Log();
  low.add('correction', { nameplate: { ...start.nameplate, inputMax: 5 } });
  const lowered = [{ id: '1', board: { ...start, nameplate: { ...start.nameplate, inputMax: 5 } }, start }];
  const { stores } = jobHazard(sources, lowered, low.lines, low.moment(), { unit: start.nameplate });
  expect(stores.find((s) => s.store.refs.includes('C1'))!.store.volts.nominal).toBe(before);
});
