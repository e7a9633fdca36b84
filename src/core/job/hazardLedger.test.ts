import type { LedgerEntry, LedgerLine } from '../ledger';
import { entryOf } from '@/testing/entryOf';
import { goesOnWithoutProof, isolatedBy, liveSource, presentReadings } from '.';
import type { WaitingLine } from '.';
import { UNTRACED } from '../safety';
import type { HazardState } from '../safety';
import {
  CAUTION,
  KILLERS,
  Log,
  PARTS,
  STORES,
  UNDER_POWER,
  boardOf,
  boards,
  ledgerCase,
  main,
  reading,
  sources,
} from '@/testing/ledgers';

const ready = (): Log => new Log().isolate().prove();

test('isolated and proved at every store: discharged', () => {
  expect(ready().state).toBe('DISCHARGED');
  expect(new Log().isolate().prove(0.03, STORES.slice(0, 3)).state).toBe('NOT PROVED');
});

test.each(KILLERS)('%s ends the proof, and undoing that line does not bring it back', (_name, kill) => {
  const log = ready();
  const line = kill(log);
  expect(log.state).toBe('NOT PROVED');
  log.undo(line);
  expect(log.state).toBe('NOT PROVED');
  log.prove();
  expect(log.state).toBe('DISCHARGED');
});

test('what is read under power makes the unit live, until it is isolated and proved anew', () => {
  const log = ready();
  const line = log.add('powered-reading', UNDER_POWER);
  expect(log.state).toBe('LIVE');
  // Taking the figure back does not take back that it was connected.
  log.undo(line);
  expect(log.state).toBe('LIVE');
  log.prove();
  expect(log.state).toBe('LIVE');
  log.isolate();
  expect(log.state).toBe('NOT PROVED');
  log.prove();
  expect(log.state).toBe('DISCHARGED');
});

test('a reading under power that waits in the window makes the unit live at once', () => {
  const log = ready();
  const entry = entryOf('powered-reading', UNDER_POWER) as LedgerEntry;
  expect(log.hazard([{ boardId: '1', entry, reverses: null }]).state).toBe('LIVE');
});

test('undoing what was written before the proof ends it as well', () => {
  const log = new Log().isolate();
  const fact = log.add('trace', { text: 'R7 472 IN FB' });
  log.prove();
  expect(log.state).toBe('DISCHARGED');
  log.undo(fact);
  expect(log.state).toBe('NOT PROVED');
});

test('what is said of other places leaves a proof standing', () => {
  const log = ready();
  log.add('trace', { text: 'R9 is=2k' });
  log.add('reading', reading(false));
  log.add('finding', { place: 'C1', severity: 'note', words: 'dusty' });
  log.add('trace', { text: 'stage R9 feedback' });
  expect(log.state).toBe('DISCHARGED');
});

test('an isolation undone is LIVE; isolated again, every store is proved again', () => {
  const log = ready();
  const [first] = log.lines;
  log.undo(first!);
  expect(log.state).toBe('LIVE');
  log.add('isolation', { source: 'Battery', id: 's1' }, null);
  expect(log.state).toBe('NOT PROVED');
  log.prove();
  expect(log.state).toBe('DISCHARGED');
});

test('a proof taken while a source was still on proves nothing, also after it is off', () => {
  const log = new Log();
  log.add('isolation', { source: 'Battery', id: 's1' }, null);
  log.prove();
  log.add('isolation', { source: 'Battery', id: 's2' }, null);
  expect(log.state).toBe('NOT PROVED');
});

test('two batteries of one name are two; an isolation by name alone isolates neither', () => {
  const log = new Log();
  log.add('isolation', { source: 'Battery' }, null);
  expect(isolatedBy(sources, log.lines)).toEqual([null, null]);
  expect(liveSource(sources, log.lines)).toBe('Battery');
  log.add('isolation', { source: 'Battery', id: 's2' }, null);
  expect(isolatedBy(sources, log.lines)).toEqual([null, 'Bench A']);
  // A name that only one source has still does, in any case.
  const one = [{ name: 'Mains lead', kind: 'mains' }] as const;
  const old = new Log();
  old.add('isolation', { source: 'mains LEAD' }, null);
  expect(isolatedBy(one, old.lines)).toEqual(['Bench A']);
});

