import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { findPart } from '../circuit';
import { parseFault } from '../fault';
import { probe, solverFor } from '../meter';
import { readNetlist } from '../netlist';
import { NOISY_METER, SLIPS, calibration, drawnRepairs, readAcross, repairMix } from '../../../bench/repairs';
import { Diagnoser, buildWholeDictionary, listHypotheses, mainMode } from '.';
import { driftSpread } from './drift';
import { outcomeModes } from './outcome';
import type { Suspect, TakenReading } from '.';
import { keepSolution } from './unaffected';

const read = readNetlist(readFileSync(join(__dirname, '../../../fixtures/boards/radio-charger-5v.cir'), 'utf8'));
if (!read.ok) throw new Error('board');
const { board } = read.value;
const diagnoser = new Diagnoser(buildWholeDictionary(board, listHypotheses(board)));
const { hypotheses } = diagnoser.predictor;

test('before any reading the odds are the priors, what cannot be seen among them', () => {
  const total = hypotheses.reduce((sum, h) => sum + h.weight, 0);
  const odds = diagnoser.weigh([]);
  hypotheses.forEach((h, i) => expect(odds[i]).toBeCloseTo(h.weight / total, 12));
  const unseen = diagnoser.suspects(odds).find((s) => s.invisible)!;
  expect(unseen.probability).toBeGreaterThan(0.3);
  // Dried electrolytics lead every count of failures, and no diode test sees them.
  expect(unseen.unseen[0]!.words).toBe('electrolytics');
  expect(unseen.unseen.reduce((sum, k) => sum + k.probability, 0)).toBeCloseTo(unseen.probability, 9);
});

