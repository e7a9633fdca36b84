import { netKey } from '../circuit';
import { drawParts, probe, solverFor } from '../meter';
import { readNetlist } from '../netlist';
import { gaussian, seededRandom } from '../quantity';
import { exampleBoard } from '../../../bench/exampleBoards';
import { NONE_FIRST, firstOfSeveral } from './firstOfSeveral';
import { leakOf, straightened } from './leak';
import { archetypeBoard } from '../archetype';
import { buildWholeDictionary, coordinate, listHypotheses, mistakeChance, overloadChance } from '.';
import type { ColdPoint } from '.';
import { restsOnOnePoint } from './evidence';
import { density, figureBelow } from './outcome';

const LEAK = leakOf({ draws: [1, 2], effects: [-0.011, 0.05], spreads: [0.025, 0.47] }, 13.7, 0.055)!;
const spread = { mean: 13.7, sigma: 0.055, overload: 0, leak: LEAK };

test('a leak is the junction that counts the most; parts that spread little, or raise the reading, are none', () => {
  expect(LEAK).toMatchObject({ at: 13.7, effect: 0.05, spread: 0.47 });
  expect(LEAK.share).toBeCloseTo(0.05 / 0.47, 9);
  expect(leakOf({ draws: [1], effects: [0.05], spreads: [0.025] }, 13.7, 0.055)).toBeNull();
  expect(leakOf({ draws: [1], effects: [-0.05], spreads: [0.47] }, 13.7, 0.055)).toBeNull();
  expect(leakOf({ draws: [1], effects: [0.05] }, 13.7, 0.055)).toBeNull();
});

test('beside a leak the density adds up to one, and readings drawn by its law come as often as it says', () => {
  let sum = 0;
  for (let x = 12; x < 14.2; x += 1e-3) sum += 1e-3 * density(spread, x);
  expect(sum).toBeGreaterThan(0.97);
  expect(sum).toBeLessThan(1.03);
  const random = seededRandom(5);
  const drawn = Array.from({ length: 20_000 }, () => {
    const grown = Math.exp(LEAK.spread * gaussian(random));
    return 13.7 - Math.log(1 + LEAK.share * (grown - 1)) + LEAK.rest * gaussian(random);
  });
  for (const x of [13.4, 13.5, 13.6, 13.7]) {
    const share = drawn.filter((d) => d < x).length / drawn.length;
    expect(figureBelow(spread, x)).toBeGreaterThan(share / 1.5 - 0.001);
    expect(figureBelow(spread, x)).toBeLessThan(share * 1.5 + 0.001);
  }
  // Four sigma low happens, four sigma high does not.
  expect(density(spread, 13.7 - 0.22)).toBeGreaterThan(30 * density(spread, 13.7 + 0.22));
});

/** A base that takes its current through 10 kohm: 0.19 V of 0.82 go with one over the gain. */
const GAIN = leakOf({ draws: [1, 2], effects: [0.012, 0.0777], spreads: [0.47, 0.4055] }, 0.82, 0.0793, 'gain')!;

test('on a gain the density adds up to one, and readings drawn by its law come as often as it says, far up too', () => {
  const own = { mean: 0.82, sigma: 0.0793, overload: 0, leak: GAIN };
  let sum = 0;
  for (let x = 0.4; x < 2.4; x += 5e-4) sum += 5e-4 * density(own, x);
  expect(sum).toBeGreaterThan(0.97);
  expect(sum).toBeLessThan(1.03);
  const random = seededRandom(6);
  const drawn = Array.from({ length: 20_000 }, () => {
    const part = (0.0777 / 0.4055) * Math.exp(-0.4055 * gaussian(random));
    return 0.82 - 0.0777 / 0.4055 + part + GAIN.rest * gaussian(random);
  });
  for (const x of [0.7, 0.75, 0.82, 0.9, 1, 1.1, 1.2]) {
    const share = drawn.filter((d) => d < x).length / drawn.length;
    expect(figureBelow(own, x)).toBeGreaterThan(share / 1.3 - 0.002);
    expect(figureBelow(own, x)).toBeLessThan(share * 1.3 + 0.002);
    expect(1 - figureBelow(own, x)).toBeGreaterThan((1 - share) / 1.5 - 0.001);
    expect(1 - figureBelow(own, x)).toBeLessThan((1 - share) * 1.5 + 0.001);
  }
  // Four sigma up happens, three sigma down does not.
  expect(density(own, 0.82 + 0.32)).toBeGreaterThan(30 * density(own, 0.82 - 0.24));
});

test('straightened on a gain: in order all along, by the likeliest draw', () => {
  let before = -Infinity;
  for (let x = 0.45; x < 2; x += 0.01) {
    const there = straightened(GAIN, x).x;
    expect(there).toBeGreaterThan(before);
    before = there;
    // By trying every draw instead: z² + (what is left over its rest)² is least there.
    let [least, likeliest] = [Infinity, 0];
    for (let z = -9; z < 9; z += 1e-3) {
      const left = x - 0.82 - (GAIN.effect / GAIN.spread) * (Math.exp(-GAIN.spread * z) - 1);
      const cost = z * z + (left / GAIN.rest) ** 2;
      if (cost < least) [least, likeliest] = [cost, 0.82 - GAIN.effect * z + left];
    }
    expect(there).toBeCloseTo(likeliest, 3);
  }
});

