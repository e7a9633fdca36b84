import { DisjointSets } from '../graph';
import type { Box } from './drawing';

/** Symbols no further apart than this share a band, pixels; and what a band stands out over them. */
const APART_X = 92;
const APART_Y = 46;
const MARGIN = 10;

/** Soft bands behind a stage's symbols: one where they stand together, several where they do not. */
export function bandsOf(boxes: readonly Box[]): readonly Box[] {
  const sets = new DisjointSets(boxes.length);
  boxes.forEach((a, i) =>
    boxes.forEach((b, j) => {
      const across = Math.max(a.x, b.x) - Math.min(a.x + a.width, b.x + b.width);
      const down = Math.max(a.y, b.y) - Math.min(a.y + a.height, b.y + b.height);
      if (j > i && across <= APART_X && down <= APART_Y) sets.union(i, j);
    }),
  );
  const clusters = new Map<number, Box[]>();
  boxes.forEach((b, i) => clusters.set(sets.find(i), [...(clusters.get(sets.find(i)) ?? []), b]));
  return [...clusters.values()].map((list) => around(list, MARGIN));
}

/** The box around all of them, so much larger. */
export function around(boxes: readonly Box[], margin = 0): Box {
  const left = Math.min(...boxes.map((b) => b.x)) - margin;
  const top = Math.min(...boxes.map((b) => b.y)) - margin;
  const right = Math.max(...boxes.map((b) => b.x + b.width)) + margin;
  const bottom = Math.max(...boxes.map((b) => b.y + b.height)) + margin;
  return { x: left, y: top, width: right - left, height: bottom - top };
}
