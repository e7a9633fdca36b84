import { DisjointSets, minimumDegreeOrder } from '.';

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
