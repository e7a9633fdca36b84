import type { Board, Nameplate } from '../circuit';
import { readNetlist } from '../netlist';
import { deriveBoard, readShorthand } from '../trace';
import { UNTRACED, energyStores, judgeHazard, nameplateSanity, untracedStore } from '.';
import { sizeDoubt } from '../operate';

const mains: Nameplate = { source: 'mains', inputRail: 'L', inputReturn: 'N', inputMax: 264 };
function boardOf(plate: Nameplate | undefined, ...lines: string[]): Board {
  const read = readNetlist(['t', ...(lines.length > 0 ? lines : ['R1 a b 1'])].join('\n'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  const { board } = read.value;
  return { ...board, parts: lines.length > 0 ? board.parts : [], ...(plate ? { nameplate: plate } : {}) };
}
const refsOf = (board: Board): string[] => energyStores(board).map((s) => s.refs.join(' '));

test('only what stands on the same two nets is one store', () => {
  expect(refsOf(boardOf(undefined, 'C1 a b 1000u vr=35', 'C2 b A 470u vr=35', 'C3 c b 100u vr=35'))).toEqual([
    'C1 C2',
    'C3',
  ]);
});

test.each([
  ['a fuse', 'XF1 a c FUSE'],
  ['a choke', 'L1 a c 3u'],
  ['a link', 'R1 a c 0'],
  ['an inrush limiter', 'XRT1 a c NTC r25=5'],
  ['a sense resistor', 'R1 a c 0.22'],
  ['a diode', 'D1 a c DD'],
  ['an empty place', 'L1 a c 3u fit=no'],
])('over %s, which may be open, they are two', (_name, between) => {
  const board = boardOf(undefined, 'C1 a b 1000u vr=35', between, 'C2 c b 470u vr=35', '.model DD D()');
  expect(refsOf(board).sort()).toEqual(['C1', 'C2']);
});

test('what is not fitted, on one net with both legs, or too small to hurt is left out', () => {
  const board = boardOf(
    undefined,
    'C1 a b 1000u vr=35 fit=no',
    'C2 a A 1000u vr=35',
    'C3 a b 100n vr=50',
    'C4 a d 1n vr=63',
  );
  expect(refsOf(board)).toEqual(['C4']);
  expect(energyStores(board)[0]!.proof).toBe(false);
});

test('a leg that is not connected holds its charge all the same', () => {
  expect(refsOf(boardOf(undefined, 'C1 a NC 100u vr=400'))).toEqual(['C1']);
  expect(refsOf(boardOf(undefined, 'C1 NC NC 100u vr=400'))).toEqual(['C1']);
});

test('capacitors inside a known IC are stores, named by the IC', () => {
  const board = boardOf(
    undefined,
    'XU1 a b MODULE',
    '.subckt MODULE 1 2',
    'C1 1 2 100u vr=400',
    'C2 1 x 47u vr=200',
    '.ends',
  );
  const stores = energyStores(board);
  expect(stores.map((s) => s.refs.join(' '))).toEqual(['U1', 'U1']);
  expect(stores[0]).toMatchObject({ plus: 'a', minus: 'b', proof: true });
});

test('a cell soldered to the board always asks for proof, at its own volts', () => {
  const [store] = energyStores(boardOf(undefined, 'V1 a b 3.7'));
  expect(store).toMatchObject({ refs: ['V1'], proof: true });
  expect(store!.volts.nominal).toBe(3.7);
});

test.each([
  ['a rating above everything else', 'C1 P Q 100u vr=450', 450],
  ['a nameplate output across it', 'C1 HV+ Q 100u vr=200', 390],
  ['a 400 V part on a 12 V output', 'C1 OUT Q 100u vr=400', 400],
  ['the largest of several ratings', ['C1 x Q 100u vr=35', 'C2 x Q 10u vr=63'], 63],
  ['an AC rating', 'C1 x Q 1u vr=310 mark="X2 310~"', 310 * Math.SQRT2],
  ['one half of a doubler', 'C1 P MID 100u vr=200', 264 * Math.SQRT2],
  ['nothing known of a large one', 'C1 x Q 100u', 450],
  ['nothing known of a small one', 'C1 x Q 220n', 450],
])('highest credible: %s', (_name, lines, volts) => {
  const plate: Nameplate = {
    ...mains,
    outputs: [
      { rail: 'HV+', return: 'Q', volts: 390, amps: 1, kind: 'dc' },
      { rail: 'OUT', return: 'Q', volts: 12, amps: 1, kind: 'dc' },
    ],
  };
  const board = boardOf(plate, 'XBD1 L N P Q BRIDGE', ...[lines].flat());
  expect(energyStores(board)[0]!.volts.nominal).toBeCloseTo(volts, 6);
});

test('a small capacitor of unknown rating is listed at 400 V and too little to hurt', () => {
  expect(energyStores(boardOf(mains, 'C1 x y 100n'))[0]).toMatchObject({ proof: false, volts: { nominal: 400 } });
});

test('a second board without a nameplate is judged by the unit’s', () => {
  const board = boardOf(undefined, 'XBD1 L N P Q BRIDGE', 'C1 P Q 100u vr=200');
  expect(energyStores(board)[0]!.volts.nominal).toBe(200);
  expect(energyStores(board, '2', mains)[0]!.volts.nominal).toBeCloseTo(264 * Math.SQRT2, 6);
});

const traced = (...lines: string[]): Board =>
  deriveBoard(
    boardOf(mains),
    lines.map((text, i) => {
      const read = readShorthand(text);
      if (!read.ok || !read.value) throw new Error(text);
      return { id: String(i), fact: read.value };
    }),
  ).board;

test.each([
  ['C5 104K a b', 100e-9, 0],
  ['C5 103J a b', 10e-9, 0],
  ['C5 "180uF 25V" a b', 180e-6, 0],
  ['C5 471 a b', 470e-12, 0],
  ['C5 180 a b', 18e-12, 180e-6],
  ['C5 180 a b is=18p', 18e-12, 0],
  ['C5 180 a b is=180u', 180e-6, 0],
])('%s: its value, and what else the marking may mean', (line, value, large) => {
  const [part] = traced(line).parts;
  expect((part as { value: number }).value).toBeCloseTo(value, 15);
  expect(sizeDoubt(part!)?.large ?? 0).toBeCloseTo(large, 12);
});

test('a coil marked 100K is 10 uH', () => {
  expect(traced('L1 100K a b').parts[0]).toMatchObject({ value: 1e-5 });
});

test('a figure that may be 180 uF is taken for that, and asked; once said it is no store', () => {
  const [store] = energyStores(traced('C5 180 a b'));
  expect(store).toMatchObject({ proof: true, doubts: [{ ref: 'C5', mark: '180', small: 18e-12 }] });
  expect(energyStores(traced('C5 180 a b', 'C5 is=18p')).some((s) => s.proof)).toBe(false);
});

test('a capacitor of which nothing is known, or nothing legible, asks for proof', () => {
  for (const line of ['C7 a b', 'C7 "?#" a b', 'C7 22 a b'])
    expect(energyStores(traced(line))[0]).toMatchObject({ refs: ['C7'], proof: true });
});

test.each([
  ['an empty board', [], true],
  ['the secondary alone', ['C8 OUT+ OUT- 1000u vr=35'], true],
  ['a bridge without its capacitor', ['XJ1 L N CONN', 'XBD1 L N P Q BRIDGE'], true],
  ['the bulk capacitor behind the bridge', ['XBD1 L N P Q BRIDGE', 'C1 P Q 100u vr=400'], false],
  ['one half of a doubler', ['XBD1 L N P Q BRIDGE', 'C1 P MID 100u vr=200'], false],
])('what is not traced is not empty: %s', (_name, lines, wanted) => {
  const board = boardOf(mains, ...lines);
  const found = untracedStore(board, '1', energyStores(board, '1'), true);
  expect(found !== null).toBe(wanted);
  if (found) expect(found).toMatchObject({ proof: true, refs: [], key: UNTRACED });
  if (found) expect(found.place).toMatch(/every large capacitor/u);
});

test('a further board asks by place when it shows no store at all', () => {
  const bare = boardOf(undefined, 'R1 a b 1k');
  expect(untracedStore(bare, '2', [], false, mains)).not.toBeNull();
  const full = boardOf(undefined, 'C1 a b 1000u vr=35');
  expect(untracedStore(full, '2', energyStores(full, '2'), false, mains)).toBeNull();
});

test.each([
  [264, 373.35],
  [132, 186.68],
  [90, 127.28],
])('behind the bridge, at %p V of line, stands its peak', (inputMax, volts) => {
  const board = boardOf({ ...mains, inputMax }, 'XBD1 L N P Q BRIDGE', 'C1 P Q 100u vr=100 esr=0.3');
  const [store] = energyStores(board);
  expect(store!.volts.nominal).toBeCloseTo(volts, 1);
  expect(store!.volts.why).toContain('1.414');
});

test('without a nameplate the rating bounds it, and without a rating 450 V are taken', () => {
  const rated = energyStores(boardOf(undefined, 'C1 a b 100u vr=450'))[0]!;
  expect(rated.volts).toMatchObject({ nominal: 450, basis: 'assumed' });
  const unrated = energyStores(boardOf(undefined, 'C1 a b 1000u'))[0]!;
  expect(unrated.volts).toMatchObject({ nominal: 450, basis: 'assumed' });
});

test('a DC input gives its own highest voltage to what stands across it, where that is above the rating', () => {
  const plate: Nameplate = { source: 'battery', inputRail: 'a', inputReturn: 'b', inputMax: 15 };
  expect(energyStores(boardOf(plate, 'C1 a b 4700u vr=10'))[0]!.volts).toMatchObject({ nominal: 15, basis: 'seen' });
  expect(energyStores(boardOf(plate, 'C1 a b 4700u vr=25'))[0]!.volts).toMatchObject({ nominal: 25 });
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
    const moment = { at: 1000, boot: 'one', uptime: 1 };
    const proof = { volts, moment, by: 'Bench A', meterProved: true };
    return judgeHazard([], [store!], () => proof, false, { ...moment, uptime: 2 }).stores[0]!.state;
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
