import { randomUUID } from 'node:crypto';
import type { Pool } from 'pg';
import { boardOf, boardsOf, insertBoard } from '@/data/board/boardTable';
import type { StoredBoard } from '@/data/board/boardTable';
import { insertHarness } from '@/data/harness/harnessTable';
import type { StoredHarness } from '@/data/harness/harnessTable';
import { insertLine } from '@/data/ledger/ledgerTable';
import { withTransaction } from '@/data/pool';
import type { Tx } from '@/data/pool';
import { boardToJson } from '@/wire/boardCopy';
import type { BoardsChange } from '@/wire/jobForm';
import type { StoredLine } from '@/wire/ledger';
import { chooseBoard } from './chooseBoard';
import { requireJob } from './openJob';

/** What a change of a job's boards made, with its line in the ledger. */
export type BoardsChanged =
  | { readonly kind: 'add'; readonly board: StoredBoard; readonly line: StoredLine }
  | { readonly kind: 'join'; readonly harness: StoredHarness; readonly line: StoredLine };

/**
 * Adds a board to a job, or joins two of its boards by a wire of a harness; with a line in the ledger.
 *
 * Throws ProblemError `no-such-job`, `label-taken`, `board-gone`, `one-board` and what `chooseBoard` throws.
 */
export async function changeBoards(pool: Pool, tag: string, change: BoardsChange, now: Date): Promise<BoardsChanged> {
  const job = await requireJob(pool, tag);
  return withTransaction(pool, (tx) =>
    change.kind === 'add' ? add(tx, job.id, change, now) : join(tx, job.id, change, now),
  );
}

async function add(
  tx: Tx,
  jobId: string,
  { actor, label, board: choice }: Extract<BoardsChange, { kind: 'add' }>,
  now: Date,
): Promise<BoardsChanged> {
  const { board, origin } = await chooseBoard(tx, choice);
  const id = await insertBoard(tx, jobId, label, origin, boardToJson(board));
  const line = await note(tx, jobId, actor, id, `board added: ${label}`, now);
  return { kind: 'add', board: (await boardOf(tx, jobId, id))!, line };
}

async function join(
  tx: Tx,
  jobId: string,
  { actor, fromBoard, fromPin, toBoard, toPin }: Extract<BoardsChange, { kind: 'join' }>,
  now: Date,
): Promise<BoardsChanged> {
  const harness = { fromBoard, fromPin, toBoard, toPin };
  await insertHarness(tx, jobId, harness);
  const boards = await boardsOf(tx, jobId);
  const label = (id: string): string => boards.find((b) => b.id === id)!.label;
  const words = `harness: ${label(fromBoard)} ${fromPin} to ${label(toBoard)} ${toPin}`;
  return { kind: 'join', harness, line: await note(tx, jobId, actor, null, words, now) };
}

function note(
  tx: Tx,
  jobId: string,
  actor: string,
  boardId: string | null,
  words: string,
  now: Date,
): Promise<StoredLine> {
  const entry = { kind: 'action', body: { words } } as const;
  return insertLine(tx, jobId, { clientKey: randomUUID(), actor, boardId, entry, reverses: null }, now);
}
