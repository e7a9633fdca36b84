import { atOnce } from '../problem';
import { normalCdf, seededRandom } from '../quantity';
import { readNetlist } from '../netlist';
import { probe, solverFor } from '../meter';
import { netKey } from '../circuit';
import { parseFault } from '../fault';
import { FAULT_MODES } from './faultModes';
import { binOutcomes, expectedGain } from './nextReading';
import { KIND_WEIGHTS } from './priors';
import { circuitKey } from './sameCircuit';
import {
  alsoCheck,
  buildDictionary,
  buildWholeDictionary,
  coordinate,
  Diagnoser,
  distinguishable,
  buildFirstLook,
  joinParts,
  LINKED_FAULTS,
  listHypotheses,
  logLikelihood,
  mistakeChance,
  outcomeSpread,
  partOf,
  pointKey,
  posterior,
  probePairs,
  readingSeconds,
  scaleOf,
} from '.';
import type { FaultDictionary } from '.';

const LINES = [
  'small flyback front end',
  'XJ1 L N CONN',
  'XF1 L LF FUSE ir=2 vr=250 mark=T2AL250V',
  'XRV1 LF N MOV vr=300',
  'XBD1 LF N HV+ HV- BRIDGE vr=600 ir=2',
  'C1 HV+ HV- 47uF vr=450 esr=0.5 mark="47uF 450V"',
  'LT1 HV+ D 1m dcr=1',
  'M1 D G S MM',
  'R1 S HV- 1 pr=1',
  'R2 DRV G 22',
  'R3 G HV- 10k',
  'XU1 HV- DRV CS VCC CTRL',
  'R4 S CS 470',
  'D1 D CL DD',
  'R5 CL HV+ 47k',
  '.subckt CTRL 1 2 3 4',
  'D1 1 2 DD',
  'D2 1 3 DD',
  'D3 1 4 DD',
  'R1 4 1 60k',
  '.ends',
  '.model MM NMOS(VTO=3.5 KP=5 RON=1)',
  '.model DD D(IS=3n N=1.8)',
];
const read = readNetlist(LINES.join('\n'));
if (!read.ok) throw new Error('fixture');
const board = {
  ...read.value.board,
  nameplate: { source: 'mains', inputRail: 'L', inputReturn: 'N', inputMax: 264 } as const,
};
const hypotheses = listHypotheses(board);
const dictionary = buildWholeDictionary(board, hypotheses);
const labels = hypotheses.map((h) => h.label);

test('tables are sound: every share and weight is positive, every mode is there once', () => {
  for (const [kind, modes] of Object.entries(FAULT_MODES)) {
    expect(KIND_WEIGHTS[kind as keyof typeof KIND_WEIGHTS].weight).toBeGreaterThan(0);
    expect(new Set(modes.map((m) => m.mode)).size).toBe(modes.length);
    for (const m of modes) expect(m.share).toBeGreaterThan(0);
  }
  for (const rule of LINKED_FAULTS) for (const t of rule.takes) expect(t.share > 0 && t.share <= 1).toBe(true);
});

test('single faults by kind of part, and linked ones by role', () => {
  for (const wanted of [
    'none',
    'R1:open',
    'R2:value=66',
    'C1:short',
    'M1:short(d,s)',
    'M1.g:open',
    'BD1:short(ac1,plus)',
    'F1:open',
    'RV1:short',
    'U1:short(1,2)',
  ]) {
    expect(labels).toContain(wanted);
  }
  for (const wanted of [
    'RV1:short+F1:open',
    'C1:short+F1:open',
    'M1:short(d,s)+F1:open',
    'M1:short(d,s)+R1:open',
    'M1:short(d,s)+R2:open',
    'M1:short(d,s)+F1:open+R1:open',
    'D1:short+F1:open',
  ]) {
    expect(labels).toContain(wanted);
  }
  expect(labels.some((l) => /^M1:short\(d,s\)\+U1:leak\(1,2\)=150$/u.test(l))).toBe(true);
  expect(labels.some((l) => /^M1:short\(d,s\)\+U1:leak\(1,3\)=150$/u.test(l))).toBe(true);
  expect(new Set(labels).size).toBe(labels.length);
});

