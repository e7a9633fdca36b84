import { boardEntries } from '@/core/job';
import type { BoardKind } from '@/core/job';
import { ProblemError } from '@/core/problem';
import { deriveBoard, readShorthand } from '@/core/trace';
import { boardsOf, insertVersion, startsOf } from '@/data/board/boardTable';
import { ledgerOf } from '@/data/ledger/ledgerTable';
import type { Tx } from '@/data/pool';
import { boardFromJson, boardToJson } from '@/wire/boardJson';

/** Refuses a line of the shorthand that cannot be read, with the character where it goes wrong. */
export function checkShorthand(text: string): void {
  const read = readShorthand(text);
  if (!read.ok) throw new ProblemError(read.problem);
  if (read.value === null)
    throw new ProblemError({
      code: 'shorthand',
      sentence: 'This line says nothing.',
      remedy: 'Write a part, a connection or a fact.',
    });
}

/**
 * Derives a board anew from its start and the facts that stand, and keeps the result as a version.
 *
 * origin  the kind of the line that changed it. newest: the line just written, if it is a fact: refused with `no-such-place` when it names what is not there.
 */
export async function retrace(
  tx: Tx,
  jobId: string,
  boardId: string,
  origin: BoardKind,
  newest: string | null,
  now: Date,
): Promise<void> {
  const start = (await startsOf(tx, jobId)).get(boardId);
  const stored = (await boardsOf(tx, jobId)).find((b) => b.id === boardId);
  if (!start || !stored)
    throw new ProblemError({
      code: 'board-gone',
      sentence: 'This board is not there.',
      remedy: 'Nothing was written.',
    });
  const traced = deriveBoard(boardFromJson(start), boardEntries(await ledgerOf(tx, jobId), boardId));
  const misfit = traced.misfits.find((m) => m.id === newest);
  if (misfit)
    throw new ProblemError({
      code: 'no-such-place',
      sentence: misfit.sentence,
      remedy: 'Nothing was written; what you typed is kept.',
    });
  await insertVersion(tx, boardId, stored.version + 1, origin, boardToJson(traced.board), now);
}
