import { z } from 'zod';
import { PhotoMarks, SIDES, StoredPhoto } from '@/wire/photoMarks';
import type { Side } from '@/wire/photoMarks';
import { lockFor } from '../pool';
import type { Db, Tx } from '../pool';
import { manyRows, maybeRow, oneRow } from '../rows';

/** The newest photograph of each side of a board; older ones stay. */
export async function photosOf(db: Db, boardId: string): Promise<readonly StoredPhoto[]> {
  const { rows } = await db.query(
    'select distinct on (side) id, side, width, height from photo where board_id = $1 order by side, id desc',
    [boardId],
  );
  return manyRows(StoredPhoto, rows);
}

/** Every photograph of a board, older ones too, in the order they were taken. */
export async function everyPhotoOf(
  db: Db,
  boardId: string,
): Promise<readonly { readonly side: Side; readonly at: Date; readonly image: Buffer }[]> {
  const { rows } = await db.query('select side, created_at as at, image from photo where board_id = $1 order by id', [
    boardId,
  ]);
  return manyRows(z.strictObject({ side: z.enum(SIDES), at: z.date(), image: z.instanceof(Buffer) }), rows);
}

/** Keeps a photograph; gives what the page needs to know of it. */
export async function insertPhoto(
  tx: Tx,
  boardId: string,
  photo: { readonly side: Side; readonly width: number; readonly height: number; readonly image: Buffer },
  at: Date,
): Promise<StoredPhoto> {
  const { rows } = await tx.query(
    `insert into photo (board_id, side, width, height, image, created_at) values ($1, $2, $3, $4, $5, $6)
     returning id, side, width, height`,
    [boardId, photo.side, photo.width, photo.height, photo.image, at],
  );
  return oneRow(StoredPhoto, rows);
}

/** The bytes of a photograph of a job's board, or null. */
export async function photoImage(db: Db, jobId: string, id: string): Promise<Buffer | null> {
  const { rows } = await db.query(
    'select p.image from photo p join board b on b.id = p.board_id where p.id = $1 and b.job_id = $2',
    [id, jobId],
  );
  return maybeRow(z.strictObject({ image: z.instanceof(Buffer) }), rows)?.image ?? null;
}

/** The marks on a board's photographs. */
export async function marksOf(db: Db, boardId: string): Promise<PhotoMarks> {
  const { rows } = await db.query('select marks from photo_marks where board_id = $1', [boardId]);
  return maybeRow(z.strictObject({ marks: PhotoMarks }), rows)?.marks ?? PhotoMarks.parse({});
}

/** Writes a board's marks; the caller holds the lock that `lockMarks` took. */
export async function putMarks(tx: Tx, boardId: string, marks: PhotoMarks, at: Date): Promise<void> {
  await tx.query(
    `insert into photo_marks (board_id, marks, updated_at) values ($1, $2, $3)
     on conflict (board_id) do update set marks = excluded.marks, updated_at = excluded.updated_at`,
    [boardId, JSON.stringify(marks), at],
  );
}

/** Makes writers of a board's marks take turns, until the transaction ends. */
export async function lockMarks(tx: Tx, boardId: string): Promise<void> {
  await lockFor(tx, `marks ${boardId}`);
}