test('shorts of the supply path are known as such, and only those', () => {
  const shorts = hypotheses.filter((h) => h.short === 'input').map((h) => h.label);
  for (const wanted of ['RV1:short', 'C1:short', 'M1:short(d,s)', 'BD1:short(ac1,plus)', 'BD1:short(plus,minus)'])
    expect(shorts).toContain(wanted);
  for (const other of ['R1:short', 'F1:open', 'M1:short(g,s)', 'R3:open', 'D1:open'])
    expect(shorts).not.toContain(other);
});

test('a symptom reweighs: a blown fuse makes shorts likelier, a hiccup makes them unlikely', () => {
  const share = (symptoms: Parameters<typeof listHypotheses>[1]): number => {
    const list = listHypotheses(board, symptoms);
    const total = list.reduce((s, h) => s + h.weight, 0);
    return list.filter((h) => h.short === 'input').reduce((s, h) => s + h.weight, 0) / total;
  };
  expect(share(['fuse-blows'])).toBeGreaterThan(share([]) * 1.2);
  expect(share(['hiccup'])).toBeLessThan(share([]) * 0.5);
});

test('every point lies across some part, once', () => {
  const pairs = probePairs(board);
  const keys = pairs.map(({ a, b }) => [netKey(a), netKey(b)].sort().join(' '));
  expect(new Set(keys).size).toBe(keys.length);
  expect(keys).toContain('d s');
  expect(dictionary.points.length).toBeLessThanOrEqual(4 * pairs.length);
});

test('what the dictionary skipped reads as on the healthy board: every entry equals its own full solve', () => {
  const off: string[] = [];
  const random = seededRandom(11);
  hypotheses.forEach((h, i) => {
    if (random() > 0.4) return;
    const solver = solverFor(board, h.faults);
    for (const p of dictionary.points) {
      const node = (net: string): number => solver.network.nodeOfNet.get(netKey(net))!;
      const full = probe(solver, p.mode, node(p.red), node(p.black));
      if (!full.ok) continue;
      const raw = p.raws[p.classOf[i]!]!;
      const limit = p.mode === 'diode' ? 2.5 : 60e6;
      const tolerance = p.mode === 'diode' ? 0.002 : 0.005 * full.value.raw + 0.01;
      if (!(raw >= limit && full.value.raw >= limit) && !(Math.abs(raw - full.value.raw) <= tolerance))
        off.push(`${h.label} ${pointKey(p)} ${raw} ${full.value.raw}`);
    }
  });
  expect(off).toEqual([]);
  expect(dictionary.counts.skipped).toBeGreaterThan(0);
});

test('the dictionary grows hypothesis by hypothesis, and what there is of it on the way is what there will be at the end', () => {
  const some = hypotheses.slice(0, 30);
  const steps = buildDictionary(board, some);
  const worked: number[] = [];
  let half: FaultDictionary | null = null;
  let whole: FaultDictionary | null = null;
  while (!whole) {
    const step = steps.next();
    if (step.done) whole = step.value;
    else {
      worked.push(step.value.done);
      expect(step.value.of).toBe(30);
      if (step.value.done === 15) half = step.value.snapshot();
    }
  }
  expect(worked).toEqual(worked.map((_, i) => i + 2));
  expect([half!.left, whole.left]).toEqual([15, 0]);
  expect(whole.hypotheses).toEqual(some);
  expect(half!.hypotheses).toHaveLength(15);
  half!.points.forEach((p, i) =>
    half!.hypotheses.forEach((h, k) => {
      const there = whole.points[i]!;
      expect(p.raws[p.classOf[k]!]).toBe(there.raws[there.classOf[whole.hypotheses.indexOf(h)]!]);
    }),
  );
  // The likeliest come first.
  const left = whole.hypotheses.filter((h) => !half!.hypotheses.includes(h) && h.faults.length === 1);
  expect(Math.max(...left.map((h) => h.weight))).toBeLessThan(
    Math.max(...half!.hypotheses.slice(1).map((h) => h.weight)),
  );
});