test('straightened: itself where it should be and above, in order below, and less far than it reads', () => {
  expect(straightened(LEAK, 13.7).x).toBeCloseTo(13.7, 12);
  expect(straightened(LEAK, 13.8)).toEqual({ x: 13.8, slope: 1 });
  let before = 13.7;
  for (let x = 13.69; x > 12.9; x -= 0.01) {
    const there = straightened(LEAK, x).x;
    expect(there).toBeLessThan(before);
    expect(there).toBeGreaterThanOrEqual(x - 1e-9);
    before = there;
  }
});

test.each([
  ['lamp-supply-24v', 'ohms', 'L', 'N'],
  ['lamp-supply-24v', 'ohms', 'DRAIN', 'G'],
  ['buoy-boost-28', 'diode', 'GATE', 'BAT-'],
  ['fence-energiser', 'diode', 'SNB', 'BAT-'],
  ['fence-energiser', 'diode', 'BAT+', 'BAT-'],
  ['dock-pushpull-48', 'diode', 'N5', 'PS'],
] as const)('%s %s %s %s: drawn boards read within what is said of them', (name, mode, red, black) => {
  const board = exampleBoard(name);
  const point: ColdPoint = { mode, red, black };
  const [predicted] = buildWholeDictionary(board, [listHypotheses(board)[0]!], [point]).points;
  const s = predicted!.spreads[0]!;
  const draws = 120;
  let [low, high, far] = [0, 0, 0];
  for (let k = 0; k < draws; k++) {
    const solver = solverFor(board, [], drawParts(seededRandom(3000 + k)));
    const { nodeOfNet } = solver.network;
    const read = probe(solver, mode, nodeOfNet.get(netKey(red))!, nodeOfNet.get(netKey(black))!);
    if (!read.ok) throw new Error('probe');
    const below = figureBelow(s, mode === 'diode' ? read.value.raw : Math.log(read.value.raw + 1));
    if (below < 1e-3) low++;
    if (below < 0.5) high++;
    if (below > 0.999) far++;
  }
  expect(low).toBeLessThanOrEqual(1);
  expect(far).toBeLessThanOrEqual(1);
  expect(high / draws).toBeGreaterThan(0.35);
  expect(high / draws).toBeLessThan(0.65);
});

test('switches side by side: the first to turn on is lower and spreads farther than their mean; one alone is itself', () => {
  expect(firstOfSeveral({ draws: [1], effects: [-0.3], spreads: [0.15] })).toEqual(NONE_FIRST);
  expect(firstOfSeveral({ draws: [1, 2], effects: [-0.3, -0.1], spreads: [0.15, 0.15] })).toEqual(NONE_FIRST);
  expect(firstOfSeveral({ draws: [1, 2], effects: [-0.01, -0.01], spreads: [0.47, 0.47] })).toEqual(NONE_FIRST);
  for (const n of [2, 3, 4]) {
    const each = 0.33 / n;
    const all = Array.from({ length: n }, (_, i) => i + 1);
    const { lower, variance } = firstOfSeveral({
      draws: all,
      effects: all.map(() => -each),
      spreads: all.map(() => 0.15),
    });
    const random = seededRandom(n);
    const lowest = Array.from({ length: 20_000 }, () => Math.min(...all.map(() => 0.33 * gaussian(random))));
    const mean = lowest.reduce((a, b) => a + b, 0) / lowest.length;
    const square = lowest.reduce((a, b) => a + (b - mean) ** 2, 0) / lowest.length;
    expect(lower).toBeCloseTo(-mean, 2);
    expect(n * each * each + variance).toBeCloseTo(square, 2);
  }
});

test('a call rests on one point where that alone puts the suspect before the next, which may read so as well', () => {
  const read = readNetlist('t\nR1 A B 1k tol=20%\nR2 B C 2.2k\nR3 C A 4.7k\n');
  if (!read.ok) throw new Error('fixture');
  const { board } = read.value;
  const dictionary = buildWholeDictionary(board, listHypotheses(board));
  const seen = (red: string, black: string, ohms: number) =>
    ({ mode: 'ohms', red, black, seen: { kind: 'figure', value: ohms } }) as const;
  const drifted = dictionary.hypotheses.find((h) => h.label.startsWith('R1:value='))!.label;
  // Half as much again: a resistor of 20 % may be so, one that drifted is so more often.
  const soft = seen('A', 'B', 1130);
  expect(restsOnOnePoint(dictionary, [soft], drifted, 'none')).toBe(true);
  // 6.9 k is no resistor of 1 k: that is no matter of tolerances.
  const hard = seen('A', 'B', 6900);
  expect(restsOnOnePoint(dictionary, [hard], 'R1:open', 'none')).toBe(false);
  expect(restsOnOnePoint(dictionary, [soft, seen('B', 'C', 2400)], 'R1:open', 'none')).toBe(false);
});

