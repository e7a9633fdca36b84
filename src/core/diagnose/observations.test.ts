import { archetypeBoard } from '../archetype';
import { listHypotheses } from './hypotheses';
import type { Hypothesis } from './hypotheses';
import { readObserved, weighObserved } from './observations';

const board = archetypeBoard('flyback-opto')!;
const WATCHED = ['M1:short(d,s)', 'F1:open', 'D3:open', 'R1:open', 'D4:open', 'C5:open', 'R9:short', 'R5:value=2.31'];
const all = listHypotheses(board, []);
const some = all.filter(
  (h) => h.faults.length === 0 || WATCHED.includes(h.label) || h.label.startsWith('D3:') || h.label.startsWith('R5:'),
);

/** How an observation changes the odds of some hypotheses against a sound unit. */
function shift(key: string, labels: readonly string[]): ReadonlyMap<string, number> {
  const seen = readObserved(board, key);
  if (!seen) throw new Error(key);
  const asked = some.filter((h) => h.faults.length === 0 || labels.includes(h.label));
  const weighed = weighObserved(board, asked, [seen], 1e9, () => 0);
  const before = new Map(asked.map((h) => [h.label, h.weight]));
  const none = weighed.find((h) => h.faults.length === 0)!;
  const own = none.weight / before.get(none.label)!;
  return new Map(weighed.map((h) => [h.label, h.weight / before.get(h.label)! / own]));
}

test('keys are read whatever their case; what is none, or a part that is not there, is not', () => {
  expect(readObserved(board, 'Lamp-Dim')).toEqual({ kind: 'lamp-dim' });
  expect(readObserved(board, 'hot:m1')).toEqual({ kind: 'hot', ref: 'M1' });
  expect(readObserved(board, 'status-light:two short')).toEqual({ kind: 'status-light', pattern: 'two short' });
  expect(readObserved(board, 'hot:Z9')).toBeNull();
  expect(readObserved(board, 'lamp-blue')).toBeNull();
});

test.each([
  // What each fault does is computed, not said: the supply winding’s diode open lets the controller cycle.
  ['hiccup-ticking', 'D3:open', 'F1:open'],
  ['lamp-pulses', 'D3:open', 'R1:open'],
  ['lamp-dark', 'F1:open', 'M1:short(d,s)'],
  ['lamp-bright', 'M1:short(d,s)', 'F1:open'],
  ['lamp-dark', 'R1:open', 'M1:short(d,s)'],
] as const)('%s speaks for %s and not for %s', (key, right, wrong) => {
  const by = shift(key, [right, wrong]);
  expect(by.get(right)).toBeGreaterThan(5);
  expect(by.get(right)! / by.get(wrong)!).toBeGreaterThan(5);
});

test('several together count together; without a nameplate nothing is said; time that is up leaves the middle', () => {
  const [tick, dark] = ['hiccup-ticking', 'lamp-dark'].map((k) => readObserved(board, k)!);
  const both = weighObserved(board, some, [tick!, dark!], 1e9, () => 0);
  const one = weighObserved(board, some, [tick!], 1e9, () => 0);
  const of = (list: readonly Hypothesis[], label: string): number => list.find((h) => h.label === label)!.weight;
  expect(of(both, 'M1:short(d,s)')).toBeLessThan(of(one, 'M1:short(d,s)'));
  const bare = { ...board, nameplate: {} };
  expect(weighObserved(bare, some, [tick!], 1e9, () => 0)).toBe(some);
  let now = 0;
  const late = weighObserved(board, some, [tick!], 0, () => now++);
  const factor = (label: string): number => of(late, label) / of(some, label);
  expect(factor('M1:short(d,s)')).toBeCloseTo(factor('F1:open'), 9);
});
