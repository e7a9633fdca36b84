import { seededRandom } from '../quantity';
import type { Unit } from '../quantity';
import { SUMS, SUM_TITLES, runSum } from '.';
import type { SumDefinition, SumDone, SumGiven, SumInput } from '.';

/** Laws that hold for every sum alike: units, rules of the inputs, finiteness, limits. */

type Given = Readonly<Record<string, SumGiven>>;

function done(sum: SumDefinition, given: Given): SumDone {
  const run = runSum(sum.name, given);
  if (!run.ok) throw new Error(`${sum.name}: ${run.problem.sentence}`);
  return run.value;
}

/** What a unit becomes when volts, amperes and seconds are counted in units of a, b and t. */
function scaleOf(unit: Unit, a: number, b: number, t: number): number {
  const scales: Readonly<Record<Unit, number>> = {
    V: a,
    A: b,
    s: t,
    ohm: a / b,
    W: a * b,
    J: a * b * t,
    C: b * t,
    F: (b * t) / a,
    H: (a * t) / b,
    Hz: 1 / t,
    cycles: 1,
    '1': 1,
  };
  return scales[unit];
}

/** Sums that hold a fixed figure of their own (limits in volts, tables, preferred values), by what of them it touches. */
const FIXED: Readonly<Record<string, readonly string[] | 'all'>> = {
  bleeder: ['timeTo60', 'timeTo5'],
  creepage: 'all',
  'battery-life': 'all',
  'uvlo-divider': 'all',
  'divider-retarget': ['e12', 'e24', 'e96'],
};

const scaled = (value: SumGiven, by: number): SumGiven =>
  typeof value === 'number' ? value * by : typeof value === 'string' ? value : value.map((v) => v * by);

describe('units: counted in other units the same circuit gives the same answer', () => {
  test.each(SUMS.filter((s) => FIXED[s.name] !== 'all').map((s) => [s.name, s] as const))('%s', (name, sum) => {
    const withPresets: Record<string, SumGiven> = { ...sum.example };
    for (const i of sum.inputs)
      if (withPresets[i.key] === undefined && i.preset !== undefined && !i.words) withPresets[i.key] = i.preset;
    const plain = done(sum, withPresets).results;
    for (const [a, b, t] of [
      [2, 1, 1],
      [1, 3, 1],
      [1, 1, 5],
      [1.7, 0.4, 0.3],
    ] as const) {
      const given = Object.fromEntries(
        sum.inputs.flatMap((i) =>
          withPresets[i.key] === undefined ? [] : [[i.key, scaled(withPresets[i.key]!, scaleOf(i.unit, a, b, t))]],
        ),
      );
      const other = done(sum, given).results;
      for (const [key, value] of Object.entries(plain)) {
        if (typeof value !== 'number' || (FIXED[name] as readonly string[] | undefined)?.includes(key)) continue;
        const wanted = value * scaleOf(sum.resultUnits[key] ?? '1', a, b, t);
        const off = Math.abs((other[key] as number) - wanted) / Math.max(1e-30, Math.abs(wanted));
        // A periodic state is found by stepping: it agrees to its own accuracy.
        expect([key, off < (name === 'doubler-bulk' ? 1e-4 : 1e-6)]).toEqual([key, true]);
      }
    }
  });
});

/** A value outside an input's rule. */
function outside(input: SumInput): unknown {
  if (input.words) return 'neither';
  if (input.numbers) return 77;
  const bad = {
    positive: 0,
    'non-negative': -1,
    any: Number.POSITIVE_INFINITY,
    'fraction-below-one': 1,
    'fraction-above-zero': 0,
  }[input.rule];
  return input.list ? [1e-6, 2e-6, bad] : bad;
}

const inputs = SUMS.flatMap((sum) => sum.inputs.map((input) => [sum.name, input.key, sum, input] as const));

describe('every input of every sum is refused by its name', () => {
  test.each(inputs)('%s %s outside its rule, of another kind, or not a number', (_name, key, sum, input) => {
    for (const wrong of [outside(input), ...(input.words ? [] : ['plenty', Number.NaN, true, {}])]) {
      const run = runSum(sum.name, { ...sum.example, [key]: wrong });
      expect([String(wrong), run.ok]).toEqual([String(wrong), false]);
      if (!run.ok) expect(run.problem).toMatchObject({ code: 'bad-input', details: { key } });
    }
  });
  test.each(inputs.filter(([, , , i]) => !i.optional && i.preset === undefined))('%s without %s', (_name, key, sum) => {
    const given = Object.fromEntries(Object.entries(sum.example).filter(([k]) => k !== key));
    expect(runSum(sum.name, given)).toMatchObject({
      ok: false,
      problem: { code: 'bad-input', details: { key }, sentence: expect.stringContaining(key) as string },
    });
  });
  test.each(SUMS.map((s) => [s.name, s] as const))('%s with an input it has not', (_name, sum) => {
    expect(runSum(sum.name, { ...sum.example, nonsense: 1 })).toMatchObject({
      ok: false,
      problem: { details: { key: 'nonsense' } },
    });
  });
});