test('a meter that was not proved lowers nothing, a high reading by it raises all the same', () => {
  const log = new Log().isolate().prove(0.03, STORES, false);
  expect(log.state).toBe('NOT PROVED');
  log.prove();
  expect(log.state).toBe('DISCHARGED');
  log.prove(0.02, [STORES[0]], false);
  expect(log.state).toBe('DISCHARGED');
  log.prove(310, [STORES[0]], false);
  expect(log.state).toBe('CHARGED');
  log.prove(0.02, [STORES[0]], false);
  expect(log.state).toBe('CHARGED');
  log.prove(0.02, [STORES[0]]);
  expect(log.state).toBe('DISCHARGED');
});

test('what was read high stays high, whatever is written and however long it stands, until it is read low', () => {
  const log = ready().prove(90, [STORES[1]]);
  for (const [, kill] of KILLERS) {
    kill(log);
    expect(log.state).toBe('CHARGED');
  }
  log.seconds += 86_400;
  expect(log.state).toBe('CHARGED');
});

test('a high reading taken back leaves the store not proved', () => {
  const log = ready();
  log.prove(200, [STORES[2]]);
  log.undo(log.lines.at(-1)!);
  expect(log.state).toBe('NOT PROVED');
});

test('a low proof taken back leaves the one before it', () => {
  const log = ready();
  log.prove(0.05, [STORES[2]]);
  log.undo(log.lines.at(-1)!);
  expect(log.state).toBe('DISCHARGED');
});

test('designators compare in any case; a proof that names only one of two capacitors is none of theirs', () => {
  const log = new Log().isolate();
  for (const [board, ref] of STORES)
    log.add('discharge-proof', { storeKey: '', refs: [ref.toLowerCase()], volts: 0, meterProved: true }, board);
  expect(log.state).toBe('DISCHARGED');
  const double = [{ id: '1', board: boardOf(...PARTS, 'C3 IN GND 100u vr=100') }, boards[1]!];
  expect(log.hazard([], double).state).toBe('NOT PROVED');
});

test('what is not traced is proved by place, and a fact about a capacitor or a dropped part ends that', () => {
  const empty = [{ id: '1', board: { ...main, parts: [] } }, boards[1]!];
  const log = new Log().isolate().prove(0.03, STORES.slice(2));
  const state = (): HazardState => log.hazard([], empty).state;
  expect(state()).toBe('NOT PROVED');
  const byPlace = (): LedgerLine =>
    log.add('discharge-proof', { storeKey: UNTRACED, refs: [UNTRACED], volts: 0.05, meterProved: true });
  byPlace();
  expect(state()).toBe('DISCHARGED');
  log.add('trace', { text: 'R4 472 A B' });
  expect(state()).toBe('DISCHARGED');
  log.add('trace', { text: 'C9 104 A B' });
  expect(state()).toBe('NOT PROVED');
  byPlace();
  log.add('trace', { text: 'drop R4' });
  expect(state()).toBe('NOT PROVED');
});

test('what waits in this window raises the hazard here, and lowers nothing', () => {
  const wait = (kind: string, body: unknown, boardId: string | null = '1', reverses: string | null = null) => ({
    entry: entryOf(kind, body) as LedgerEntry,
    boardId,
    reverses,
  });
  const log = ready();
  expect(log.hazard([wait('recharged', { why: 'x' }, null)]).state).toBe('NOT PROVED');
  expect(log.hazard([wait('trace', { text: 'C1 is=1m' })]).state).toBe('NOT PROVED');
  expect(log.hazard([wait('reversal', { reason: '' }, null, log.lines[0]!.id)]).state).toBe('LIVE');
  const high = { storeKey: 'x', refs: ['C1'], volts: 90, meterProved: false };
  expect(log.hazard([wait('discharge-proof', high)]).state).toBe('CHARGED');
  const fresh = new Log();
  const isolation = sources.map((s) => wait('isolation', { source: s.name, id: s.id }, null));
  expect(fresh.hazard(isolation).state).toBe('LIVE');
  fresh.isolate();
  const low = STORES.map(([b, ref]) =>
    wait('discharge-proof', { storeKey: 'x', refs: [ref], volts: 0, meterProved: true }, b),
  );
  expect(fresh.hazard(low).state).toBe('NOT PROVED');
});

