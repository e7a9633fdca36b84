import { z } from 'zod';

const Point = z.strictObject({ x: z.number().min(-100).max(9000), y: z.number().min(-100).max(9000) });
export const SIDES = ['front', 'back'] as const;
export type Side = (typeof SIDES)[number];
const Ref = z.string().min(1).max(64);

/** A pin or a whole part (pin null) at its place on one side's picture. */
const Pinned = z.strictObject({
  ref: Ref,
  pin: z.number().int().min(0).max(399).nullable(),
  side: z.enum(SIDES),
  at: Point,
});
export type Pinned = z.output<typeof Pinned>;

/** All marks on a board's two photographs: point pairs for the registration, and what is pinned where. */
export const PhotoMarks = z.strictObject({
  pairs: z
    .array(z.strictObject({ front: Point, back: Point }))
    .max(40)
    .default([]),
  pinned: z.array(Pinned).max(4000).default([]),
});
export type PhotoMarks = z.output<typeof PhotoMarks>;
export const NO_MARKS: PhotoMarks = { pairs: [], pinned: [] };

/** One change of the marks; changes are applied one by one, so that two people at work lose nothing. */
export const MarkChange = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('pair'), front: Point, back: Point }),
  z.strictObject({ kind: z.literal('drop-pair'), index: z.number().int().min(0).max(39) }),
  z.strictObject({
    kind: z.literal('swap-pairs'),
    first: z.number().int().min(0).max(39),
    second: z.number().int().min(0).max(39),
  }),
  z.strictObject({ kind: z.literal('pin'), pinned: Pinned }),
  z.strictObject({ kind: z.literal('unpin'), ref: Ref, pin: z.number().int().nullable(), side: z.enum(SIDES) }),
]);
export type MarkChange = z.output<typeof MarkChange>;

/** What the page knows of a photograph; the picture itself comes from `/api/jobs/TAG/photos/ID`. */
export const StoredPhoto = z.strictObject({
  id: z.string(),
  side: z.enum(SIDES),
  width: z.number(),
  height: z.number(),
});
export type StoredPhoto = z.output<typeof StoredPhoto>;

/** Applies a change; indices that are not there change nothing. */
export function changeMarks(marks: PhotoMarks, change: MarkChange): PhotoMarks {
  switch (change.kind) {
    case 'pair':
      return { ...marks, pairs: [...marks.pairs, { front: change.front, back: change.back }].slice(0, 40) };
    case 'drop-pair':
      return { ...marks, pairs: marks.pairs.filter((_, i) => i !== change.index) };
    case 'swap-pairs': {
      const [a, b] = [marks.pairs[change.first], marks.pairs[change.second]];
      if (!a || !b) return marks;
      const pairs = marks.pairs.map((p, i) =>
        i === change.first ? { ...p, front: b.front } : i === change.second ? { ...p, front: a.front } : p,
      );
      return { ...marks, pairs };
    }
    case 'pin': {
      const { ref, pin, side } = change.pinned;
      const others = marks.pinned.filter((p) => p.ref !== ref || p.pin !== pin || p.side !== side);
      return { ...marks, pinned: [...others, change.pinned] };
    }
    case 'unpin':
      return {
        ...marks,
        pinned: marks.pinned.filter((p) => p.ref !== change.ref || p.pin !== change.pin || p.side !== change.side),
      };
  }
}
