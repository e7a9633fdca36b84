import { seededRandom } from '../quantity';
import { fitHomography, mapPoint, registerPhotographs } from '.';
import type { Homography, Point, PointPair } from '.';

/** A back photograph: mirrored, a little turned, seen at a slant. */
const TRUE_MAP: Homography = [-0.97, 0.06, 1230, 0.05, 1.02, -18, 2.1e-5, -1.4e-5, 1];

function normal(random: () => number): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

function pairsOf(count: number, seed: number, noise: number): PointPair[] {
  const random = seededRandom(seed);
  return Array.from({ length: count }, (_, i) => {
    // Spread over the board: corners first, then anywhere.
    const corner =
      i < 4 ? { x: i % 2 ? 1100 : 80, y: i > 1 ? 760 : 60 } : { x: 80 + 1000 * random(), y: 60 + 700 * random() };
    const to = mapPoint(TRUE_MAP, corner)!;
    return { from: corner, to: { x: to.x + noise * normal(random), y: to.y + noise * normal(random) } };
  });
}

const near = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);

test('exact points give the exact map, mirrored and slanted', () => {
  for (const count of [4, 5, 9]) {
    const map = fitHomography(pairsOf(count, count, 0))!;
    for (const p of [
      { x: 300, y: 200 },
      { x: 900, y: 640 },
    ])
      expect(near(mapPoint(map, p)!, mapPoint(TRUE_MAP, p)!)).toBeLessThan(1e-6);
  }
});

test('with one pixel of noise the residual is under two pixels, and so is the error in between', () => {
  for (let seed = 1; seed <= 200; seed++) {
    const found = registerPhotographs(pairsOf(8, seed, 1))!;
    expect(found.rms).toBeLessThan(2);
    expect(found.outlier).toBeNull();
    expect(near(mapPoint(found.map, { x: 600, y: 400 })!, mapPoint(TRUE_MAP, { x: 600, y: 400 })!)).toBeLessThan(2.5);
  }
});

test('a swapped pair is named, whichever two it is', () => {
  for (let seed = 1; seed <= 40; seed++) {
    const pairs = pairsOf(7, seed, 1);
    const random = seededRandom(seed + 500);
    const i = Math.floor(random() * 7);
    const j = (i + 1 + Math.floor(random() * 6)) % 7;
    if (near(pairs[i]!.to, pairs[j]!.to) < 60) continue;
    const swapped = pairs.map((p, k) =>
      k === i ? { ...p, to: pairs[j]!.to } : k === j ? { ...p, to: pairs[i]!.to } : p,
    );
    const found = registerPhotographs(swapped)!;
    expect([...found.swapped!].sort()).toEqual([i, j].sort());
    expect([i, j]).toContain(found.outlier);
  }
});

test('one point set wrong is named as the outlier', () => {
  for (let seed = 1; seed <= 40; seed++) {
    const wrong = seed % 8;
    const pairs = pairsOf(8, seed, 1).map((p, k) =>
      k === wrong ? { ...p, to: { x: p.to.x + 70, y: p.to.y - 45 } } : p,
    );
    const found = registerPhotographs(pairs)!;
    expect(found.outlier).toBe(wrong);
    expect(found.swapped).toBeNull();
  }
});

test('points that settle no map give none', () => {
  expect(registerPhotographs(pairsOf(3, 1, 0))).toBeNull();
  const line = Array.from({ length: 6 }, (_, i) => ({
    from: { x: 100 * i, y: 50 * i },
    to: { x: 90 * i, y: 10 + 40 * i },
  }));
  expect(registerPhotographs(line)).toBeNull();
  const same = Array.from({ length: 5 }, () => ({ from: { x: 5, y: 5 }, to: { x: 7, y: 7 } }));
  expect(registerPhotographs(same)).toBeNull();
});

test('there and back again: the map of the pairs turned round undoes it', () => {
  const pairs = pairsOf(10, 3, 0.5);
  const there = fitHomography(pairs)!;
  const back = fitHomography(pairs.map(({ from, to }) => ({ from: to, to: from })))!;
  const p = { x: 444, y: 333 };
  expect(near(mapPoint(back, mapPoint(there, p)!)!, p)).toBeLessThan(2);
});
