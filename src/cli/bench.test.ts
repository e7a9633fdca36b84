import { netKey } from '@/core/circuit';
import { Diagnoser, buildWholeDictionary, failureKind, listHypotheses, pointKey } from '@/core/diagnose';
import { seededRandom } from '@/core/quantity';
import { CHECKLIST_ORDER, checklistPoints } from '../../bench/checklist';
import { decisionMs, dictionaryCost, solveRate } from '../../bench/dictionaryBench';
import { ALL_BOARDS, exampleBoard, referenceLines } from '../../bench/exampleBoards';
import { fixedOrder, randomOrder, referenceDepth } from '../../bench/isolation';
import { everyFault, repairMix } from '../../bench/repairs';

/** The benchmark measures what it says: its strategies, its yardstick and its own check of the dictionary. */
const board = exampleBoard('radio-charger-5v');
const diagnoser = new Diagnoser(buildWholeDictionary(board, listHypotheses(board)));
const visible = everyFault(diagnoser).filter((i) => diagnoser.groups[i] !== 0);
const some = visible.filter((_, i) => i % 12 === 0);

test('the checklist goes through the parts in its order, every point once', () => {
  const points = checklistPoints(board);
  expect(new Set(points.map(pointKey)).size).toBe(points.length);
  const rank = points.map(({ red, black }) => {
    const kinds = board.parts
      .filter((p) => [red, black].every((n) => p.nets.map(netKey).includes(netKey(n))))
      .map((p) => CHECKLIST_ORDER.findIndex((k) => k === failureKind(board, p)));
    return Math.min(...kinds.map((k) => (k < 0 ? CHECKLIST_ORDER.length : k)));
  });
  expect(rank).toEqual([...rank].sort((a, b) => a - b));
});

test('a random order is the same for one seed, another for another, and leaves no point out', () => {
  const order = (seed: number): string[] => {
    const choose = randomOrder(diagnoser, seededRandom(seed));
    const keys: string[] = [];
    for (;;) {
      const point = choose({ readings: new Array(keys.length).fill(null) } as never, diagnoser);
      if (!point) return keys;
      keys.push(pointKey(point));
    }
  };
  expect(order(1)).toEqual(order(1));
  expect(order(1)).not.toEqual(order(2));
  expect([...order(1)].sort()).toEqual([...order(2)].sort());
});

test('the plan needs fewer readings than the checklist, and is right; wrong ones count as sixty', () => {
  const plan = repairMix(diagnoser, some);
  const checklist = repairMix(diagnoser, some, () => ({ choose: fixedOrder(checklistPoints(board), diagnoser) }));
  expect(plan.right).toBeGreaterThanOrEqual(0.9);
  expect(plan.readings).toBeLessThan(0.6 * checklist.readings);
  expect(plan.taken).toBeLessThanOrEqual(plan.readings);
  const blind = repairMix(diagnoser, some, () => ({ choose: () => null }));
  expect(blind).toMatchObject({ readings: 60, right: 0, taken: 0, open: 1, seen: some.length });
});

test('the reference depth of groups is a handful of readings, and nothing to tell apart takes none', () => {
  const depth = referenceDepth(diagnoser, some);
  expect(depth).toBeGreaterThan(2);
  expect(depth).toBeLessThan(30);
  expect(referenceDepth(diagnoser, [])).toBe(0);
});

test('the cost of a dictionary is counted, and its sample equals full solves', () => {
  const cost = dictionaryCost(board);
  expect(cost.entries).toBe((cost.hypotheses - 1) * cost.points);
  expect(cost.skipped).toBeGreaterThan(0);
  expect(cost.skipped).toBeLessThan(cost.entries);
  expect(cost.sampled).toBeGreaterThan(0.005 * cost.entries);
  expect(cost.sampleOff).toBe(0);
  expect(solveRate(board).stepsEach).toBeGreaterThan(1);
  expect(decisionMs(diagnoser)).toBeGreaterThan(0);
});

test.each(ALL_BOARDS)('%s stands in the repository with its nameplate and its reference readings', (name) => {
  expect(exampleBoard(name).nameplate?.inputRail).toBeDefined();
  expect(referenceLines(name).length).toBeGreaterThan(100);
});
