import type { Board } from '@/core/circuit';
import { newestVersion, versionContent } from '@/data/board/boardTable';
import type { Db } from '@/data/pool';
import { boardFromJson } from '@/wire/boardJson';

/** How many boards are kept opened; a version of a board never changes. */
const MOST_OPEN = 40;
const open = new Map<string, Board>();

/** A board of a job as it is now; null when the job has no such board. */
export async function presentBoard(db: Db, jobId: string, boardId: string): Promise<Board | null> {
  const newest = await newestVersion(db, jobId, boardId);
  if (!newest) return null;
  const board = open.get(newest.mark) ?? boardFromJson(await versionContent(db, newest.id));
  // The one used last stands last.
  open.delete(newest.mark);
  open.set(newest.mark, board);
  const [oldest] = open.keys();
  if (open.size > MOST_OPEN && oldest !== undefined) open.delete(oldest);
  return board;
}