test('a first look is small, and nothing is called by it', () => {
  const first = atOnce(buildFirstLook(board, hypotheses));
  expect(first.hypotheses[0]!.label).toBe('none');
  expect(first.hypotheses.length).toBeLessThanOrEqual(25);
  expect(first.left).toBe(hypotheses.length - first.hypotheses.length);
  expect(first.points.length).toBeGreaterThan(10);
  const d = new Diagnoser(first);
  expect(d.plan(d.standing([]), 3).length).toBeGreaterThan(0);
  const short = first.points.find((p) => p.mode === 'ohms' && p.raws.some((r) => r < 1) && p.raws[0]! > 1000)!;
  const { mode, red, black } = short;
  const seen = { kind: 'figure', value: 0.1 } as const;
  const readings = Array.from({ length: 4 }, () => ({ mode, red, black, seen }));
  expect(d.standing(readings).suspects[0]!.probability).toBeGreaterThan(0.9);
  expect(d.diagnose(readings).verdict).toBe('open');
});

test('probabilities come from log weights without overflow, and nothing left is said so', () => {
  const out = new Float64Array(3);
  expect(posterior(Float64Array.from([-1e5, -1e5 + Math.log(3), -Infinity]), out).ok).toBe(true);
  expect([...out]).toEqual([expect.closeTo(0.25, 9), expect.closeTo(0.75, 9), 0]);
  expect(posterior(Float64Array.from([-Infinity, -Infinity]), new Float64Array(2))).toMatchObject({
    problem: { code: 'impossible-evidence' },
  });
  expect(() => posterior(Float64Array.from([NaN]), new Float64Array(1))).toThrow();
});

test('the likelihood of a figure is a density: it sums to one with overload', () => {
  for (const [mode, raw, sigma] of [
    ['diode', 0.5, 0.02],
    ['diode', 2.45, 0.1],
    ['ohms', 4700, 200],
    ['ohms', 50e6, 2e7],
  ] as const) {
    const spread = outcomeSpread(mode, raw, sigma);
    const [from, to] = mode === 'diode' ? [0, 2.5] : [0, Math.log(60e6)];
    let sum = Math.exp(logLikelihood(scaleOf(mode), spread, spread, { kind: 'overload' }));
    const steps = 20_000;
    for (let k = 0; k < steps; k++) {
      const x = from + ((to - from) * (k + 0.5)) / steps;
      const value = mode === 'diode' ? x : Math.exp(x) - 1;
      sum += (Math.exp(logLikelihood(scaleOf(mode), spread, spread, { kind: 'figure', value })) * (to - from)) / steps;
    }
    // The tail beyond the range's end is told as overload: a few percent may be counted on both sides.
    expect(Math.abs(sum - 1)).toBeLessThan(0.5);
    expect(coordinate(mode, raw)).toBeCloseTo(mode === 'diode' ? raw : Math.log(raw + 1), 9);
  }
});

test('the normal distribution function is right to 2e-7', () => {
  for (const [z, p] of [
    [0, 0.5],
    [1, 0.8413447],
    [-1.96, 0.0249979],
    [3, 0.9986501],
  ] as const)
    expect(Math.abs(normalCdf(z) - p)).toBeLessThan(2e-7);
});

