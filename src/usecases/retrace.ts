import { boardEntries } from '@/core/job';
import { ProblemError } from '@/core/problem';
import { deriveBoard, readShorthand } from '@/core/trace';
import { startOf, updateBoard } from '@/data/board/boardTable';
import { factsOf } from '@/data/ledger/ledgerTable';
import type { Tx } from '@/data/pool';
import { boardFromJson, boardToJson } from '@/wire/boardCopy';
import type { StoredLine } from '@/wire/ledger';

/** Refuses a line of the shorthand that cannot be read, with the character where it goes wrong. */
export function checkShorthand(text: string): void {
  const read = readShorthand(text, true);
  if (!read.ok) throw new ProblemError(read.problem);
  if (read.value === null)
    throw new ProblemError({
      code: 'shorthand',
      sentence: 'This line says nothing.',
      remedy: 'Write a part, a connection or a fact.',
    });
}

/**
 * Derives a board anew from its start and the facts that stand, and keeps what it is then.
 *
 * line    the line just written or taken back, which is in it now.
 * newest  its id, if it is a fact: refused with `no-such-place` when it names what is not there.
 */
export async function retrace(
  tx: Tx,
  jobId: string,
  boardId: string,
  line: StoredLine,
  newest: string | null,
): Promise<void> {
  const start = await startOf(tx, jobId, boardId);
  if (!start)
    throw new ProblemError({
      code: 'board-gone',
      sentence: 'This board is not there.',
      remedy: 'Nothing was written.',
    });
  const facts = await factsOf(tx, boardId);
  const traced = deriveBoard(boardFromJson(start), boardEntries(facts, boardId));
  const misfit = traced.misfits.find((m) => m.id === newest);
  if (misfit)
    throw new ProblemError({
      code: 'no-such-place',
      sentence: misfit.sentence,
      remedy: 'Nothing was written; what you typed is kept.',
    });
  await updateBoard(tx, boardId, boardToJson(traced.board), line.seq);
}