test('a reading that a junction steers out of proportion is spread as boards drawn so read (seed 50000)', () => {
  const board = exampleBoard('galley-hob-2k');
  const hypotheses = listHypotheses(board);
  const open = hypotheses.find((h) => h.label === 'R8:open')!;
  const asked: ColdPoint = { mode: 'ohms', red: 'CSR', black: 'HV-' };
  const { spreads, classOf } = buildWholeDictionary(board, [hypotheses[0]!, open], [asked]).points[0]!;
  const [sound, broken] = [spreads[0]!, spreads[classOf[1]!]!];
  // By the tangent one board in a hundred would be mistaken; of thousands drawn it was one in six hundred.
  expect(mistakeChance(sound, broken)).toBeLessThan(0.003);
  expect(mistakeChance(sound, broken)).toBeGreaterThan(0.0005);
  const read = Array.from({ length: 300 }, (_, k) => {
    const solver = solverFor(board, open.faults, drawParts(seededRandom(50_000 + k)));
    const { nodeOfNet } = solver.network;
    const computed = probe(solver, 'ohms', nodeOfNet.get('csr')!, nodeOfNet.get('hv-')!);
    return computed.ok ? coordinate('ohms', computed.value.raw) : NaN;
  }).sort((a, b) => a - b);
  // The range jumps on the way, which a line between what was asked cuts short.
  for (const share of [0.05, 0.25, 0.5, 0.75, 0.95])
    expect(Math.abs(figureBelow(broken, read[Math.floor(share * read.length)]!) - share)).toBeLessThan(0.12);
});

test('a reading that stands at the limit of its range may be taken on the higher one, where it reads differently', () => {
  const board = exampleBoard('fence-energiser');
  const open = listHypotheses(board).filter((h) => h.label === 'none' || h.label === 'R7:open');
  const point: ColdPoint = { mode: 'ohms', red: 'BAT-', black: 'BLM' };
  const [predicted] = buildWholeDictionary(board, open, [point]).points;
  const { modes = [] } = predicted!.spreads[predicted!.classOf[1]!]!;
  // 0.298 V at 0.5 uA, where a diode in its way bends: with a tenth of the current it is a quarter more ohm.
  const there = modes.filter((m) => m.neighbour).reduce((sum, m) => sum + m.weight, 0);
  let higher = 0;
  const draws = 200;
  for (let k = 0; k < draws; k++) {
    const solver = solverFor(board, open[1]!.faults, drawParts(seededRandom(60_000 + k)));
    const { nodeOfNet } = solver.network;
    const read = probe(solver, 'ohms', nodeOfNet.get('bat-')!, nodeOfNet.get('blm')!);
    if (read.ok && read.value.amps < 1e-7) higher++;
  }
  expect(higher / draws).toBeGreaterThan(0.2);
  expect(Math.abs(there - higher / draws)).toBeLessThan(0.12);
});

test.each([
  ['solid-state-relay', 'IN+', 'IN-'],
  ['solar-charger', 'VP', 'P1'],
  // The source stands at its limit, and the junction takes nine tenths of what it has.
  ['buoy-boost-28', 'N2', 'N1'],
])(
  '%s: a junction that hardly carries the last range shuts it on some sound boards, and they are told',
  (name, red, black) => {
    const typical = archetypeBoard(name) ?? exampleBoard(name);
    // Values as somebody read them: what differs is what junctions let through.
    const board = { ...typical, parts: typical.parts.map((p) => ({ ...p, basis: 'seen' as const })) };
    const point: ColdPoint = { mode: 'ohms', red, black };
    const [predicted] = buildWholeDictionary(board, [listHypotheses(board)[0]!], [point]).points;
    const s = predicted!.spreads[0]!;
    const draws = 250;
    const read = Array.from({ length: draws }, (_, k) => {
      const solver = solverFor(board, [], drawParts(seededRandom(80_000 + k)));
      const { nodeOfNet } = solver.network;
      const one = probe(solver, 'ohms', nodeOfNet.get(netKey(red))!, nodeOfNet.get(netKey(black))!);
      return one.ok ? one.value.raw : Infinity;
    });
    const share = (ohms: number): number => read.filter((r) => r < ohms).length / draws;
    const below = (ohms: number): number => (1 - overloadChance(s)) * figureBelow(s, coordinate('ohms', ohms));
    expect(Math.abs(1 - overloadChance(s) - share(60e6))).toBeLessThan(0.2);
    for (const ohms of [15e6, 30e6]) {
      expect(share(ohms)).toBeGreaterThan(0.01);
      expect(below(ohms)).toBeGreaterThan(share(ohms) / 4);
      expect(below(ohms)).toBeLessThan(share(ohms) * 2 + 0.02);
    }
  },
);
