import type { Board, Nameplate } from '../circuit';
import { readNetlist } from '../netlist';
import { TOUCH_LIMIT_VOLTS, energyStores, judgeHazard, nameplateSanity } from '.';

const mains: Nameplate = { source: 'mains', inputRail: 'L', inputReturn: 'N', inputMax: 264 };
function boardOf(plate: Nameplate | undefined, ...lines: string[]): Board {
  const read = readNetlist(['t', ...lines].join('\n'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  return plate ? { ...read.value.board, nameplate: plate } : read.value.board;
}
const refsOf = (board: Board): string[] => energyStores(board).map((s) => s.refs.join(' '));

test('capacitors that share a pair of rails are one store, over a choke too', () => {
  expect(
    refsOf(boardOf(undefined, 'C1 a b 1000u vr=35', 'L1 a c 3u', 'C2 c b 470u vr=35', 'C3 b a 100u vr=35')),
  ).toEqual(['C1 C2 C3']);
});

test.each([
  ['a fuse', 'XF1 a c FUSE'],
  ['an inrush limiter', 'XRT1 a c NTC r25=5'],
  ['a sense resistor', 'R1 a c 0.22'],
  ['a diode', 'D1 a c DD'],
  ['an empty place', 'L1 a c 3u fit=no'],
])('over %s, which may be open, they are two', (_name, between) => {
  const board = boardOf(undefined, 'C1 a b 1000u vr=35', between, 'C2 c b 470u vr=35', '.model DD D()');
  expect(refsOf(board).sort()).toEqual(['C1', 'C2']);
});

test('what is not fitted, shorted by its rails or too small to hurt is left out', () => {
  const board = boardOf(
    undefined,
    'C1 a b 1000u vr=35 fit=no',
    'L1 a c 1m',
    'C2 a c 1000u vr=35',
    'C3 a b 100n vr=50',
    'C4 a d 1n vr=63',
  );
  expect(refsOf(board)).toEqual(['C4']);
  expect(energyStores(board)[0]!.proof).toBe(false);
});

test.each([
  [264, 373.35],
  [132, 186.68],
  [90, 127.28],
])('behind the bridge, at %p V of line, stands its peak', (inputMax, volts) => {
  const board = boardOf({ ...mains, inputMax }, 'XBD1 L N P Q BRIDGE', 'C1 P Q 100u vr=400 esr=0.3');
  const [store] = energyStores(board);
  expect(store!.volts.nominal).toBeCloseTo(volts, 1);
  expect(store!.volts.why).toContain('1.414');
});

test('without a nameplate the rating bounds it, and without a rating the touch limit is taken', () => {
  const rated = energyStores(boardOf(undefined, 'C1 a b 100u vr=450'))[0]!;
  expect(rated.volts).toMatchObject({ nominal: 450, basis: 'assumed' });
  const unrated = energyStores(boardOf(undefined, 'C1 a b 1000u'))[0]!;
  expect(unrated.volts).toMatchObject({ nominal: TOUCH_LIMIT_VOLTS, basis: 'assumed' });
});

test('a DC input gives its own highest voltage to what stands across it', () => {
  const plate: Nameplate = { source: 'battery', inputRail: 'a', inputReturn: 'b', inputMax: 15 };
  expect(energyStores(boardOf(plate, 'C1 a b 4700u vr=25'))[0]!.volts).toMatchObject({ nominal: 15, basis: 'seen' });
});

test.each([
  ['C1 a b 100u vr=400', 2],
  ['C1 a b 10000u vr=63', 1],
  ['C1 a b 1000u vr=25', 0],
])('%s: filament lamps in series to empty it: %p', (line, lamps) => {
  const { lamp } = energyStores(boardOf(undefined, line))[0]!.discharge;
  expect(lamp === null ? 0 : lamp.startsWith('two') ? 2 : 1).toBe(lamps);
});

test('the discharge resistor empties any store within a minute and never draws an ampere and a half', () => {
  for (const farads of ['1u', '47u', '1000u', '0.1', '1'])
    for (const volts of [12, 35, 160, 400, 630]) {
      const store = energyStores(boardOf(undefined, `C1 a b ${farads} vr=${volts}`))[0];
      if (!store) continue;
      const { ohms, seconds, peakWatts } = store.discharge;
      expect(volts / ohms).toBeLessThan(6.4);
      expect(peakWatts).toBeCloseTo(volts ** 2 / ohms, 6);
      if (farads !== '1' && farads !== '0.1') expect(seconds).toBeLessThan(60);
    }
});

test('two limits: to touch and to use the meter; ten joules are too many at any voltage', () => {
  const board = boardOf(undefined, 'C1 a b 22000u vr=63');
  const [store] = energyStores(board);
  const state = (volts: number): string => {
    const proof = { boardId: '', storeKey: store!.key, volts, at: 1000, by: 'Bench A', meterProved: true };
    return judgeHazard([], [store!], [proof], null, 2000).stores[0]!.state;
  };
  expect(state(0.1)).toBe('discharged');
  expect(state(-0.1)).toBe('discharged');
  expect(state(0.3)).toBe('touch');
  expect(state(29)).toBe('touch');
  // 22 mF at 31 V hold 10.6 J.
  expect(state(31)).toBe('charged');
  expect(state(-61)).toBe('charged');
});

test.each([
  [{ source: 'mains', inputMin: 90, inputMax: 264, outputVolts: 24, outputAmps: 2.5 }, 1.307],
  [{ source: 'mains', inputMin: 90, inputMax: 264, outputVolts: 24, outputAmps: 10 }, 3.302],
  [{ source: 'dc', inputMin: 9, outputVolts: 5, outputAmps: 3 }, 1.961],
] as const)('nameplate %#: worst input current by hand', (plate, amps) => {
  const sane = nameplateSanity(plate);
  expect(sane.inputAmps).toBeCloseTo(amps, 2);
  expect(sane.fuseFrom!).toBeGreaterThan(amps);
  expect(sane.fuseTo!).toBeGreaterThan(sane.fuseFrom!);
});

test.each([
  [{ source: 'mains', inputMin: 264, inputMax: 90 }, /lowest input is above/u],
  [{ source: 'mains', inputMin: 90, inputMax: 440, outputVolts: 24, outputAmps: 1 }, /300 V/u],
  [{ source: 'mains', inputMin: 90, outputVolts: 24, outputAmps: 2.5, fuseAmps: 16 }, /larger/u],
  [{ source: 'mains', inputMin: 90, outputVolts: 24, outputAmps: 10, fuseAmps: 1 }, /smaller/u],
] as const)('nameplate %# is remarked on', (plate, remark) => {
  expect(nameplateSanity(plate).remarks.some((r) => remark.test(r))).toBe(true);
});
