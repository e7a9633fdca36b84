import { gaussian, normalCdf, normalQuantile, seededRandom } from '../quantity';
import { readNetlist } from '../netlist';
import { probe, simulateReading, solverFor } from '../meter';
import {
  Diagnoser,
  bestNext,
  buildWholeDictionary,
  doubtfulReadings,
  huntFault,
  listHypotheses,
  outcomeSpread,
  scaleOf,
} from '.';
import type { TakenReading } from '.';
import { NOTHING_TOLD, conditioned, told } from './sharedDraws';
import { creepOf } from './nextReading';

function boardOf(...lines: string[]) {
  const made = readNetlist(['t', ...lines].join('\n'));
  if (!made.ok) throw new Error(made.problem.map((p) => p.sentence).join('\n'));
  return made.value.board;
}
const volts = scaleOf('diode');

test('what one reading tells of the draws is what many drawn boards say: mean and spread of the second, given the first', () => {
  // Two readings that share a draw a, each with one of its own: by hand, and by the shares of a hundred thousand draws.
  const [a, b, c] = [0.05, 0.02, 0.03];
  const first = outcomeSpread('diode', 0.6, Math.hypot(a, b), null, { draws: [1, 2], effects: [a, b] });
  const second = outcomeSpread('diode', 0.5, Math.hypot(a, c), null, { draws: [1, 3], effects: [a, c] });
  const seen = 0.68;
  const left = conditioned(volts, second, told(volts, first, NOTHING_TOLD, seen));
  const random = seededRandom(4);
  const noise = (s: { readonly sigma: number }, parts: number): number => Math.sqrt(s.sigma ** 2 - parts ** 2);
  const kept: number[] = [];
  for (let k = 0; k < 100_000; k++) {
    const z = gaussian(random);
    const one = 0.6 + a * z + b * gaussian(random) + noise(first, Math.hypot(a, b)) * gaussian(random);
    if (Math.abs(one - seen) > 0.004) continue;
    kept.push(0.5 + a * z + c * gaussian(random) + noise(second, Math.hypot(a, c)) * gaussian(random));
  }
  const mean = kept.reduce((x, y) => x + y, 0) / kept.length;
  const sigma = Math.sqrt(kept.reduce((x, y) => x + (y - mean) ** 2, 0) / kept.length);
  expect(kept.length).toBeGreaterThan(1000);
  expect(left.modes![0]!.mean).toBeCloseTo(mean, 2);
  expect(left.modes![0]!.sigma / sigma).toBeGreaterThan(0.93);
  expect(left.modes![0]!.sigma / sigma).toBeLessThan(1.07);
  // Of draws that it does not share nothing is told, and the prediction is the same object.
  const other = outcomeSpread('diode', 0.5, c, null, { draws: [9], effects: [c] });
  expect(conditioned(volts, other, told(volts, first, NOTHING_TOLD, seen))).toBe(other);
});

test('the draws that move a reading decide its range too', () => {
  const ohms = scaleOf('ohms');
  const main = { draws: [1], effects: [12e3] };
  const spread = outcomeSpread('ohms', 60e3, 12e3, { ohms: 150e3, sigma: 30e3, chance: 0.1 }, main);
  const witness = outcomeSpread('ohms', 1e3, 200, null, { draws: [1], effects: [200] });
  const used = (seen: number): number => {
    const left = conditioned(ohms, spread, told(ohms, witness, NOTHING_TOLD, Math.log(seen + 1)));
    return left.modes!.filter((m) => m.neighbour).reduce((sum, m) => sum + m.weight, 0);
  };
  expect(used(1e3)).toBeLessThan(0.1);
  expect(used(1.5e3)).toBeGreaterThan(0.5);
  expect(used(0.8e3)).toBeLessThan(0.001);
  for (const p of [0.001, 0.1, 0.5, 0.9]) expect(normalCdf(normalQuantile(p))).toBeCloseTo(p, 6);
});

// A junction that leaks three sigma more than usual, seen at three points through different resistors.
const board = boardOf(
  'D1 k a DD',
  'R1 a x 1k',
  'R2 a y 1.5k',
  'R3 a z 2k',
  'R4 k a 2MEG',
  'C1 k a 10u',
  '.model DD D(IS=3u N=1.7)',
);
const diagnoser = new Diagnoser(buildWholeDictionary(board, listHypotheses(board)));

