import { GRID } from './drawing';
import type { WireGrid } from './wireGrid';

type Point = readonly [number, number];

/**
 * A net's ways as wires: each from a pin or a joint to the next, its corners alone. The ways are neighbouring points; those
 * of one net may share some.
 */
export function runs(grid: WireGrid, ways: readonly (readonly number[])[]): readonly (readonly Point[])[] {
  const near = new Map<number, Set<number>>();
  const join = (a: number, b: number): void => {
    near.set(a, (near.get(a) ?? new Set()).add(b));
    near.set(b, (near.get(b) ?? new Set()).add(a));
  };
  for (const way of ways) for (let i = 1; i < way.length; i++) join(way[i - 1]!, way[i]!);
  const isEnd = (i: number): boolean => near.get(i)!.size !== 2 || grid.pin[i] !== -1;
  const used = new Set<string>();
  const edge = (a: number, b: number): string => (a < b ? `${a} ${b}` : `${b} ${a}`);
  const found: (readonly Point[])[] = [];
  for (const [start, list] of near) {
    if (!isEnd(start)) continue;
    for (const first of list) {
      if (used.has(edge(start, first))) continue;
      const points = [start, first];
      used.add(edge(start, first));
      while (!isEnd(points.at(-1)!)) {
        const [before, last] = points.slice(-2) as [number, number];
        const next = [...near.get(last)!].find((n) => n !== before)!;
        used.add(edge(last, next));
        points.push(next);
      }
      found.push(corners(grid, points));
    }
  }
  return found;
}

/** The points where a way turns, and its ends, in pixels. */
function corners(grid: WireGrid, points: readonly number[]): readonly Point[] {
  return points
    .filter((p, i) => {
      const [a, b] = [points[i - 1], points[i + 1]];
      return a === undefined || b === undefined || b - p !== p - a;
    })
    .map((p): Point => [(p % grid.width) * GRID, Math.floor(p / grid.width) * GRID]);
}
