import type { z } from 'zod';
import { UPCASTERS, newestVersion, upcast } from '@/core/ledger';
import type { LedgerEntry as CoreEntry, LedgerKind } from '@/core/ledger';
import { LedgerEntry, readEntry, storedBody } from './ledger';

type Mutable<T> = T extends readonly (infer U)[]
  ? Mutable<U>[]
  : T extends object
    ? { -readonly [K in keyof T]: Mutable<T[K]> }
    : T;
type Same<A, B> = [A] extends [B] ? ([B] extends [A] ? true : false) : false;
/** The schema and the core's union are one and the same; the type check fails where they are not. */
const SAME: Same<Mutable<CoreEntry>, z.output<typeof LedgerEntry>> = true;

const sum = { name: 'stored-energy', inputs: { c: 1e-4, v: 325 }, bound: { c: 'C1.value' }, words: '' };
const change = {
  kind: 'output-voltage',
  rail: 'OUT',
  return: 'GND',
  tap: 'FB',
  vRef: 1.22,
  vTarget: 6.2,
  modify: 'bottom',
  series: 'E24',
};
const step = { setBy: 'vin', set: 12, words: 'at 12 V', nominal: 6.2, low: 6, high: 6.4, off: false };
const reading = { mode: 'ohms', red: 'A', black: 'B', seen: { kind: 'overload' }, purpose: 'probe' };
const conditions = {
  powered: false,
  suppliedBy: '',
  load: '',
  minutesOn: null,
  celsius: null,
  stimulus: 'none',
  settled: 'settled',
};

/**
 * Bodies as they were stored, one of each kind and version, never changed again: what opened once opens for ever.
 * A body without a version is of the first.
 */
const STORED: readonly (readonly [LedgerKind, number, Readonly<Record<string, unknown>>])[] = [
  ['reading', 1, reading],
  ['reading', 1, { ...reading, placeConfirmed: true, conditions: { powered: true, stimulus: 'tapped' } }],
  [
    'reading',
    2,
    { v: 2, ...reading, seen: { kind: 'figure', value: 4700, unsteady: true }, placeConfirmed: true, conditions },
  ],
  ['finding', 1, { place: 'C1', severity: 'danger', words: 'bulged' }],
  ['isolation', 1, { source: 'Mains lead' }],
  ['isolation', 1, { source: 'Mains lead', id: 's1' }],
  ['site', 1, { wet: true }],
  ['discharge-proof', 1, { storeKey: 'gnd hv', refs: ['C1'], volts: 0.03, meterProved: true }],
  ['recharged', 1, { why: 'lamp test' }],
  ['action', 1, { words: 'board added: Panel' }],
  ['override', 1, { what: 'proof', reason: 'shorting lead across C1' }],
  ['fault', 1, { fault: 'M1:short(d,s)', words: '' }],
  ['check-skipped', 1, { ref: 'R7', fault: 'R7:open', reason: 'glued in' }],
  ['step-closed', 1, { step: 'repair' }],
  [
    'replacement',
    1,
    { ref: 'C6', was: '1000uF', fitted: { source: 'new', samePart: false, ratedVolts: 50 }, words: '' },
  ],
  ['safety-test', 1, { test: 'Insulation resistance', result: '200 Mohm' }],
  ['job-state', 2, { v: 2, outcome: 'repaired', waitingFor: '', archived: true }],
  ['correction', 1, { unit: 'Lamp', nameplate: { inputMax: 264, outputs: [{ volts: 24, amps: 2, kind: 'dc' }] } }],
  ['correction', 1, { symptoms: ['dead'], sources: [{ id: 's1', name: 'Mains lead', kind: 'mains' }] }],
  ['trace', 1, { text: 'R7 472 VCC FB' }],
  ['sum', 1, sum],
  [
    'modification',
    1,
    {
      title: '6.2 V',
      why: 'the cradles want it',
      change,
      facts: ['R6 473 FB GND'],
      parts: [],
      sum: { name: 'x', inputs: {} },
      reaches: 6.2,
      steps: [step],
    },
  ],
  ['modification-verdict', 1, { modification: '7', verified: true, words: '' }],
  ['sweep', 1, { title: 's', setBy: 'vin', claimed: null, sagLimit: 0.05, efficiency: null, modification: null }],
  ['sweep-rows', 1, { sweep: '8', csv: 'vin,vout\n12,6.2\n', count: 1 }],
  ['job-state', 1, { outcome: 'repaired', waitingFor: '' }],
  ['reversal', 1, { reason: 'wrong part' }],
  ['powered-reading', 1, { mode: 'dcv', red: 'OUT+', black: 'OUT-', value: 24.1, source: 230, load: 'half' }],
];

test.each(STORED)('a %s line of version %p opens, and is written again in the newest', (kind, _version, body) => {
  const entry = readEntry(kind, JSON.parse(JSON.stringify(body)));
  expect(entry.kind).toBe(kind);
  if (entry.kind === 'damaged') return;
  // Nothing that was said is lost on the way.
  const said = Object.fromEntries(Object.entries(body).filter(([key]) => key !== 'v' && key !== 'conditions'));
  expect(entry.body).toMatchObject(said);
  const again = storedBody(entry) as { readonly v: number };
  expect(again.v).toBe(newestVersion(kind));
  expect(readEntry(kind, JSON.parse(JSON.stringify(again)))).toEqual(entry);
});

test('every kind has a stored body of every version', () => {
  expect(SAME).toBe(true);
  const kinds = LedgerEntry.options.map((o) => o.shape.kind.value);
  const wanted = kinds.flatMap((kind) => Array.from({ length: newestVersion(kind) }, (_, i) => `${kind} ${i + 1}`));
  expect([...new Set(STORED.map(([kind, version]) => `${kind} ${version}`))].sort()).toEqual(wanted.sort());
  // An upcaster for a kind that is none would never run.
  expect(kinds).toEqual(expect.arrayContaining(Object.keys(UPCASTERS)));
});

test('a reading from before its place was said is of no sure place; what it did say stays', () => {
  expect(readEntry('reading', reading)).toMatchObject({ body: { placeConfirmed: false, conditions } });
  const powered = { ...reading, placeConfirmed: true, conditions: { powered: true } };
  expect(readEntry('reading', powered)).toMatchObject({
    body: { placeConfirmed: true, conditions: { powered: true } },
  });
});

test.each([
  ['of a version to come', 'site', { v: 99, wet: true }],
  ['of a version that is none', 'site', { v: 'two', wet: true }],
  ['with more than there is', 'site', { wet: true, gossip: 1 }],
  ['that is no object', 'site', [true]],
  ['of a kind that is none', 'constructor', {}],
])('a body %s is damaged and kept as it is', (_name, kind, body) => {
  expect(readEntry(kind, body)).toEqual({ kind: 'damaged', body: { kind, was: body } });
});

test('upcasting goes from the version a body says, one step at a time', () => {
  expect(upcast('reading', { v: 2, red: 'A' })).toEqual({ red: 'A' });
  expect(upcast('reading', { red: 'A' })).toMatchObject({ red: 'A', placeConfirmed: false });
  expect(upcast('site', null)).toBeNull();
});
