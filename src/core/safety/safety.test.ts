import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readNetlist } from '../netlist';
import { PROOF_MINUTES, energyStores, judgeHazard, nameplateSanity } from '.';
import type { Moment, ProofReading } from '.';

const read = readNetlist(readFileSync(join(__dirname, '../../../fixtures/boards/lamp-supply-24v.cir'), 'utf8'));
if (!read.ok) throw new Error('fixture');
const plate = { source: 'mains', inputRail: 'L', inputReturn: 'N', inputMin: 90, inputMax: 264 } as const;
const stores = energyStores({ ...read.value.board, nameplate: plate });
const find = (ref: string) => stores.find((s) => s.refs.includes(ref))!;

test('the bulk capacitor may hold its rating, which is above the peak of the highest line', () => {
  const bulk = find('C1');
  expect(264 * Math.SQRT2).toBeLessThan(450);
  expect(bulk.volts).toMatchObject({ nominal: 450, basis: 'assumed' });
  expect(bulk.joules).toBeCloseTo((180e-6 * 450 ** 2) / 2, 6);
  expect(bulk.discharge.lamp).toMatch(/two .* in series/u);
});

test('each pair of nets is a store of its own; the largest rating there bounds it', () => {
  // C8 and C9 stand before the output choke, C10 behind it.
  expect(find('C8').refs).toEqual(expect.arrayContaining(['C8', 'C9']));
  expect(find('C8').refs).not.toContain('C10');
  expect(find('C9').volts).toMatchObject({ nominal: 35, basis: 'assumed' });
  expect(find('CX1').volts.nominal).toBeCloseTo(310 * Math.SQRT2, 6);
  expect(stores.some((s) => s.refs.includes('C3'))).toBe(false);
  expect(find('C4').proof).toBe(false);
});

test('a discharge resistor stays within a sane time and names its voltage', () => {
  for (const s of stores) {
    expect(s.discharge.seconds).toBeLessThan(60);
    expect(s.discharge.ratedVolts).toBe(s.volts.nominal);
  }
});

const off = [{ name: 'Mains', isolatedBy: 'Bench A' }];
const START: Moment = { at: 1_000_000_000_000, boot: 'one', uptime: 5000 };
const after = (seconds: number, more: Partial<Moment> = {}): Moment => ({
  at: START.at + seconds * 1000,
  boot: 'one',
  uptime: START.uptime! + seconds,
  ...more,
});
const reading = (volts: number, moment = START): ProofReading => ({ volts, moment, by: 'Bench A', meterProved: true });
const all = (volts: number) => () => reading(volts);
const none = () => null;

test.each([
  ['a source still on', [{ name: 'Mains', isolatedBy: null }], all(0), after(1), 'LIVE', false],
  ['nothing proved', off, none, after(1), 'NOT PROVED', false],
  ['all below 0.2 V', off, all(0.05), after(60), 'DISCHARGED', true],
  ['low enough to touch, not for the meter', off, all(12), after(1), 'CHARGED', false],
  ['59.9 V in the dry', off, all(59.9), after(1), 'CHARGED', false],
  ['still charged', off, all(320), after(1), 'CHARGED', false],
  ['after 14 minutes', off, all(0.05), after(14 * 60), 'DISCHARGED', true],
  ['run out after 15 minutes', off, all(0.05), after(PROOF_MINUTES * 60 + 1), 'NOT PROVED', false],
  ['high stays high, however old', off, all(320), after(86_400), 'CHARGED', false],
] as const)('hazard: %s', (_name, sources, proofOf, now, state, meterSafe) => {
  expect(judgeHazard(sources, stores, proofOf, false, now)).toMatchObject({ state, meterSafe });
});

test.each([
  ['the wall clock set back an hour', after(16 * 60, { at: START.at - 3_600_000 }), 'NOT PROVED'],
  ['set back, but within the time by the steady clock', after(60, { at: START.at - 3_600_000 }), 'DISCHARGED'],
  ['set forward an hour', after(60, { at: START.at + 3_600_000 }), 'NOT PROVED'],
  ['the machine started anew', after(60, { boot: 'two', uptime: 20 }), 'NOT PROVED'],
  ['a steady clock that ran backward', after(60, { uptime: START.uptime! - 1 }), 'NOT PROVED'],
  ['no steady clock at all', after(60, { boot: null, uptime: null }), 'NOT PROVED'],
] as const)('no clock lengthens a proof: %s', (_name, now, state) => {
  expect(judgeHazard(off, stores, all(0.05), false, now).state).toBe(state);
});

test('a line from before there was a steady clock proves nothing any more', () => {
  const old = () => reading(0.05, { at: START.at, boot: null, uptime: null });
  expect(judgeHazard(off, stores, old, false, after(1)).state).toBe('NOT PROVED');
});

test('figures are said as they were read, with what they allow; the limit to touch follows the place', () => {
  const judged = (volts: number, wet: boolean | null) => judgeHazard(off, stores, all(volts), wet, after(1));
  expect(judged(59.9, false).reason).toMatch(/read 59\.9.V: low enough to touch in the dry, not for ohms/u);
  // In the wet, and as long as nobody has said, 30 V is the limit.
  for (const wet of [true, null]) {
    expect(judged(31, wet).reason).toMatch(/discharge it and read again/u);
    expect(judged(31, wet).touchVolts).toBe(30);
  }
  expect(judged(29, true).reason).toMatch(/in the wet/u);
  expect(judged(0.05, null).state).toBe('DISCHARGED');
});

test('without any store that was read nothing is discharged', () => {
  expect(judgeHazard(off, [], none, false, after(1)).state).toBe('NOT PROVED');
});

test('an undischarged store says that waiting does not help', () => {
  expect(judgeHazard(off, stores, none, false, after(1)).reason).toMatch(
    /may still be at \d+ V however long it has stood/u,
  );
});

test('nameplate sanity: 72 W from 90 V asks for 1.57 A, a 10 A fuse for that is doubted', () => {
  const sane = nameplateSanity({ source: 'mains', inputMin: 90, inputMax: 264, outputVolts: 24, outputAmps: 3 });
  expect(sane.inputAmps).toBeCloseTo(72 / (0.85 * 0.6 * 90), 6);
  expect(sane.remarks).toEqual([]);
  expect(
    nameplateSanity({ source: 'mains', inputMin: 90, outputVolts: 24, outputAmps: 3, fuseAmps: 10 }).remarks,
  ).toHaveLength(1);
  expect(nameplateSanity({ source: 'mains', inputMin: 240, inputMax: 100 }).remarks).toHaveLength(1);
  expect(nameplateSanity({ source: 'dc' }).outputWatts).toBeNull();
});
