import { findPart, netKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import type { Point } from '@/core/registration';
import { nearest } from '@/features/schematic/Leads';
import { SIDES } from '@/wire/photoMarks';
import type { PhotoMarks, Side } from '@/wire/photoMarks';

/** Pads for both leads that can be seen on one photograph. */
export interface LeadPads {
  readonly side: Side;
  readonly red: Point;
  readonly black: Point;
  /** `M1 pin 2`, for those who do not see it. */
  readonly redWords: string;
  readonly blackWords: string;
}

/** Where both leads go on one of the photographs: the pinned pads of their nets that lie nearest; null where none are pinned. */
export function leadPads(board: Board, marks: PhotoMarks, red: string, black: string): LeadPads | null {
  for (const side of [...SIDES].reverse()) {
    const on = (net: string) =>
      marks.pinned.flatMap(({ ref, pin, side: of, at }) => {
        const there = pin === null ? undefined : findPart(board, ref)?.nets[pin];
        return of === side && there !== undefined && netKey(there) === netKey(net)
          ? [{ ...at, ref, words: `${ref} pin ${pin! + 1}` }]
          : [];
      });
    const pair = nearest(on(red), on(black));
    if (pair) return { side, red: pair[0], black: pair[1], redWords: pair[0].words, blackWords: pair[1].words };
  }
  return null;
}

/** What of a picture is shown around two places: as much as they need, never beyond its edge. */
export function around(
  a: Point,
  b: Point,
  picture: { readonly width: number; readonly height: number },
): { readonly x: number; readonly y: number; readonly width: number; readonly height: number } {
  const width = Math.min(
    picture.width,
    Math.max(LEAST, Math.abs(a.x - b.x) + ROUND, (Math.abs(a.y - b.y) + ROUND) * SHAPE),
  );
  const height = Math.min(picture.height, width / SHAPE);
  const within = (middle: number, size: number, most: number): number =>
    Math.min(most - size, Math.max(0, middle - size / 2));
  return {
    x: within((a.x + b.x) / 2, width, picture.width),
    y: within((a.y + b.y) / 2, height, picture.height),
    width,
    height,
  };
}

/** Pixels of a photograph: the least that is shown, what is seen around both places; width to height. */
const LEAST = 280;
const ROUND = 180;
export const SHAPE = 4 / 3;