test('the chance of a mistake is half of what two predictions share', () => {
  const at = (mean: number, sigma = 0.1, overload = 0) => ({ mean, sigma, overload });
  // Two alike of one sigma: Φ(-d/2), by the table of the normal distribution.
  for (const [distance, chance] of [
    [0, 0.5],
    [2, 0.1586553],
    [4, 0.0227501],
    [5.5, 0.0029798],
    [6, 0.0013499],
  ] as const)
    expect(mistakeChance(at(1), at(1 + 0.1 * distance))).toBeCloseTo(chance, 3);
  expect(mistakeChance(at(1), at(1, 0.1, 1))).toBe(0);
  expect(mistakeChance(at(1, 0.1, 1), at(9, 0.1, 1))).toBe(0.5);
  expect(mistakeChance(at(1, 0.1, 0.5), at(9, 0.1, 0.5))).toBeCloseTo(0.25, 6);
  // A broad one hides a narrow one only as far as it lies under it: 2 / 1 standard widths of 0.01 under a density of 0.4.
  expect(mistakeChance(at(0, 1), at(0, 0.001))).toBeLessThan(0.006);
  expect(mistakeChance(at(0, 1), at(0, 0.001))).toBeCloseTo(mistakeChance(at(0, 0.001), at(0, 1)), 6);
  expect(distinguishable(at(1), at(1.5))).toBe(false);
  expect(distinguishable(at(1), at(1.6))).toBe(true);
});

test('either range counts by its own chance, and what hangs on leakage has long tails', () => {
  const spread = outcomeSpread('ohms', 1e4, 100, { ohms: 2e4, sigma: 200, chance: 0.25 });
  expect(spread.modes!.map((m) => m.weight)).toEqual([0.75, 0.25]);
  const likely = (value: number) => logLikelihood(scaleOf('ohms'), spread, spread, { kind: 'figure', value });
  expect(likely(1e4) - likely(2e4)).toBeCloseTo(Math.log(3), 1);
  // Halfway between the two nothing is read.
  expect(likely(1.41e4)).toBeLessThan(likely(2e4) - 3);
  const leaking = outcomeSpread('ohms', 3e6, 6e5);
  expect(leaking.modes!.reduce((sum, m) => sum + m.weight, 0)).toBeCloseTo(1, 12);
  const far = (value: number) => logLikelihood(scaleOf('ohms'), leaking, leaking, { kind: 'figure', value });
  expect(far(7e6)).toBeGreaterThan(far(7e7));
});

test('information is never negative, at most the entropy of the suspects, and nothing when they agree', () => {
  const bins = binOutcomes(dictionary);
  const n = hypotheses.length;
  const work = new Float64Array(n);
  const random = seededRandom(5);
  const p = Float64Array.from({ length: n }, () => random());
  const total = p.reduce((a, b) => a + b, 0);
  let entropy = 0;
  p.forEach((v, i) => {
    p[i] = v / total;
    entropy -= p[i]! * Math.log2(p[i]!);
  });
  dictionary.points.forEach((point, i) => {
    const gain = expectedGain(point, bins[i]!, p, work);
    expect(gain).toBeGreaterThanOrEqual(0);
    expect(gain).toBeLessThanOrEqual(entropy + 1e-9);
  });
  const sure = new Float64Array(n);
  sure[3] = 1;
  dictionary.points.forEach((point, i) => expect(expectedGain(point, bins[i]!, sure, work)).toBeLessThan(1e-9));
});

test('a reading costs less where the black lead stays, more where the meter must settle or change its mode', () => {
  const point = { ...dictionary.points[0]!, settle: 0 };
  const same = { mode: point.mode, red: 'x', black: point.black };
  expect(readingSeconds(point, same)).toBe(5);
  expect(readingSeconds(point, { ...same, black: 'elsewhere' })).toBe(10);
  expect(readingSeconds(point, { ...same, mode: point.mode === 'ohms' ? 'diode' : 'ohms' })).toBe(8);
  expect(readingSeconds({ ...point, settle: 30 }, same)).toBeGreaterThan(100);
});

test('the order of readings at different points does not matter', () => {
  const d = new Diagnoser(dictionary);
  const a = { mode: 'diode', red: 'S', black: 'D', seen: { kind: 'figure', value: 0.01 } } as const;
  const b = { mode: 'ohms', red: 'L', black: 'LF', seen: { kind: 'figure', value: 0.1 } } as const;
  const one = d.weigh([a, b]);
  const two = d.weigh([b, a]);
  one.forEach((v, i) => expect(v).toBeCloseTo(two[i]!, 12));
});

