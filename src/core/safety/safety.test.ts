import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readNetlist } from '../netlist';
import { PROOF_MINUTES, energyStores, judgeHazard, nameplateSanity } from '.';
import type { ProofReading } from '.';

const read = readNetlist(readFileSync(join(__dirname, '../../../fixtures/boards/lamp-supply-24v.cir'), 'utf8'));
if (!read.ok) throw new Error('fixture');
const plate = { source: 'mains', inputRail: 'L', inputReturn: 'N', inputMin: 90, inputMax: 264 } as const;
const stores = energyStores({ ...read.value.board, nameplate: plate });
const needed = stores.filter((s) => s.proof);
const find = (ref: string) => stores.find((s) => s.refs.includes(ref))!;

test('the bulk capacitor gets the peak of the highest line, worked by hand', () => {
  const bulk = find('C1');
  expect(bulk.volts.nominal).toBeCloseTo(264 * Math.SQRT2, 6);
  expect(bulk.volts.basis).toBe('seen');
  expect(bulk.joules).toBeCloseTo((180e-6 * 373.35 ** 2) / 2, 2);
  expect(bulk.discharge.lamp).toMatch(/two .* in series/u);
});

test('others get their rating as an upper bound, rails taken together, the lowest rating bounding them', () => {
  const output = find('C8');
  expect(output.refs).toEqual(expect.arrayContaining(['C8', 'C9', 'C10']));
  expect(output.volts).toMatchObject({ nominal: 35, basis: 'assumed' });
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
const at = 1_000_000_000_000;
const proofs = (volts: number, when = at): readonly ProofReading[] =>
  needed.map((s) => ({ boardId: s.boardId, storeKey: s.key, volts, at: when, by: 'Bench A', meterProved: true }));

test.each([
  ['a source still on', [{ name: 'Mains', isolatedBy: null }], proofs(0), null, at, 'LIVE', false],
  ['nothing proved', off, [], null, at, 'NOT PROVED', false],
  ['all below 0.2 V', off, proofs(0.05), null, at + 60_000, 'DISCHARGED', true],
  ['low enough to touch, not for the meter', off, proofs(12), null, at, 'DISCHARGED', false],
  ['still charged', off, proofs(320), null, at, 'CHARGED', false],
  ['run out after 15 minutes', off, proofs(0.05), null, at + PROOF_MINUTES * 60_000 + 1, 'NOT PROVED', false],
  ['powered since', off, proofs(0.05), at + 1, at + 2, 'NOT PROVED', false],
  ['meter not proved', off, proofs(0.05).map((p) => ({ ...p, meterProved: false })), null, at, 'NOT PROVED', false],
] as const)('hazard: %s', (_name, sources, list, recharged, now, state, meterSafe) => {
  expect(judgeHazard(sources, stores, list, recharged, now)).toMatchObject({ state, meterSafe });
});

test('a newer proof replaces an older one, and an undischarged store says that waiting does not help', () => {
  const later = [...proofs(320), ...proofs(0.01, at + 1000)];
  expect(judgeHazard(off, stores, later, null, at + 2000).state).toBe('DISCHARGED');
  expect(judgeHazard(off, stores, [], null, at).reason).toMatch(/may still be at 373 V however long it has stood/u);
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