test('the place decides the limit to touch; a dryness that waits does not count yet', () => {
  const log = new Log().isolate().prove(40);
  expect(log.hazard().touchVolts).toBe(30);
  expect(
    log.hazard([{ entry: { kind: 'site', body: { wet: false } }, boardId: null, reverses: null }]).touchVolts,
  ).toBe(30);
  log.add('site', { wet: false }, null);
  expect(log.hazard().touchVolts).toBe(60);
  expect(log.hazard([{ entry: { kind: 'site', body: { wet: true } }, boardId: null, reverses: null }]).touchVolts).toBe(
    30,
  );
});

test('going on without proof ends after as long as a proof, and with anything that may charge again', () => {
  const log = new Log().isolate();
  expect(goesOnWithoutProof(log.lines, log.moment())).toBe(false);
  log.add('override', { what: 'proof', reason: 'shorted by a lead' });
  expect(goesOnWithoutProof(log.lines, log.moment())).toBe(true);
  log.seconds += 15 * 60;
  expect(goesOnWithoutProof(log.lines, log.moment())).toBe(false);
  log.add('override', { what: 'proof', reason: 'shorted by a lead' });
  log.add('recharged', { why: 'x' }, null);
  expect(goesOnWithoutProof(log.lines, log.moment())).toBe(false);
});

test('readings hold for the board as it is until something is fitted or found out where they were taken', () => {
  const at = (red: string, black: string) => ({ ...reading(false), red, black });
  const pairs = (log: Log, waiting: readonly WaitingLine[] = []) =>
    presentReadings(log.lines, boards[0]!, waiting).map((r) => `${r.red} ${r.black}`);
  const log = new Log();
  log.add('reading', at('IN', 'GND'));
  log.add('reading', at('OUT', 'GND'));
  log.add('reading', at('X', 'Y'));
  log.add('reading', { ...at('X', 'Y'), conditions: { powered: true } });
  log.add('reading', { ...at('X', 'Y'), purpose: 'after-repair' });
  expect(pairs(log)).toEqual(['IN GND', 'OUT GND', 'X Y', 'X Y']);
  expect(pairs(log, [{ boardId: '1', entry: { kind: 'trace', body: { text: 'R9 is=2k' } }, reverses: null }])).toEqual([
    'IN GND',
    'OUT GND',
  ]);
  const fitted = log.add('replacement', { ref: 'r1', fitted: { samePart: true } });
  // R1 lies on IN and FB.
  expect(pairs(log)).toEqual(['OUT GND', 'X Y', 'X Y']);
  log.undo(fitted);
  expect(pairs(log)).toEqual(['OUT GND', 'X Y', 'X Y']);
  log.add('replacement', { ref: 'C2', fitted: { samePart: true } }, '2');
  expect(pairs(log)).toHaveLength(3);
  // What was changed since is told with each that is left.
  const [out, , last] = presentReadings(log.lines, boards[0]!);
  expect([...out!.changed!].sort()).toEqual(['fb', 'in']);
  expect([...last!.changed!].sort()).toEqual(['fb', 'in']);
});

const LEDGERS = 10_000;
const SEED = 20_261;

test(`${LEDGERS} random ledgers, seeds from ${SEED} on: never less cautious than the model, and no more than it mostly`, () => {
  const bold: string[] = [];
  let discharged = 0;
  let agreed = 0;
  for (let seed = SEED; seed < SEED + LEDGERS; seed++) {
    const { log, state, model } = ledgerCase(seed);
    if (CAUTION[state] < CAUTION[model])
      bold.push(`${seed}: ${state}, model ${model}: ${log.lines.map((l) => l.entry.kind).join(' ')}`);
    if (model === 'DISCHARGED') {
      discharged++;
      if (state === 'DISCHARGED') agreed++;
    }
  }
  expect(bold).toEqual([]);
  // It is no feat to be cautious by never saying it: where the model holds it discharged the application mostly does.
  expect(discharged).toBeGreaterThan(LEDGERS / 50);
  expect(agreed / discharged).toBeGreaterThan(0.8);
}, 60_000);