test('a point outside the dictionary is computed when asked for', () => {
  const d = new Diagnoser(dictionary);
  const point = d.predictor.at({ mode: 'ohms', red: 'L', black: 'HV-' });
  expect(point.classOf).toHaveLength(hypotheses.length);
  expect(d.predictor.at({ mode: 'ohms', red: 'l', black: 'hv-' })).toBe(point);
});

test('what to check before power follows from the called fault', () => {
  const checks = alsoCheck(board, 'M1:short(d,s)');
  expect(checks.map((c) => c.ref).sort()).toEqual(['F1', 'R1', 'R2', 'U1', 'U1']);
  expect(checks.find((c) => c.ref === 'F1')?.point).toEqual({ mode: 'ohms', red: 'L', black: 'LF' });
  expect(alsoCheck(board, 'M1:short(d,s)+F1:open').map((c) => c.ref)).not.toContain('F1');
  expect(alsoCheck(board, 'R3:open')).toEqual([]);
  expect(alsoCheck(board, 'cracked joint')).toEqual([]);
});

test('groups hold what cannot be told apart: a dried capacitor with a healthy board, two equal parallel parts with each other', () => {
  const d = new Diagnoser(dictionary);
  const suspects = d.suspects(d.weigh([]));
  const group = (label: string): readonly string[] => suspects.find((s) => s.group.includes(label))?.group ?? [];
  expect(group('C1:esr=10')).toContain('none');
  expect(group('M1:short(d,s)')).not.toContain('none');
});

test('shorts between the same nets are one circuit, whichever part they are in; what a part opens besides is its own', () => {
  const key = (text: string): string =>
    circuitKey(
      board,
      text.split('+').map((f) => {
        const parsed = parseFault(board, f);
        if (!parsed.ok) throw new Error(f);
        return parsed.value;
      }),
    );
  expect(key('C1:short')).toBe(key('BD1:short(plus,minus)'));
  expect(key('C1:short')).not.toBe(key('C1:leak=47'));
  expect(key('R1:open')).not.toBe(key('R2:open'));
  expect(key('F1:open+C1:short')).toBe(key('BD1:short(plus,minus)+F1:open'));
  expect(key('D1:short+R5:open')).not.toBe(key('D1:short+R3:open'));
  // Behind a leg that the part has opened nobody else's short is the same.
  expect(key('C1:short+C1:open')).not.toBe(key('BD1:short(plus,minus)+C1:open'));
});

test('shares of a dictionary, joined, are the dictionary: every hypothesis once, every figure the same', () => {
  for (const of of [2, 3]) {
    const parts = Array.from({ length: of }, (_, part) => {
      const steps = buildDictionary(board, hypotheses, undefined, { part, of });
      for (;;) {
        const step = steps.next();
        if (step.done) {
          expect(step.value.left).toBe(hypotheses.length - step.value.hypotheses.length);
          // It goes from thread to thread.
          return structuredClone(partOf(step.value, hypotheses));
        }
      }
    });
    const shares = parts.map((p) => p.numbers.length - 1);
    expect(Math.max(...shares) / Math.min(...shares)).toBeLessThan(1.5);
    const joined = joinParts(board, hypotheses, parts);
    expect(joined.hypotheses).toEqual(hypotheses);
    expect(joined.left).toBe(0);
    expect(joined.counts.solved).toBe(dictionary.counts.solved);
    expect(joined.points.map(pointKey)).toEqual(dictionary.points.map(pointKey));
    joined.points.forEach((point, p) => {
      const whole = dictionary.points[p]!;
      hypotheses.forEach((_, h) => {
        const [a, b] = [whole.raws[whole.classOf[h]!]!, point.raws[point.classOf[h]!]!];
        if (a !== b) expect(Math.abs(a - b)).toBeLessThanOrEqual(2.5e-3 * Math.abs(a) + 3e-5);
      });
    });
  }
});
