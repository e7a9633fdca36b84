import { seededRandom } from '../quantity';
import { Bits, DisjointSets, assign, minimumDegreeOrder } from '.';

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

test('bits hold what a set of numbers holds (seed 21)', () => {
  const random = seededRandom(21);
  const draw = (): ReadonlySet<number> => new Set(Array.from({ length: 30 }, () => Math.floor(random() * 70)));
  const bitsOf = (set: ReadonlySet<number>): Bits => {
    const bits = new Bits(70);
    for (const i of set) bits.add(i);
    return bits;
  };
  for (let round = 0; round < 50; round++) {
    const [a, b] = [draw(), draw()];
    const [x, y] = [bitsOf(a), bitsOf(b)];
    const rest = x.without(y);
    expect(x.size).toBe(a.size);
    expect(x.shared(y)).toBe([...a].filter((i) => b.has(i)).length);
    expect(Array.from({ length: 70 }, (_, i) => i).filter((i) => rest.has(i))).toEqual(
      [...a].filter((i) => !b.has(i)).sort((p, q) => p - q),
    );
    expect(x.holds(y)).toBe([...b].every((i) => a.has(i)));
    expect(x.holds(bitsOf(new Set([...a].slice(0, 9))))).toBe(true);
    y.addAll(x);
    expect(y.holds(x)).toBe(true);
  }
});
