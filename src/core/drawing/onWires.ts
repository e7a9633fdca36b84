import { netKey } from '../circuit';
import type { Box, DrawnRail, Drawing } from './drawing';
import { LETTER, overlap } from './lettering';

/** What is to be written at one of these nets, by key, behind its name. */
export interface WantedWords {
  readonly nets: ReadonlySet<string>;
  readonly words: string;
}

/** Size of words at wires, pixels, at which their letters are as wide as those of designators: figures stand in wider ones. */
export const WORDS_SIZE = 10;
/** Between a wire and its words; from one place that is tried to the next; the shortest wire that words stand at. */
const GAP = 3;
const STEP = 15;
const SHORTEST = 20;
/** So many places at either side of a wire's middle. */
const TRIED = 14;

/**
 * Words at the wires of nets, where they cover neither symbols nor letters nor wires: above the longest level wire of one of
 * their nets, else below it, at a shorter one or beside an upright one. What finds no place is left out.
 *
 * size  of the letters, pixels. isFar: only symbols and wires are drawn, no letters.
 */
export function wordsOnWires(
  d: Omit<Drawing, 'rails'>,
  wanted: readonly WantedWords[],
  size = WORDS_SIZE,
  isFar = false,
): readonly DrawnRail[] {
  const pieces = d.wires.flatMap((w) => w.points.slice(1).map((p, i) => pieceOf(w.net, w.points[i]!, p)));
  const taken: Box[] = [
    ...d.symbols,
    ...(isFar ? [] : [...d.texts, ...d.names]),
    ...pieces,
    ...d.barriers.map(({ points: [[x = 0] = []] }) => ({ x, y: 0, width: 0, height: d.height })),
  ];
  const free = (box: Box): boolean => {
    const room = grown(box);
    return (
      box.x >= 0 &&
      box.y >= 0 &&
      box.x + box.width <= d.width &&
      box.y + box.height <= d.height &&
      !taken.some((other) => overlap(room, other))
    );
  };
  return wanted.flatMap(({ nets, words }) => {
    const own = pieces
      .filter((p) => nets.has(netKey(p.net)) && Math.max(p.width, p.height) >= SHORTEST)
      .sort((a, b) => b.width - a.width || b.height - a.height);
    for (const piece of own) {
      const text = `${piece.net} ${words}`;
      const width = (LETTER * text.length * size) / WORDS_SIZE;
      const box = placesAt(piece, width, size).find(free);
      if (!box) continue;
      taken.push(box);
      return [{ net: piece.net, text, ...box }];
    }
    return [];
  });
}

interface Piece extends Box {
  readonly net: string;
}

function pieceOf(net: string, [ax, ay]: readonly [number, number], [bx, by]: readonly [number, number]): Piece {
  return { net, x: Math.min(ax, bx), y: Math.min(ay, by), width: Math.abs(ax - bx), height: Math.abs(ay - by) };
}

/** A box with what it keeps clear of: a line has a body, what touches it covers it. */
const grown = (box: Box): Box => ({
  x: box.x - 1,
  y: box.y - 1,
  width: box.width + 2,
  height: box.height + 2,
});

/** Places for words at a wire, the best first. */
function placesAt(wire: Piece, width: number, height: number): readonly Box[] {
  const shifts = Array.from({ length: 2 * TRIED + 1 }, (_, i) => STEP * (i % 2 === 0 ? -i / 2 : (i + 1) / 2));
  if (wire.height > 0) {
    const middle = wire.y + wire.height / 2;
    return shifts
      .filter((s) => Math.abs(s) <= wire.height / 2)
      .flatMap((s) =>
        [wire.x + GAP, wire.x - GAP - width].map((x) => ({ x, y: middle + s - height / 2, width, height })),
      );
  }
  const middle = wire.x + wire.width / 2;
  const along = shifts.filter((s) => Math.abs(s) <= wire.width / 2);
  return [wire.y - GAP - height, wire.y + GAP].flatMap((y) =>
    along.map((s) => ({ x: middle + s - width / 2, y, width, height })),
  );
}
