import type { Board } from '@/core/circuit';
import { contentOf, editionOf } from '@/data/board/boardTable';
import type { Db } from '@/data/pool';
import { boardFromJson } from '@/wire/boardCopy';

/** How many boards are kept opened; an edition of a board never changes. */
const MOST_OPEN = 40;
const open = new Map<string, Board>();

/** A board of a job as it is now; null when the job has no such board. */
export async function presentBoard(db: Db, jobId: string, boardId: string): Promise<Board | null> {
  const edition = await editionOf(db, jobId, boardId);
  const known = edition === null ? undefined : open.get(edition);
  const content = edition === null || known ? null : await contentOf(db, boardId);
  const board = known ?? (content && boardFromJson(content));
  if (edition === null || !board) return null;
  // The one used last stands last.
  open.delete(edition);
  open.set(edition, board);
  const [oldest] = open.keys();
  if (open.size > MOST_OPEN && oldest !== undefined) open.delete(oldest);
  return board;
}