/** A random value within an input's rule, over many decades. */
function within(input: SumInput, around: SumGiven | undefined, random: () => number): SumGiven {
  if (input.words) return input.words[Math.floor(random() * input.words.length)]!;
  if (input.numbers) return input.numbers[Math.floor(random() * input.numbers.length)]!;
  const middle = typeof around === 'number' && around > 0 ? around : 1;
  const one = (): number => {
    switch (input.rule) {
      case 'fraction-below-one':
        return random() * 0.999;
      case 'fraction-above-zero':
        return 1 - random() * 0.999;
      case 'any':
        return (random() - 0.5) * 200;
      default:
        return input.rule === 'non-negative' && random() < 0.1 ? 0 : middle * 10 ** (4 * (random() - 0.5));
    }
  };
  return input.list ? Array.from({ length: 3 + Math.floor(random() * 6) }, () => 470e-6 * (0.5 + random())) : one();
}

function finite(value: unknown): boolean {
  if (typeof value === 'number') return Number.isFinite(value);
  if (Array.isArray(value)) return value.every(finite);
  return value === null || typeof value !== 'object' || Object.values(value).every(finite);
}

describe('whatever is given within the rules is done or refused, never NaN or Infinity', () => {
  test.each(SUMS.map((s) => [s.name, s] as const))('%s', (name, sum) => {
    const random = seededRandom(name.length * 1009 + name.charCodeAt(0));
    let worked = 0;
    for (let round = 0; round < 120; round++) {
      const given = Object.fromEntries(
        sum.inputs
          .filter((i) => !(i.optional && sum.example[i.key] === undefined))
          .map((i) => [i.key, within(i, sum.example[i.key], random)]),
      );
      const run = runSum(name, given);
      if (!run.ok) {
        expect(sum.inputs.map((i) => i.key)).toContain((run.problem.details as { key: string }).key);
        continue;
      }
      worked++;
      expect([JSON.stringify(given), finite(run.value.results)]).toEqual([JSON.stringify(given), true]);
      expect(run.value.cautions.every((c) => c.length > 10)).toBe(true);
    }
    expect(worked).toBeGreaterThan(10);
  });
});

