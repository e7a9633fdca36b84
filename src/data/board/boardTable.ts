import { z } from 'zod';
import { ProblemError } from '@/core/problem';
import { BoardJson, boardTrouble } from '@/wire/boardJson';
import type { BoardKind } from '@/core/job';
import type { Db, Tx } from '../pool';
import { manyRows, maybeRow, oneRow, refusals } from '../rows';

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
  .strictObject({ id: z.string(), label: z.string(), version: z.number(), origin: z.string(), content: Content })
  .transform(({ content: { content, damaged }, ...row }) => ({ ...row, content, damaged }));
/** A board of a job in its latest version. */
export type StoredBoard = z.output<typeof Row>;
export type BoardOrigin = 'typical' | 'netlist' | 'json' | 'copy' | 'empty' | 'edit' | BoardKind;

/** The boards of a job, each in its latest version, in the order they were added. */
export async function boardsOf(db: Db, jobId: string): Promise<readonly StoredBoard[]> {
  const { rows } = await db.query(
    `select distinct on (b.id) b.id, b.label, v.version, v.origin, v.content
     from board b join board_version v on v.board_id = b.id
     where b.job_id = $1 order by b.id, v.version desc`,
    [jobId],
  );
  return manyRows(Row, rows);
}

const Newest = z.strictObject({ id: z.string(), created_at: z.date() });

/** A name for the latest version of a job's board that no other content ever has, and its row's id; null: no such board. */
export async function newestVersion(
  db: Db,
  jobId: string,
  boardId: string,
): Promise<{ readonly id: string; readonly mark: string } | null> {
  const { rows } = await db.query(
    `select v.id, v.created_at from board b join board_version v on v.board_id = b.id
     where b.job_id = $1 and b.id = $2 order by v.version desc limit 1`,
    [jobId, boardId],
  );
  const row = maybeRow(Newest, rows);
  return row && { id: row.id, mark: `${row.id} ${row.created_at.getTime()}` };
}

/** What a version of a board holds. */
export async function versionContent(db: Db, versionId: string): Promise<BoardJson> {
  const { rows } = await db.query('select content from board_version where id = $1', [versionId]);
  return oneRow(z.strictObject({ content: Content }), rows).content.content;
}

/** The ids of a job's boards, in the order they were added. */
export async function boardIdsOf(db: Db, jobId: string): Promise<readonly string[]> {
  const { rows } = await db.query('select id from board where job_id = $1 order by id', [jobId]);
  return manyRows(z.strictObject({ id: z.string() }), rows).map((row) => row.id);
}

/** The content that a job's boards had before any fact of the ledger, by board id. */
export async function startsOf(db: Db, jobId: string): Promise<ReadonlyMap<string, BoardJson>> {
  const { rows } = await db.query(
    `select distinct on (b.id) b.id, v.content
     from board b join board_version v on v.board_id = b.id
     where b.job_id = $1 and v.origin not in ('trace', 'modification', 'replacement') order by b.id, v.version desc`,
    [jobId],
  );
  const Start = z.strictObject({ id: z.string(), content: Content });
  return new Map(manyRows(Start, rows).map((row) => [row.id, row.content.content]));
}

/** Adds a board to a job, with its first version. Gives the board's id. Throws ProblemError `label-taken`. */
export async function insertBoard(
  tx: Tx,
  jobId: string,
  label: string,
  origin: BoardOrigin,
  content: BoardJson,
  at: Date,
): Promise<string> {
  const { rows } = await tx
    .query('insert into board (job_id, label) values ($1, $2) returning id', [jobId, label])
    .catch(
      refusals({
        board_label_key: () => ({
          code: 'label-taken',
          sentence: `This job already has a board called ${label}.`,
          remedy: 'Nothing was added: give it another name.',
        }),
      }),
    );
  const { id } = oneRow(z.strictObject({ id: z.string() }), rows);
  await insertVersion(tx, id, 1, origin, content, at);
  return id;
}

/** Adds a version to a board; the old ones stay. */
export async function insertVersion(
  tx: Tx,
  boardId: string,
  version: number,
  origin: BoardOrigin,
  content: BoardJson,
  at: Date,
): Promise<void> {
  // What is written is held to what it will meet when it is read.
  const trouble = boardTrouble(content);
  if (trouble !== null)
    throw new ProblemError({
      code: 'bad-board',
      sentence: `This board could not be read again: ${trouble}.`,
      remedy: 'Nothing was written; what you typed is kept. Correct it and try again.',
    });
  await tx.query(
    'insert into board_version (board_id, version, origin, content, created_at) values ($1, $2, $3, $4, $5)',
    [boardId, version, origin, JSON.stringify(content), at],
  );
}
