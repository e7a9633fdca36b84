import type { Pool } from 'pg';
import sharp from 'sharp';
import { ProblemError } from '@/core/problem';
import { boardIdsOf } from '@/data/board/boardTable';
import { insertPhoto, lockMarks, marksOf, photoImage, photosOf, putMarks } from '@/data/photo/photoTable';
import { withTransaction } from '@/data/pool';
import type { Db } from '@/data/pool';
import { RowId } from '@/wire/ids';
import { changeMarks } from '@/wire/photoMarks';
import type { MarkChange, PhotoMarks, Side, StoredPhoto } from '@/wire/photoMarks';
import { requireJob } from './openJob';

/** A picture of more pixels than this is refused before it is decoded. */
const MOST_PIXELS = 60_000_000;
/** Kept no wider or higher than this. */
const KEPT_PIXELS = 2400;

/** What a picture file of each kind begins with: the name it was given counts for nothing. */
function pictureKind(bytes: Buffer): 'jpeg' | 'png' | 'webp' | null {
  if (bytes.subarray(0, 3).equals(Buffer.from([0xff, 0xd8, 0xff]))) return 'jpeg';
  if (bytes.subarray(0, 8).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]))) return 'png';
  if (bytes.subarray(0, 4).toString('latin1') === 'RIFF' && bytes.subarray(8, 12).toString('latin1') === 'WEBP')
    return 'webp';
  return null;
}

const refused = (code: string, sentence: string, remedy: string): ProblemError =>
  new ProblemError({ code, sentence, remedy });

/**
 * Decodes a photograph and makes a picture of our own from it: upright, no larger than needed, without any metadata.
 *
 * Throws ProblemError `not-a-picture`, `too-many-pixels`, `broken-picture`; nothing of a refused file is kept.
 */
export async function readPicture(
  bytes: Buffer,
): Promise<{ readonly width: number; readonly height: number; readonly image: Buffer }> {
  const kind = pictureKind(bytes);
  if (kind === null)
    throw refused(
      'not-a-picture',
      'This file is no JPEG, PNG or WebP picture.',
      'Nothing was taken. Drop a photograph.',
    );
  try {
    const seen = await sharp(bytes, { limitInputPixels: false, failOn: 'truncated' }).metadata();
    if (seen.format !== kind)
      throw refused('not-a-picture', 'This file is not what it says it is.', 'Nothing was taken. Drop a photograph.');
    if (seen.width * seen.height > MOST_PIXELS)
      throw refused(
        'too-many-pixels',
        `This picture has ${Math.round((seen.width * seen.height) / 1e6)} megapixels; 60 are the most.`,
        'Nothing was taken. Make it smaller first.',
      );
    const { data, info } = await sharp(bytes, {
      limitInputPixels: MOST_PIXELS,
      failOn: 'truncated',
      sequentialRead: true,
    })
      .rotate()
      .resize({ width: KEPT_PIXELS, height: KEPT_PIXELS, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#202020' })
      .webp({ quality: 84 })
      .toBuffer({ resolveWithObject: true });
    return { width: info.width, height: info.height, image: data };
  } catch (error) {
    if (error instanceof ProblemError) throw error;
    throw refused(
      'broken-picture',
      'This picture is damaged or cut short.',
      'Nothing was taken. Take it again or save it anew.',
    );
  }
}

/** A picture that was kept once before, as it is; anything else is made into one of our own first. */
export async function keptPicture(bytes: Buffer): ReturnType<typeof readPicture> {
  const seen =
    pictureKind(bytes) === 'webp'
      ? await sharp(bytes, { failOn: 'truncated' })
          .metadata()
          .catch(() => null)
      : null;
  const plain = seen && !seen.exif && !seen.xmp && !seen.icc && (seen.pages ?? 1) === 1;
  const { width = 0, height = 0 } = seen ?? {};
  const own = plain && seen.format === 'webp' && width <= KEPT_PIXELS && height <= KEPT_PIXELS;
  return own ? { width, height, image: bytes } : readPicture(bytes);
}

/** Keeps a photograph of one side of a job's board. Throws what `readPicture` throws, `no-such-job`, `board-gone`. */
export async function takePhoto(
  pool: Pool,
  tag: string,
  boardId: string,
  side: Side,
  bytes: Buffer,
  now: Date,
): Promise<StoredPhoto> {
  await requireBoard(pool, tag, boardId);
  const picture = await readPicture(bytes);
  return withTransaction(pool, (tx) => insertPhoto(tx, boardId, { side, ...picture }, now));
}

/** The bytes of a photograph of this job. Throws `no-such-job`, `no-such-photo`. */
export async function photoOf(db: Db, tag: string, id: string): Promise<Buffer> {
  const job = await requireJob(db, tag);
  const image = RowId.safeParse(id).success ? await photoImage(db, job.id, id) : null;
  if (!image) throw refused('no-such-photo', 'This job has no such photograph.', 'Reload the page.');
  return image;
}

/** The photographs of a job's board and the marks on them. Throws `no-such-job`, `board-gone`. */
export async function photosOfBoard(
  db: Db,
  tag: string,
  boardId: string,
): Promise<{ readonly photos: readonly StoredPhoto[]; readonly marks: PhotoMarks }> {
  await requireBoard(db, tag, boardId);
  return { photos: await photosOf(db, boardId), marks: await marksOf(db, boardId) };
}

/** Applies one change to the marks of a board's photographs; gives all marks as they are then. */
export async function markPhoto(
  pool: Pool,
  tag: string,
  boardId: string,
  change: MarkChange,
  now: Date,
): Promise<PhotoMarks> {
  await requireBoard(pool, tag, boardId);
  return withTransaction(pool, async (tx) => {
    await lockMarks(tx, boardId);
    const marks = changeMarks(await marksOf(tx, boardId), change);
    await putMarks(tx, boardId, marks, now);
    return marks;
  });
}

async function requireBoard(db: Db, tag: string, boardId: string): Promise<void> {
  const job = await requireJob(db, tag);
  if (!(await boardIdsOf(db, job.id)).includes(boardId))
    throw refused('board-gone', 'This board is not of this job.', 'Nothing was written.');
}
