import { exampleBoard } from '../../../bench/exampleBoards';
import { Diagnoser, LOOK_SIGNS, buildWholeDictionary, listHypotheses, lookFactors } from '.';
import type { Finding } from '.';

const board = exampleBoard('radio-charger-5v');
const hypotheses = listHypotheses(board);
const factorOf = (findings: readonly Finding[], label: string): number => {
  const factors = lookFactors(board, hypotheses, findings);
  return factors[hypotheses.findIndex((h) => h.label === label)]!;
};

test("what is seen on a part raises its faults, more for a grave sign, and nobody else's", () => {
  const seen = (severity: Finding['severity']): Finding => ({ place: 'C9', severity, words: 'bulged or burst' });
  const of = (severity: Finding['severity']): number =>
    factorOf([seen(severity)], hypotheses.find((h) => h.faults[0]?.ref === 'C9')!.label);
  expect(of('note')).toBeGreaterThan(1);
  expect(of('doubt')).toBeGreaterThan(of('note'));
  expect(of('fault')).toBeGreaterThan(of('doubt'));
  expect(factorOf([seen('fault')], hypotheses.find((h) => h.faults[0]?.ref === 'C1')!.label)).toBe(1);
  expect(factorOf([seen('fault')], 'none')).toBe(1);
});

test('a stage alone speaks for its parts, a sign about safety alone for nobody', () => {
  const label = hypotheses.find((h) => h.faults[0]?.ref === 'C9')!.label;
  expect(
    factorOf([{ place: 'output filter', severity: 'doubt', words: 'discoloured wire or board' }], label),
  ).toBeGreaterThan(1);
  expect(factorOf([{ place: 'C9', severity: 'danger', words: 'outlet without a fuse' }], label)).toBe(1);
  expect(factorOf([{ place: 'nowhere', severity: 'fault', words: 'charred or burnt' }], label)).toBe(1);
});

test('the diagnosis follows: a burst capacitor leads before the first reading, and readings still have the last word', () => {
  const diagnoser = new Diagnoser(buildWholeDictionary(board, hypotheses));
  const factors = lookFactors(board, hypotheses, [{ place: 'D7', severity: 'fault', words: 'cracked body' }]);
  const share = (p: Float64Array): number =>
    hypotheses.reduce((sum, h, i) => (h.faults.some((f) => f.ref === 'D7') ? sum + p[i]! : sum), 0);
  const [plain, seen] = [diagnoser.weigh([]), diagnoser.weigh([], factors)];
  expect(share(seen)).toBeGreaterThan(3 * share(plain));
  const whole = seen.reduce((a, b) => a + b, 0);
  expect(whole).toBeCloseTo(1, 9);
});

test('every sign has its stages and a severity', () => {
  expect(LOOK_SIGNS.length).toBeGreaterThanOrEqual(14);
  for (const s of LOOK_SIGNS) expect(s.stages.length).toBeGreaterThan(0);
});
