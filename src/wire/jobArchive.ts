import { z } from 'zod';
import { BoardJson, NameplateJson } from './boardJson';
import { JOB_TAG } from './ids';
import { Source } from './jobForm';
import { PhotoMarks, SIDES } from './photoMarks';

const When = z.iso.datetime();
const Seq = z.number().int().min(1).max(1_000_000);
const Place = z.number().int().min(0).max(99);

/**
 * A line of the log as a file holds it: what the database keeps, with other lines named by their number and boards by their place.
 * Which run of which machine wrote it is left out: how long a proof has held is known there alone.
 */
const ArchivedLine = z.strictObject({
  seq: Seq,
  at: When,
  actor: z.string().trim().min(1).max(60),
  board: Place.nullable(),
  kind: z.string().min(1).max(40),
  body: z.record(z.string(), z.unknown()),
  reverses: Seq.nullable(),
  clientKey: z.uuid(),
});
export type ArchivedLine = z.output<typeof ArchivedLine>;

/** A whole job as a file, published as docs/job.schema.json: what was taken in, where its boards began, and its log. */
export const JobArchive = z.strictObject({
  format: z.literal('rough-lantern-job-archive'),
  version: z.literal(1),
  job: z.strictObject({
    tag: z.string().regex(JOB_TAG),
    bench: z.string().trim().min(1).max(60),
    unit: z.string().trim().min(1).max(120),
    serial: z.string().max(80),
    nameplate: NameplateJson,
    complaint: z.string().max(2000),
    symptoms: z.array(z.string().max(40)).max(60),
    history: z.string().max(2000),
    accessories: z.string().max(500),
    sources: z.array(Source).min(1).max(8),
    createdAt: When,
  }),
  boards: z
    .array(
      z.strictObject({
        label: z.string().trim().min(1).max(60),
        origin: z.enum(['typical', 'netlist', 'json', 'copy', 'empty', 'edit']),
        start: BoardJson,
      }),
    )
    .min(1)
    .max(100),
  harnesses: z
    .array(
      z.strictObject({
        fromBoard: Place,
        fromPin: z.string().min(1).max(80),
        toBoard: Place,
        toPin: z.string().min(1).max(80),
      }),
    )
    .max(2000),
  lines: z.array(ArchivedLine).max(100_000),
  photos: z
    .array(z.strictObject({ file: z.string().min(1).max(120), board: Place, side: z.enum(SIDES), at: When }))
    .max(200),
  marks: z.array(z.strictObject({ board: Place, marks: PhotoMarks })).max(100),
});
export type JobArchive = z.output<typeof JobArchive>;

/** Where a line's body names another line, by kind; null: it names none. */
const NAMES: Readonly<Record<string, string>> = {
  'sweep-rows': 'sweep',
  sweep: 'modification',
  'modification-verdict': 'modification',
};

/** A body with the line that it names called otherwise; what names a line that is not there names none that ever is. */
export function renamed(
  kind: string,
  body: Readonly<Record<string, unknown>>,
  nameOf: (name: string) => string | undefined,
): Record<string, unknown> {
  const key = NAMES[kind];
  const named = key === undefined ? undefined : body[key];
  return key === undefined || typeof named !== 'string' ? { ...body } : { ...body, [key]: nameOf(named) ?? '0' };
}
