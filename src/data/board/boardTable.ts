import { z } from 'zod';
import { ProblemError } from '@/core/problem';
import { BoardJson, boardTrouble } from '@/wire/boardJson';
import type { Db, Tx } from '../pool';
import { byJob, manyRows, maybeRow, oneRow, refusals } from '../rows';

/** Content that fits no schema any more is told as damaged; an empty board stands in for it. */
const Content = z.unknown().transform((raw): { readonly content: BoardJson; readonly damaged: string | null } => {
  const read = BoardJson.safeParse(raw);
  return read.success
    ? { content: read.data, damaged: null }
    : { content: NOTHING_READABLE, damaged: boardTrouble(raw) ?? 'it does not fit the schema' };
});

const NOTHING_READABLE: BoardJson = {
  format: 'rough-lantern-board',
  version: 1,
  title: 'damaged',
  parts: [],
  couplings: [],
  models: [],
  subcircuits: [],
  layout: [],
};

const Row = z
  .strictObject({
    id: z.string(),
    label: z.string(),
    upto: z.number(),
    origin: z.string(),
    content: Content,
    start: Content,
  })
  .transform(({ content: { content, damaged }, start, ...row }) => ({
    ...row,
    content,
    start: start.content,
    damaged: damaged ?? start.damaged,
  }));
/**
 * A board of a job: what it started from, what it is now, and the number of the last line that is in it.
 *
 * damaged  why it cannot be read; null when it can.
 */
export type StoredBoard = z.output<typeof Row>;
/** What a board started from. */
export type BoardOrigin = 'typical' | 'netlist' | 'json' | 'copy' | 'empty' | 'edit';

const COLUMNS = 'id, label, upto, origin, content, start';

/** The boards of a job, in the order they were added. */
export async function boardsOf(db: Db, jobId: string): Promise<readonly StoredBoard[]> {
  const { rows } = await db.query(`select ${COLUMNS} from board where job_id = $1 order by id`, [jobId]);
  return manyRows(Row, rows);
}

/** The boards of several jobs, by job id, in the order they were added: one query. */
export async function boardsOfJobs(
  db: Db,
  jobIds: readonly string[],
): Promise<ReadonlyMap<string, readonly StoredBoard[]>> {
  const { rows } = await db.query(`select job_id, ${COLUMNS} from board where job_id = any($1) order by id`, [jobIds]);
  return byJob(rows, (row) => Row.parse(row));
}

/** One board of a job, or null. */
export async function boardOf(db: Db, jobId: string, boardId: string): Promise<StoredBoard | null> {
  const { rows } = await db.query(`select ${COLUMNS} from board where job_id = $1 and id = $2`, [jobId, boardId]);
  return maybeRow(Row, rows);
}

/** What a job's board started from; null where the job has no such board. */
export async function startOf(db: Db, jobId: string, boardId: string): Promise<BoardJson | null> {
  const { rows } = await db.query('select start as content from board where job_id = $1 and id = $2', [jobId, boardId]);
  return maybeRow(z.strictObject({ content: Content }), rows)?.content.content ?? null;
}

/** A name for what a board is now that no other content ever has; null where the job has no such board. */
export async function editionOf(db: Db, jobId: string, boardId: string): Promise<string | null> {
  const { rows } = await db.query('select edition from board where job_id = $1 and id = $2', [jobId, boardId]);
  return maybeRow(z.strictObject({ edition: z.string() }), rows)?.edition ?? null;
}

/** What a board is now, by its id alone, to compare with; null where there is none. */
export async function contentOf(db: Db, boardId: string): Promise<BoardJson | null> {
  const { rows } = await db.query('select content from board where id = $1', [boardId]);
  return maybeRow(z.strictObject({ content: Content }), rows)?.content.content ?? null;
}

/** The ids of a job's boards, in the order they were added. */
export async function boardIdsOf(db: Db, jobId: string): Promise<readonly string[]> {
  const { rows } = await db.query('select id from board where job_id = $1 order by id', [jobId]);
  return manyRows(z.strictObject({ id: z.string() }), rows).map((row) => row.id);
}

/** Adds a board to a job as it starts. Gives the board's id. Throws ProblemError `label-taken`, `bad-board`. */
export async function insertBoard(
  tx: Tx,
  jobId: string,
  label: string,
  origin: BoardOrigin,
  content: BoardJson,
): Promise<string> {
  const text = held(content);
  const { rows } = await tx
    .query('insert into board (job_id, label, origin, start, content) values ($1, $2, $3, $4, $4) returning id', [
      jobId,
      label,
      origin,
      text,
    ])
    .catch(
      refusals({
        board_label_key: () => ({
          code: 'label-taken',
          sentence: `This job already has a board called ${label}.`,
          remedy: 'Nothing was added: give it another name.',
        }),
      }),
    );
  return oneRow(z.strictObject({ id: z.string() }), rows).id;
}

/** Keeps what a board is once a line is in it. Throws ProblemError `bad-board`. */
export async function updateBoard(tx: Tx, boardId: string, content: BoardJson, upto: number): Promise<void> {
  await tx.query('update board set content = $2, upto = $3, edition = gen_random_uuid() where id = $1', [
    boardId,
    held(content),
    upto,
  ]);
}

/** What is written is held to what it will meet when it is read. */
function held(content: BoardJson): string {
  const trouble = boardTrouble(content);
  if (trouble === null) return JSON.stringify(content);
  throw new ProblemError({
    code: 'bad-board',
    sentence: `This board could not be read again: ${trouble}.`,
    remedy: 'Nothing was written; what you typed is kept. Correct it and try again.',
  });
}
