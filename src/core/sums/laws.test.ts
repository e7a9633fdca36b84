import { seededRandom } from '../quantity';
import { SUMS, runSum } from '.';

type Inputs = Readonly<Record<string, unknown>>;

function results(name: string, inputs: Inputs): Record<string, number> {
  const done = runSum(name, inputs);
  if (!done.ok) throw new Error(`${name}: ${done.problem.sentence}`);
  return done.value.results as unknown as Record<string, number>;
}

test('there are the thirty-one sums, each with a title, a formula, a source and units of its inputs', () => {
  expect(SUMS).toHaveLength(31);
  expect(new Set(SUMS.map((s) => s.name)).size).toBe(31);
  for (const sum of SUMS) {
    expect([sum.name, sum.title.length > 5, sum.formula.length > 5, sum.source.length > 3]).toEqual([
      sum.name,
      true,
      true,
      true,
    ]);
    for (const input of sum.inputs) expect(input.meaning).toMatch(/\w/u);
  }
});

describe('more of this gives more of that', () => {
  const rising = (
    name: string,
    base: Inputs,
    key: string,
    values: readonly number[],
    result: string,
    way: 1 | -1,
  ): void => {
    const found = values.map((v) => results(name, { ...base, [key]: v })[result]!);
    for (let i = 1; i < found.length; i++) expect(way * (found[i]! - found[i - 1]!)).toBeGreaterThan(0);
  };

  test.each<[string, Inputs, string, readonly number[], string, 1 | -1]>([
    ['stored-energy', { v: 325 }, 'c', [1e-6, 1e-5, 1e-4], 'energy', 1],
    ['discharge-time', { c: 1e-4, vStart: 325, vSafe: 5 }, 'r', [100, 1e3, 1e4], 'time', 1],
    ['bleeder', { c: 1e-4, r: 1e5 }, 'v', [70, 100, 325], 'timeTo60', 1],
    ['shock-current', { sourceR: 0, bodyR: 1000 }, 'v', [12, 48, 230], 'current', 1],
    ['lamp-limiter', { lampV: 230, mainsV: 230, loadW: 10 }, 'lampW', [25, 60, 100], 'hotShortCurrent', 1],
    ['bulk-ripple', { vac: 230, f: 50, p: 60 }, 'c', [4.7e-5, 1e-4, 2.2e-4], 'ripple', -1],
    ['bulk-ripple', { vac: 230, f: 50, c: 1e-4 }, 'p', [10, 30, 60], 'ripple', 1],
    ['bulk-ripple', { vac: 230, f: 50, p: 60 }, 'c', [4.7e-5, 1e-4, 2.2e-4], 'conductionAngle', -1],
    ['doubler-bulk', { vac: 115, f: 60, p: 100 }, 'c', [2.2e-4, 4.7e-4, 1e-3], 'ripple', -1],
    ['variac-rig', { ratio: 1, c: 1e-4, loadA: 0.05, f: 50 }, 'mainsMax', [100, 200, 260], 'dcMean', 1],
    ['divider-output', { vRef: 2.5, rBottom: 1e4 }, 'rTop', [0, 1e4, 5e4], 'vOut', 1],
    ['startup-time', { c: 22e-6, vBulk: 320, vOn: 16, iStart: 1e-5 }, 'r', [1e5, 3e5, 6e5], 'time', 1],
    ['buck-loss', { vIn: 24, iOut: 5, rds: 0.01, vf: 0.5 }, 'vOut', [3.3, 5, 12], 'lossDiode', -1],
    ['cap-life', { ratedHours: 2000, ratedTemp: 105 }, 'ambient', [40, 60, 85], 'hours', -1],
    ['creepage', { insulation: 'basic' }, 'workingV', [100, 230, 400, 900], 'creepageMm', 1],
    ['ring-q', { endRatio: 0.15 }, 'rings', [3, 6, 12], 'q', 1],
    ['flyback-stress', { vBulk: 320, vOut: 24, vf: 0.7, spike: 80 }, 'n', [2, 4, 8], 'vDs', 1],
    ['flyback-stress', { vBulk: 320, vOut: 24, vf: 0.7, spike: 80 }, 'n', [2, 4, 8], 'piv', -1],
  ])('%s', rising);
});

