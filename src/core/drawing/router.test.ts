import { Router } from './router';
import { WireGrid } from './wireGrid';

const far = { most: 500, isPower: false };

test('a wire takes the shortest way with the fewest bends, around what is in its way', () => {
  const grid = new WireGrid(20, 10);
  for (let y = 0; y < 9; y++) grid.blocked[grid.at(10, y)] = 1;
  const ends = [grid.at(2, 2), grid.at(17, 2)];
  const router = new Router(grid, [{ net: 0, pins: ends, ...far }]);
  router.wireAll(100);
  const [way] = router.wired.get(0)!.trees.flat();
  // Down to the gap in the last row, through it, up again.
  expect(way!.length - 1).toBe(15 + 2 * 7);
  expect(way!.every((i) => grid.blocked[i] === 0)).toBe(true);
});

test('wires of two nets cross straight or not at all, and never share a step', () => {
  const grid = new WireGrid(21, 21);
  const nets = [
    { net: 0, pins: [grid.at(10, 1), grid.at(10, 19)], ...far },
    { net: 1, pins: [grid.at(1, 10), grid.at(19, 10)], ...far },
  ];
  const router = new Router(grid, nets);
  router.wireAll(100);
  expect(router.crossingsOf(0)).toBe(1);
  const [across] = router.wired.get(1)!.trees.flat();
  const at = across!.indexOf(grid.at(10, 10));
  expect([across![at - 1], across![at + 1]].sort()).toEqual([grid.at(9, 10), grid.at(11, 10)].sort());
});

test('a net that finds no way pushes another aside', () => {
  // A wall with one gap. The short net turns right before it, where nothing may cross; it could go another way, the long one not.
  const grid = new WireGrid(20, 9);
  for (let y = 0; y < 9; y++) if (y !== 4) grid.blocked[grid.at(10, y)] = 1;
  for (const [x, y] of [
    [5, 5],
    [8, 7],
  ] as const)
    grid.blocked[grid.at(x, y)] = 1;
  const corner = grid.at(9, 4);
  const short = { net: 0, pins: [grid.at(5, 4), grid.at(9, 7)], ...far };
  const alone = new Router(grid, [short]);
  alone.wireAll(100);
  expect(alone.wired.get(0)!.trees.flat(2)).toContain(corner);
  alone.lift(0);
  const router = new Router(grid, [short, { net: 1, pins: [grid.at(2, 2), grid.at(18, 4)], ...far }]);
  router.wireAll(100);
  const wired = [...router.wired].sort(([m], [n]) => m - n);
  expect(wired.map(([n, w]) => [n, w.trees.length, w.lone])).toEqual([
    [0, 1, []],
    [1, 1, []],
  ]);
  expect(router.wired.get(1)!.trees.flat(2)).toContain(corner);
});

test('too many crossings: a rail loses its far pins first, then small nets within their share', () => {
  const grid = new WireGrid(60, 30);
  // From edge to edge: there is no way round.
  const rail = Array.from({ length: 8 }, (_, i) => grid.at(i === 7 ? 59 : 8 * i, 15));
  const small = Array.from({ length: 6 }, (_, i) => [grid.at(4 + 8 * i, 0), grid.at(4 + 8 * i, 29)]);
  const nets = [{ net: 0, pins: rail, ...far }, ...small.map((pins, i) => ({ net: i + 1, pins, ...far }))];
  const router = new Router(grid, nets);
  router.wireAll(100);
  const total = (): number => nets.reduce((sum, n) => sum + router.crossingsOf(n.net), 0) / 2;
  expect(total()).toBeGreaterThan(2);
  router.thin(2, 0);
  expect(total()).toBeLessThanOrEqual(2);
  expect(router.wired.get(0)!.lone.length + router.wired.get(0)!.trees.length).toBeGreaterThan(1);
  for (let i = 1; i <= 6; i++) expect(router.wired.get(i)!.lone).toEqual([]);
});

test('what is enclosed stays without a wire', () => {
  const grid = new WireGrid(10, 10);
  for (const [x, y] of [
    [4, 5],
    [6, 5],
    [5, 4],
    [5, 6],
  ] as const)
    grid.blocked[grid.at(x, y)] = 1;
  const router = new Router(grid, [{ net: 0, pins: [grid.at(5, 5), grid.at(1, 1)], ...far }]);
  router.wireAll(100);
  expect(router.wired.get(0)).toEqual({ trees: [], lone: [grid.at(5, 5), grid.at(1, 1)] });
});
