import type { Pool } from 'pg';
import { randomUUID } from 'node:crypto';
import { ProblemError } from '@/core/problem';
import { boardsOf, insertVersion } from '@/data/board/boardTable';
import { insertLine } from '@/data/ledger/ledgerTable';
import { withTransaction } from '@/data/pool';
import { boardToJson } from '@/wire/boardJson';
import { boardFromJson } from '@/wire/boardJson';
import type { Board } from '@/core/circuit';
import type { StoredLine } from '@/wire/ledger';
import type { BoardJson } from '@/wire/boardJson';
import { requireJob } from './openJob';

/**
 * Makes a new version of a board by a pure change, with a line in the ledger that says what and who.
 * The old version stays. Throws ProblemError `no-such-job` or what `change` throws.
 */
export async function reviseBoard(
  pool: Pool,
  tag: string,
  boardId: string,
  actor: string,
  words: string,
  change: (board: Board) => Board,
  now: Date,
): Promise<{ readonly content: BoardJson; readonly line: StoredLine }> {
  const job = await requireJob(pool, tag);
  return withTransaction(pool, async (tx) => {
    const line = await insertLine(
      tx,
      job.id,
      { clientKey: randomUUID(), actor, boardId, entry: { kind: 'action', body: { words } }, reverses: null },
      now,
    );
    // The line's lock on the job makes versions take turns as well.
    const stored = (await boardsOf(tx, job.id)).find((b) => b.id === boardId);
    if (!stored)
      throw new ProblemError({
        code: 'board-gone',
        sentence: 'This board is not there.',
        remedy: 'Nothing was written.',
      });
    const content = boardToJson(change(boardFromJson(stored.content)));
    await insertVersion(tx, boardId, stored.version + 1, 'edit', content, now);
    return { content, line };
  });
}