test('three readings of one odd junction convict nobody; three resistors that are off do not go together so', () => {
  const leaky = (owner: string, _part: unknown, property: string): number =>
    owner === 'D1' && property === 'saturation' ? 1.6 ** 2.6 : 1;
  const solver = solverFor(board, [], leaky);
  const random = seededRandom(3);
  const readings = ['x', 'y', 'z'].map((net): TakenReading => {
    const seen = simulateReading(solver, 'diode', 'k', net, random);
    return { mode: 'diode', red: 'k', black: net, seen };
  });
  const [first] = diagnoser.standing(readings.slice(0, 1)).odds;
  const all = diagnoser.standing(readings);
  expect(all.surety).toBe('no');
  // The first tells something; the others, as far off for the same reason, hardly more.
  expect(all.odds[0]).toBeGreaterThan(0.3 * first!);
});

test('a slow point is planned to be read while it creeps: what it has passed by then, by its time constant', () => {
  const point = diagnoser.predictor.at({ mode: 'ohms', red: 'a', black: 'k' });
  const creep = creepOf(point);
  const { network } = solverFor(board, []);
  const read = probe(solverFor(board, []), 'ohms', network.nodeOfNet.get('a')!, network.nodeOfNet.get('k')!);
  if (!read.ok) throw new Error('probe');
  if (point.settle > 15) {
    expect(creep!.towards).toBeCloseTo(read.value.raw, 6);
    expect(creep!.passed).toBeLessThan(creep!.towards);
    expect(creep!.passed / creep!.towards).toBeCloseTo(1 - Math.exp((-5.3 * 15) / point.settle), 9);
  } else expect(creep).toBeNull();
  // Through a resistor that nothing charges it does not.
  expect(creepOf(diagnoser.predictor.at({ mode: 'ohms', red: 'a', black: 'x' }))).toBeNull();
  // 10 uF beside 2 Mohm: 20 s, five of which to settle; the plan never asks to wait for it.
  const slow = boardOf('C1 a b 10u', 'R1 a b 2MEG', 'R2 b c 1k', 'R3 a c 1MEG');
  const d = new Diagnoser(buildWholeDictionary(slow, listHypotheses(slow)));
  const plan = d.plan(d.standing([]), 20).filter((p) => p.point.settle > 15);
  expect(plan.length).toBeGreaterThan(0);
  for (const p of plan) if (p.creep) expect(p.seconds).toBeLessThan(d.predictor.seconds(p.point, null));
  expect(plan.some((p) => p.creep)).toBe(true);
});

test('a reading that nothing explains is named doubtful, and so is the one that others outweigh', () => {
  const at = (value: number): TakenReading => ({ mode: 'ohms', red: 'a', black: 'x', seen: { kind: 'figure', value } });
  const doubtful = (...values: number[]) =>
    doubtfulReadings(diagnoser.predictor, values.map(at), 'none').map((r) => r.seen.kind === 'figure' && r.seen.value);
  expect(doubtful(1000)).toEqual([]);
  expect(doubtful(1700)).toEqual([1700]);
  expect(doubtful(1700, 1000, 1001)).toEqual([1700]);
});

test('where nothing quick tells anything any more, the slow reading that does is asked for, whole', () => {
  // A start-up resistor beside 2200 uF: nine minutes, and nothing else shows it.
  const slow = boardOf(
    ...['XJ1 a k CONN', 'R1 a b 47k', 'C1 b k 2200uF vr=25', 'R2 b c 1k', 'R3 c d 2.2k', 'D1 d k DX'],
    ...['R4 a e 10k', 'R5 e k 10k', '.model DX D(IS=2n N=1.8)'],
  );
  const d = new Diagnoser(buildWholeDictionary(slow, listHypotheses(slow)));
  const first: { waits: number; creeps: boolean; others: number }[] = [];
  const open = { kind: 'open', ref: 'R1' } as const;
  const { ended, diagnosis } = huntFault(d, [open], () => 1, seededRandom(4), {
    choose: (standing, diagnoser) => {
      const [best, ...rest] = diagnoser.plan(standing, 12);
      if (best)
        first.push({
          waits: best.point.settle,
          creeps: best.creep !== null,
          others: Math.max(...rest.filter((r) => r.seconds < 60).map((r) => r.gainBits)),
        });
      return bestNext(standing, diagnoser);
    },
  });
  expect([ended, diagnosis.suspects[0]!.fault]).toEqual(['named', 'R1:open']);
  const waited = first.findIndex((f) => f.waits > 300 && !f.creeps);
  expect(waited).toBeGreaterThan(3);
  expect(waited).toBe(first.length - 1);
  expect(first[waited]!.others).toBeLessThanOrEqual(0.051);
});