test('the plan looks for what can be seen, common or rare, and leaves the odds alone', () => {
  const attention = diagnoser.attention([]);
  const silent = hypotheses.reduce(
    (sum, _, i) => (diagnoser.groups[i] === diagnoser.groups[0] ? sum + attention[i]! : sum),
    0,
  );
  expect(silent).toBeGreaterThan(0.001);
  expect(silent).toBeLessThanOrEqual(0.002 + 1e-9);
  const visible = hypotheses.flatMap((_, i) => (diagnoser.groups[i] === diagnoser.groups[0] ? [] : [attention[i]!]));
  expect(Math.min(...visible) * visible.length).toBeGreaterThan(0.1);
  expect(attention.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
});

test('open and shorted parts read straight across both ways are among the first three suspects', () => {
  const { asked, missed } = readAcross(diagnoser, ['open', 'short']);
  expect(asked).toBeGreaterThan(30);
  expect(missed.length / asked).toBeLessThanOrEqual(0.02);
});

test('so are resistors that drifted to twice or half their value, which is on no grid', () => {
  const { asked, missed } = readAcross(diagnoser, ['double', 'half']);
  expect(asked).toBeGreaterThan(10);
  expect(missed.length / asked).toBeLessThanOrEqual(0.1);
});

test('of repairs as they come few are named wrongly, and hardly one of those that cannot be seen', () => {
  const mix = repairMix(diagnoser, drawnRepairs(diagnoser, 45));
  expect(mix.wrong).toBeLessThanOrEqual(0.05);
  expect(mix.right).toBeGreaterThanOrEqual(0.9);
  expect(mix.unseenNamed).toBeLessThanOrEqual(1);
});

test('of the suspects shown with some odds on the way that share is true, in the middle as at the ends', () => {
  const tenths = calibration(diagnoser, 400);
  const [low, middle, high] = [tenths.slice(0, 2), tenths.slice(2, 8), tenths.slice(8)];
  for (const part of [low, middle, high]) {
    const at = (of: 0 | 1 | 2): number => part.reduce((sum, tenth) => sum + tenth[of], 0);
    expect(at(0)).toBeGreaterThan(60);
    expect(Math.abs(at(1) - at(2)) / at(0)).toBeLessThan(0.06);
  }
});

test.each([
  ['a meter with twice the noise', { meter: NOISY_METER }],
  ['one reading in twenty on other nets', { slips: SLIPS }],
])('repairs are still named rightly with %s, and half of the slipped readings are named doubtful', (_name, ways) => {
  const mix = repairMix(diagnoser, drawnRepairs(diagnoser, 30, 5), () => ways);
  expect(mix.right).toBeGreaterThanOrEqual(0.9);
  if (!('slips' in ways)) return expect(mix.slipped).toBe(0);
  expect(mix.slipped).toBeGreaterThan(4);
  expect(mix.doubted).toBeGreaterThanOrEqual(0.4);
});

test('a suspect is called at its limit; where a healthy board explains a reading far better, only when it is all but sure', () => {
  const h = hypotheses.findIndex((one) => one.label === 'D7:short');
  const point = diagnoser.predictor.points.find(
    (p) => p.mode === 'ohms' && p.classOf[h] !== 0 && p.raws[0]! > 100 * p.raws[p.classOf[h]!]! && p.raws[0]! < 1e6,
  )!;
  const { mode, red, black } = point;
  const read = (value: number): TakenReading => ({ mode, red, black, seen: { kind: 'figure', value } });
  const [against, its] = [read(point.raws[0]!), read(point.raws[point.classOf[h]!]!)];
  const leader = { ...diagnoser.suspects(diagnoser.weigh([its]))[0]!, fault: 'D7:short', invisible: false };
  const odds = diagnoser.weigh([its]);
  for (const [probability, readings, surety] of [
    [0.94, [its], 'no'],
    [0.96, [its], 'yes'],
    [0.96, [against], 'no'],
    [0.997, [against], 'no'],
    [0.9985, [against], 'yes'],
    [0.96, [], 'yes'],
  ] as const)
    expect([probability, diagnoser.surety({ ...leader, probability }, readings, odds)]).toEqual([probability, surety]);
  expect(diagnoser.surety({ ...leader, probability: 1, invisible: true }, [its], odds)).toBe('no');
  expect(diagnoser.surety(undefined, [], odds)).toBe('no');
});

test('what leads by being common is confirmed first: called only when no reading would tell it from the rare one', () => {
  // The shorted rectifier and the shorted capacitor across it read the same but for one point.
  const [common, rare] = ['D7:short', 'C8:short'].map((label) => hypotheses.findIndex((h) => h.label === label));
  const odds = new Float64Array(hypotheses.length);
  odds[common!] = 0.97;
  odds[rare!] = (0.97 * hypotheses[rare!]!.weight) / hypotheses[common!]!.weight;
  const leader = { ...diagnoser.suspects(odds)[0]!, probability: 0.97 };
  expect(diagnoser.surety(leader, [], odds)).toBe('unless-told');
  expect(diagnoser.surety({ ...leader, probability: 0.992 }, [], odds)).toBe('yes');
  odds[rare!] = odds[rare!]! / 100;
  expect(diagnoser.surety(leader, [], odds)).toBe('yes');
  const standing = { ...diagnoser.standing([]), surety: 'unless-told' } as const;
  const plan = diagnoser.plan(standing, 3);
  expect(diagnoser.mayCall(standing)).toBe(false);
  expect(diagnoser.mayCall(standing, plan)).toBe(false);
  expect(diagnoser.mayCall(standing, [])).toBe(true);
});

function boardOf(...lines: string[]) {
  const made = readNetlist(['t', ...lines].join('\n'));
  if (!made.ok) throw new Error(made.problem.map((p) => p.sentence).join('\n'));
  return made.value.board;
}

test.each([
  ['one leg of a bridge of five', ['R1 a c 1k', 'R2 a d 2k', 'R3 c b 2k', 'R4 d b 1k', 'R5 c d 1k'], 'R1', 0.002],
  ['a resistor beside a junction', ['R1 a b 10k', 'R2 a c 4.7k', 'D1 c b DD', '.model DD D(IS=2n N=1.7)'], 'R1', 0.1],
] as const)('a drift is a range: %s, against solves at every value between', (_name, lines, ref, within) => {
  const own = boardOf(...lines);
  const value = own.parts.find((p) => p.ref === ref)! as { readonly value: number };
  for (const factor of [3, 0.33]) {
    const at = (x: number): number => {
      const fault = parseFault(own, `${ref}:value=${value.value * x}`);
      if (!fault.ok) throw new Error('fault');
      const solver = solverFor(own, [fault.value]);
      const got = probe(solver, 'ohms', solver.network.nodeOfNet.get('a')!, solver.network.nodeOfNet.get('b')!);
      if (!got.ok) throw new Error('probe');
      return got.value.raw;
    };
    const healthy = solverFor(own, []);
    const [a, b] = [healthy.network.nodeOfNet.get('a')!, healthy.network.nodeOfNet.get('b')!];
    const base = probe(healthy, 'ohms', a, b);
    if (!base.ok) throw new Error('probe');
    const known = keepSolution({ board: own, faults: [], solver: healthy, red: a, black: b, amps: base.value.amps });
    const fault = parseFault(own, `${ref}:value=${value.value * factor}`);
    if (!fault.ok || fault.value.kind !== 'value') throw new Error('fault');
    const range = driftSpread(own, known, fault.value, 'ohms', { raw: at(factor), sigma: 0 })!;
    const means = outcomeModes(range).map((m) => Math.exp(m.mean) - 1);
    const factors = [1.35, 1.65, 2, 2.5, 3.1, 4, 5.2, 7, 10].map((f) => (factor > 1 ? f : 1 / f));
    factors.forEach((x, i) => {
      // Far out a junction bends it, and another range is used: there the width of the range has to do.
      const near = Math.abs(Math.log(x)) < 1.5;
      expect(Math.abs(means[i]! / at(x) - 1)).toBeLessThan(near ? within : 5 * within);
    });
    expect(Math.exp(mainMode(range.middle!).mean) - 1).toBeCloseTo(at(factor), 6);
  }
});

test('a resistor open or drifted up beyond any meter is one finding; drifted down, or another part, is not', () => {
  const odds = new Float64Array(hypotheses.length);
  const own = hypotheses.find(({ faults: [f] }) => f?.kind === 'open' && f.pin === undefined && f.ref.startsWith('R'))!;
  const [open] = own.faults;
  const { value } = findPart(diagnoser.predictor.board, open!.ref)! as { value: number };
  const suspect = (fault: string, probability: number): Suspect => ({
    ...diagnoser.suspects(diagnoser.weigh([]))[0]!,
    ...{ fault, faults: [fault], group: [fault], probability, invisible: false },
  });
  const sure = (fault: string, probability = 0.1) =>
    diagnoser.surety(suspect(own.label, 0.9), [], odds, [suspect(fault, probability)]);
  expect(sure(`${open!.ref}:value=${3 * value}`)).toBe('unless-told');
  expect(sure(`${open!.ref}:value=${3 * value}`, 0.08)).toBe('no');
  expect(sure(`${open!.ref}:value=${value / 3}`)).toBe('no');
  expect(sure(`${open!.ref}:short`)).toBe('no');
  const other = hypotheses.find(({ faults: [f] }) => f?.kind === 'value' && f.ref !== open!.ref)!;
  expect(sure(other.label)).toBe('no');
  // The other way round as well.
  const up = suspect(`${open!.ref}:value=${3 * value}`, 0.7);
  expect(diagnoser.surety(up, [], odds, [suspect(own.label, 0.295)])).toBe('unless-told');
});