describe('sums that undo or contain each other agree', () => {
  const random = seededRandom(77);
  const between = (low: number, high: number): number => low * (high / low) ** random();

  test('a divider set to another voltage gives it, within the error that was stated', () => {
    for (let i = 0; i < 200; i++) {
      const [vRef, rTop, rBottom] = [between(0.6, 2.5), between(5e3, 1e5), between(1e3, 2e4)];
      const vTarget = vRef * between(1.3, 12);
      const modify = random() < 0.5 ? 'top' : 'bottom';
      const told = runSum('divider-retarget', { vRef, rTop, rBottom, vTarget, modify });
      if (!told.ok) throw new Error(told.problem.sentence);
      const { method, e96 } = told.value.results as unknown as {
        method: string;
        e96: { value: number; vOut: number; error: number };
      };
      const own = modify === 'top' ? rTop : rBottom;
      const changed = method === 'parallel' ? (own * e96.value) / (own + e96.value) : own + e96.value;
      const after = results('divider-output', {
        vRef,
        rTop: modify === 'top' ? changed : rTop,
        rBottom: modify === 'top' ? rBottom : changed,
      });
      expect(after['vOut']! / vTarget - 1).toBeCloseTo(e96.error, 9);
      expect(Math.abs(e96.error)).toBeLessThan(0.03);
    }
  });

  test('a lock-out falls where a plain divider says, and hysteresis is what it is', () => {
    for (let i = 0; i < 100; i++) {
      const vTh = between(0.6, 2.5);
      const vRise = vTh * between(3, 12);
      const r = results('uvlo-divider', {
        vTh,
        vRise,
        vHyst: 0.1 * vRise,
        series: 'E96',
        vBrownOut: 0.7 * vRise,
        rBottom: between(1e3, 2e4),
      });
      const plain = results('divider-output', { vRef: vTh, rTop: r['rTop']!, rBottom: r['rBottom']! });
      expect(plain['vOut']!).toBeCloseTo(r['vFall']!, 9);
      expect(r['vRise']! - r['vFall']!).toBeCloseTo(r['hysteresis']!, 9);
      expect(Math.abs(r['vRise']! / vRise - 1)).toBeLessThan(0.06);
    }
  });

  test('the energy of a discharge is the difference of what was stored; a lamp is its resistance', () => {
    const stored = (v: number): number => results('stored-energy', { c: 1e-4, v })['energy']!;
    const lamp = results('discharge-time', { c: 1e-4, vStart: 325, vSafe: 5, lampW: 60, lampV: 230 });
    const resistor = results('discharge-time', { c: 1e-4, vStart: 325, vSafe: 5, r: (230 * 230) / 60 });
    expect(lamp).toEqual(resistor);
    expect(lamp['energy']!).toBeCloseTo(stored(325) - stored(5), 9);
  });

  test('ripple of a light load nears the rough figure, and energy is balanced over the half-wave', () => {
    const light = results('bulk-ripple', { vac: 230, f: 50, c: 1e-3, p: 5, vf: 0 });
    expect(light['ripple']! / light['rippleRough']!).toBeGreaterThan(0.9);
    expect(light['ripple']!).toBeLessThan(light['rippleRough']!);
    const heavy = results('bulk-ripple', { vac: 230, f: 50, c: 1e-4, p: 100 });
    expect(heavy['vAvg']!).toBeGreaterThan(heavy['vMin']!);
    expect(heavy['vAvg']!).toBeLessThan(heavy['vMax']!);
  });

  test('a controller reaches its start in the time told, stepped by hand', () => {
    const inputs = { r: 4e5, c: 22e-6, vBulk: 320, vOn: 16, iStart: 5e-5 };
    let [v, t] = [0, 0];
    const dt = 1e-5;
    while (v < inputs.vOn) {
      v += (dt * ((inputs.vBulk - v) / inputs.r - inputs.iStart)) / inputs.c;
      t += dt;
    }
    expect(results('startup-time', inputs)['time']! / t).toBeCloseTo(1, 3);
  });
});

describe('what each sum refuses names the input', () => {
  test.each<[string, Inputs, string]>([
    ['lamp-limiter', { lampW: 60, lampV: 230, mainsV: 230, loadW: 10, coldRatio: 0.5 }, 'coldRatio'],
    ['snubber', { c: 1e-9, v: 300, f: 1e5, r: 100, type: 'rl' }, 'type'],
    ['creepage', { workingV: 1200, insulation: 'basic' }, 'workingV'],
    ['creepage', { workingV: 230, insulation: 'thick' }, 'insulation'],
    ['cap-bank-outlier', { readings: [1e-6, 2e-6], nominal: 1e-6 }, 'readings'],
    ['cap-bank-outlier', { readings: [1e-6, -2e-6, 1e-6], nominal: 1e-6 }, 'readings'],
    ['uvlo-divider', { vTh: 1, vRise: 8, vHyst: 1, series: 'E24', vBrownOut: 6 }, 'rBottom'],
    ['uvlo-divider', { vTh: 1, vRise: 8, vHyst: 7.5, series: 'E24', vBrownOut: 6, rBottom: 1e4 }, 'vHyst'],
    ['sense-start', { vBe: 0.65, iMin: 1, iMax: 0.5, vDropMax: 1 }, 'iMax'],
    ['startup-time', { r: 1e5, c: 1e-5, vBulk: 10, vOn: 16, iStart: 0 }, 'vOn'],
    ['sag', { vNominal: 12, vMin: 13, iStep: 1 }, 'vMin'],
    ['doubler-bulk', { vac: 0.5, f: 50, c: 1e-4, p: 1, vf: 1 }, 'vac'],
  ])('%s %j: %s', (name, inputs, key) => {
    expect(runSum(name, inputs)).toMatchObject({ ok: false, problem: { code: 'bad-input', details: { key } } });
  });
});

test('a result that does not exist is null, never NaN or Infinity', () => {
  const odd: readonly (readonly [string, Inputs])[] = [
    ['lamp-limiter', { lampW: 60, lampV: 230, mainsV: 230, loadW: 0 }],
    ['converter-input', { vIn: 5, vOut: 12, iOut: 1, efficiency: 0.9 }],
    ['startup-time', { r: 1e6, c: 1e-5, vBulk: 100, vOn: 16, iStart: 1e-3 }],
    ['bulk-ripple', { vac: 90, f: 50, c: 1e-6, p: 100 }],
    ['doubler-bulk', { vac: 90, f: 50, c: 1e-6, p: 100 }],
    ['uvlo-divider', { vTh: 1, vRise: 8, vHyst: 0, series: 'E24', vBrownOut: 6, rBottom: 1e4 }],
  ];
  for (const [name, inputs] of odd) {
    for (const [key, value] of Object.entries(results(name, inputs))) {
      if (typeof value === 'number') expect([name, key, Number.isFinite(value)]).toEqual([name, key, true]);
    }
  }
});