describe('more of this never gives less of that', () => {
  test.each<[string, string, string, 1 | -1]>([
    ['stored-energy', 'v', 'energy', 1],
    ['discharge-time', 'vStart', 'peakPower', 1],
    ['discharge-time', 'vSafe', 'time', -1],
    ['bleeder', 'r', 'power', -1],
    ['shock-current', 'bodyR', 'current', -1],
    ['lamp-limiter', 'loadW', 'loadV', -1],
    ['lamp-limiter', 'lampW', 'loadV', 1],
    ['precharge', 'r', 'timeTo95', 1],
    ['precharge', 'r', 'peakCurrent', -1],
    ['pulse-energy', 'f', 'power', 1],
    ['mains-peak', 'vf', 'dcPeak', -1],
    ['bulk-ripple', 'p', 'vAvg', -1],
    ['doubler-bulk', 'p', 'vMin', -1],
    ['doubler-bulk', 'vac', 'vAvg', 1],
    ['variac-rig', 'loadA', 'dcTrough', -1],
    ['divider-output', 'rBottom', 'vOut', -1],
    ['divider-output', 'tolTop', 'vMax', 1],
    ['divider-output', 'tolTop', 'vMin', -1],
    ['divider-retarget', 'vTarget', 'wanted', -1],
    ['uvlo-divider', 'vBrownOut', 'margin', -1],
    ['aux-sense', 'nS', 'vOut', 1],
    ['aux-sense', 'nA', 'vOut', -1],
    ['sense-peak', 'rSense', 'iPeak', -1],
    ['sense-peak', 'tDelay', 'iPeak', 1],
    ['sense-start', 'iMin', 'rMin', -1],
    ['sense-start', 'vDropMax', 'rMax', 1],
    ['flyback-power', 'iPeak', 'pOut', 1],
    ['flyback-stress', 'spike', 'vDs', 1],
    ['buck-loss', 'vf', 'lossDiode', 1],
    ['buck-loss', 'rds', 'effSync', -1],
    ['converter-input', 'efficiency', 'iIn', -1],
    ['startup-time', 'iStart', 'time', 1],
    ['turns-from-volts', 'vs', 'ratio', -1],
    ['resistor-heat', 'vIn', 'power', 1],
    ['resistor-heat', 'pRated', 'vInMax', 1],
    ['snubber', 'f', 'power', 1],
    ['cap-life', 'rippleRise', 'years', -1],
    ['creepage', 'workingV', 'creepageMm', 1],
    ['cap-bank-outlier', 'nominal', 'median', 1],
    ['ring-q', 'endRatio', 'q', 1],
    ['sag', 'vMin', 'sag', -1],
    ['battery-life', 'idleA', 'hours', -1],
  ])('%s: %s on %s', (name, key, result, way) => {
    const sum = SUMS.find((s) => s.name === name)!;
    const base = Number(sum.example[key] ?? sum.inputs.find((i) => i.key === key)!.preset);
    const found: number[] = [];
    for (const factor of [0.8, 0.9, 0.97, 1, 1.03]) {
      const run = runSum(name, { ...sum.example, [key]: base === 0 ? factor / 10 : base * factor });
      if (run.ok && typeof run.value.results[result] === 'number') found.push(run.value.results[result]);
    }
    expect(found.length).toBeGreaterThan(3);
    for (let i = 1; i < found.length; i++)
      expect(way * (found[i]! - found[i - 1]!)).toBeGreaterThanOrEqual(-1e-9 * Math.abs(found[i]!));
  });
});

