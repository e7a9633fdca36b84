import { seededRandom } from '../quantity';
import { DisjointSets, assign, minimumDegreeOrder } from '.';

test('sets merge, and stay apart where nothing joins them', () => {
  const sets = new DisjointSets(1000);
  for (let i = 0; i + 2 < 1000; i++) sets.union(i, i + 2);
  expect(sets.joined(0, 998)).toBe(true);
  expect(sets.joined(0, 999)).toBe(false);
  expect(sets.union(0, 998)).toBe(false);
});

test('a star is eliminated from its leaves', () => {
  const edges = Int32Array.from([0, 1, 0, 2, 0, 3, 0, 4]);
  const order = [...minimumDegreeOrder(5, edges)];
  expect(order.slice(0, 3)).toEqual([1, 2, 3]);
  expect([...order].sort()).toEqual([0, 1, 2, 3, 4]);
});

describe('assignment', () => {
  const random = seededRandom(11);
  const bruteForce = (scores: readonly (readonly number[])[]): number => {
    const best = (row: number, used: ReadonlySet<number>): number =>
      row === scores.length
        ? 0
        : Math.max(...scores[row]!.flatMap((s, j) => (used.has(j) ? [] : [s + best(row + 1, new Set([...used, j]))])));
    return best(0, new Set());
  };

  test.each([
    [1, 1],
    [3, 3],
    [4, 6],
    [5, 5],
    [2, 7],
  ])('%i rows to %i columns: the sum is the best there is, no column twice', (rows, columns) => {
    for (let round = 0; round < 40; round++) {
      const scores = Array.from({ length: rows }, () =>
        Array.from({ length: columns }, () => Math.round(random() * 20) - 5),
      );
      const chosen = assign(scores);
      expect(new Set(chosen).size).toBe(rows);
      expect(chosen.reduce((sum, j, i) => sum + scores[i]![j]!, 0)).toBe(bruteForce(scores));
    }
  });

  test('more rows than columns is refused', () => {
    expect(() => assign([[1], [2]])).toThrow(RangeError);
  });

  test('no rows give no assignment', () => {
    expect(assign([])).toEqual([]);
  });
});