describe('limits', () => {
  const result = (name: string, given: Given, key: string): unknown =>
    done(
      SUMS.find((s) => s.name === name)!,
      given,
    ).results[key];
  const number = (name: string, given: Given, key: string): number => result(name, given, key) as number;

  test('nothing to come down: no time, no energy', () => {
    const given = { c: 1e-4, vStart: 5, vSafe: 60, r: 1e3 };
    expect([number('discharge-time', given, 'time'), number('discharge-time', given, 'energy')]).toEqual([0, 0]);
    expect(number('bleeder', { c: 1e-4, r: 1e5, v: 4 }, 'timeTo5')).toBe(0);
  });
  test('a lamp far larger than the load lets nearly all the mains through; a small one nearly none', () => {
    const at = (lampW: number): number =>
      number('lamp-limiter', { lampW, lampV: 230, mainsV: 230, loadW: 100 }, 'loadV');
    expect(at(1e5)).toBeGreaterThan(229);
    expect(at(1)).toBeLessThan(3);
  });
  test('the most power a lamp passes is reached where the load has its resistance', () => {
    const given = { lampW: 100, lampV: 230, mainsV: 230, loadW: 100 };
    expect(number('lamp-limiter', given, 'loadPower')).toBeCloseTo(number('lamp-limiter', given, 'maxLoadPower'), 9);
    // A constant-power load of that much sits at half the mains.
    const most = number('lamp-limiter', given, 'maxLoadPower');
    expect(number('lamp-limiter', { ...given, loadW: most }, 'constantPowerV')).toBeCloseTo(115, 3);
    expect(result('lamp-limiter', { ...given, loadW: most * 1.01 }, 'constantPowerV')).toBeNull();
  });
  test('without upper resistor a divider gives its reference', () => {
    expect(number('divider-output', { vRef: 2.5, rTop: 0, rBottom: 1e4 }, 'vOut')).toBe(2.5);
    expect(number('divider-output', { vRef: 2.5, rTop: 1e4, rBottom: 1e4 }, 'vMax')).toBe(5);
  });
  test('without hysteresis a lock-out starts where it stops', () => {
    const given = { vTh: 1.2, vRise: 9, vHyst: 0, series: 'E96', vBrownOut: 7, rTotal: 1e5 };
    expect(number('uvlo-divider', given, 'vRise')).toBe(number('uvlo-divider', given, 'vFall'));
    expect(result('uvlo-divider', given, 'rHyst')).toBeNull();
  });
  test('no drop, no delay, no blanking: the limit is the limit', () => {
    const given = { vCs: 0.5, rSense: 0.25, vBulk: 300, l: 1e-3 };
    expect(number('sense-peak', given, 'iPeak')).toBe(2);
    expect(result('sense-peak', { ...given, tBlank: 1e-4 }, 'blankingRules')).toBe(true);
  });
  test('perfect switches lose nothing, a perfect converter takes what it gives', () => {
    expect(number('buck-loss', { vIn: 12, vOut: 5, iOut: 3, rds: 0, vf: 0.5 }, 'effSync')).toBe(1);
    expect(number('converter-input', { vIn: 12, vOut: 5, iOut: 3, efficiency: 1 }, 'loss')).toBe(0);
  });
  test('at its rated temperature a capacitor lives its rated hours; ten degrees less, twice', () => {
    expect(number('cap-life', { ratedHours: 2000, ratedTemp: 105, ambient: 105 }, 'hours')).toBe(2000);
    expect(number('cap-life', { ratedHours: 2000, ratedTemp: 105, ambient: 95 }, 'hours')).toBe(4000);
  });
  test('through a diode a snubber’s resistor takes half', () => {
    const given = { c: 1e-9, v: 300, f: 1e5, r: 100 };
    expect(number('snubber', { ...given, type: 'rcd' }, 'power')).toBeCloseTo(
      number('snubber', { ...given, type: 'rc' }, 'power') / 2,
      12,
    );
  });
  test('at the highest input within the derating the power is exactly that', () => {
    const given = { r: 1500, pRated: 0.25, vz: 2 };
    const vIn = number('resistor-heat', { ...given, vIn: 10 }, 'vInMax');
    expect(number('resistor-heat', { ...given, vIn }, 'power')).toBeCloseTo(0.6 * 0.25, 12);
    expect(result('resistor-heat', { ...given, vIn: vIn * 1.001 }, 'withinDerating')).toBe(false);
  });
  test('the resistor that just starts a controller takes for ever; a little less starts it', () => {
    const given = { c: 22e-6, vBulk: 320, vOn: 16, iStart: 2e-4 };
    const most = number('startup-time', { ...given, r: 1e5 }, 'rMax');
    expect(result('startup-time', { ...given, r: most * 1.0001 }, 'time')).toBeNull();
    expect(number('startup-time', { ...given, r: most * 0.999 }, 'time')).toBeGreaterThan(3.5 * most * given.c);
  });
  test('a bank of equals has no odd one; one that differs is it', () => {
    const bank = (readings: readonly number[]): unknown =>
      result('cap-bank-outlier', { readings, nominal: 470e-6 }, 'outliers');
    expect(bank([470e-6, 470e-6, 470e-6])).toEqual([]);
    expect(bank([470e-6, 470e-6, 470e-6, 47e-6])).toEqual([3]);
    expect(result('cap-bank-outlier', { readings: [470e-6, 468e-6, 47e-6], nominal: 470e-6 }, 'decadeSlips')).toEqual([
      2,
    ]);
  });
  test('what is stored is what a pulse gives, and what a precharge costs', () => {
    const [c, v] = [33e-6, 610];
    const stored = number('stored-energy', { c, v }, 'energy');
    expect(number('pulse-energy', { c, v, f: 1 }, 'power')).toBeCloseTo(stored, 12);
    expect(number('precharge', { vPeak: v, r: 47, c }, 'energyR')).toBeCloseTo(stored, 12);
  });
  test('a rig without load stands at the peak of its mains', () => {
    const rig = number('variac-rig', { mainsMax: 230, ratio: 1, c: 1e-4, loadA: 0, f: 50 }, 'dcMean');
    expect(rig).toBeCloseTo(number('mains-peak', { vrms: 230 }, 'dcPeak'), 9);
  });
  test('a doubler lightly loaded stands at twice a single peak', () => {
    const light = number('doubler-bulk', { vac: 115, f: 60, c: 1e-3, p: 0.5 }, 'vAvg');
    expect(light / number('doubler-bulk', { vac: 115, f: 60, c: 1e-3, p: 0.5 }, 'vNoLoad')).toBeGreaterThan(0.99);
  });
  test('reinforced asks for twice the distance of basic, in every row', () => {
    for (const workingV of [50, 125, 126, 250, 400, 640, 1000]) {
      const basic = number('creepage', { workingV, insulation: 'basic' }, 'creepageMm');
      expect(number('creepage', { workingV, insulation: 'reinforced' }, 'creepageMm')).toBe(2 * basic);
    }
  });
});

test('what names a sum without working it out calls it what the sum calls itself', () => {
  expect(SUM_TITLES).toEqual(Object.fromEntries(SUMS.map((s) => [s.name, s.title])));
});
