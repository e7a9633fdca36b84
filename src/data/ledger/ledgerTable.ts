import pg from 'pg';
import { z } from 'zod';
import type { LedgerKind } from '@/core/ledger';
import { ProblemError } from '@/core/problem';
import { readEntry, storedBody } from '@/wire/ledger';
import type { NewLine, StoredLine } from '@/wire/ledger';
import type { Db, Tx } from '../pool';
import { steadyTime } from '../steadyClock';
import { byJob, manyRows, maybeRow, oneRow, refusals } from '../rows';

const Row = z
  .strictObject({
    id: z.string(),
    seq: z.number(),
    board_id: z.string().nullable(),
    kind: z.string(),
    body: z.unknown(),
    actor: z.string(),
    at: z.date(),
    reverses: z.string().nullable(),
    boot: z.string().nullable(),
    uptime: z.number().nullable(),
  })
  .transform((row): StoredLine => ({
    id: row.id,
    seq: row.seq,
    boardId: row.board_id,
    entry: readEntry(row.kind, row.body),
    actor: row.actor,
    at: row.at.getTime(),
    boot: row.boot,
    uptime: row.uptime,
    reverses: row.reverses,
  }));

const COLUMNS = 'id, seq, board_id, kind, body, actor, at, reverses, boot, uptime';

/** All lines of a job, newest first. */
export async function ledgerOf(db: Db, jobId: string): Promise<readonly StoredLine[]> {
  const { rows } = await db.query(`select ${COLUMNS} from ledger_line where job_id = $1 order by seq desc`, [jobId]);
  return manyRows(Row, rows);
}

/** Lines of some kinds of several jobs, by job id, with every reversal that may undo them: one query. */
export async function kindsOf(
  db: Db,
  jobIds: readonly string[],
  kinds: readonly LedgerKind[],
): Promise<ReadonlyMap<string, readonly StoredLine[]>> {
  const { rows } = await db.query(
    `select job_id, ${COLUMNS} from ledger_line where job_id = any($1) and kind = any($2)`,
    [jobIds, [...kinds, 'reversal']],
  );
  return byJob(rows, (row) => Row.parse(row));
}

const RawRow = z
  .strictObject({
    id: z.string(),
    seq: z.number(),
    board_id: z.string().nullable(),
    kind: z.string(),
    body: z.record(z.string(), z.unknown()),
    actor: z.string(),
    at: z.date(),
    reverses: z.string().nullable(),
    client_key: z.string(),
  })
  .transform(({ board_id, client_key, ...row }) => ({ ...row, boardId: board_id, clientKey: client_key }));
/** A line as it is kept, read by no version. */
export type RawLine = z.output<typeof RawRow>;

/** All lines of a job as they are kept, oldest first. */
export async function rawLinesOf(db: Db, jobId: string): Promise<readonly RawLine[]> {
  const { rows } = await db.query(
    'select id, seq, board_id, kind, body, actor, at, reverses, client_key from ledger_line where job_id = $1 order by seq',
    [jobId],
  );
  return manyRows(RawRow, rows);
}

/**
 * Writes a line that was kept elsewhere, as it is, under its own number. When it was written there by that machine's steady
 * clock says nothing here. Throws ProblemError `bad-archive`.
 */
export async function insertArchived(tx: Tx, jobId: string, line: Omit<RawLine, 'id'>): Promise<StoredLine> {
  const { seq, boardId, kind, body, actor, at, reverses, clientKey } = line;
  const { rows } = await tx
    .query(
      `insert into ledger_line (job_id, seq, board_id, kind, body, actor, at, reverses, client_key)
       values ($1, $2, $3, $4, $5, $6, $7, $8, $9) returning ${COLUMNS}`,
      [jobId, seq, boardId, kind, JSON.stringify(body), actor, at, reverses, clientKey],
    )
    .catch((error: unknown) => {
      // The database holds a line to more than its shape: what it refuses was never written by us.
      if (!(error instanceof pg.DatabaseError) || error.constraint === undefined) throw error;
      throw new ProblemError({
        code: 'bad-archive',
        sentence: `Line ${seq} of the log cannot be (${error.constraint.replaceAll('_', ' ')}).`,
        remedy: 'Nothing was taken in.',
      });
    });
  return oneRow(Row, rows);
}

/** Every line of several jobs, newest first, by job id: one query. */
export async function ledgersOf(
  db: Db,
  jobIds: readonly string[],
): Promise<ReadonlyMap<string, readonly StoredLine[]>> {
  const { rows } = await db.query(
    `select job_id, ${COLUMNS} from ledger_line where job_id = any($1) order by job_id, seq desc`,
    [jobIds],
  );
  return byJob(rows, (row) => Row.parse(row));
}

/** The standing lines of a board that say something about what is on it, oldest first. */
export async function factsOf(db: Db, boardId: string): Promise<readonly StoredLine[]> {
  const { rows } = await db.query(
    `select ${COLUMNS} from ledger_line l where board_id = $1 and kind in ('trace', 'modification', 'replacement', 'correction')
       and not exists (select 1 from ledger_line r where r.reverses = l.id) order by seq`,
    [boardId],
  );
  return manyRows(Row, rows);
}

/** A line of a job, or null; and whether it has been taken back. */
export async function lineOf(
  db: Db,
  jobId: string,
  lineId: string,
): Promise<{ readonly line: StoredLine; readonly undone: boolean } | null> {
  const { rows } = await db.query(
    `select ${COLUMNS}, exists (select 1 from ledger_line r where r.reverses = l.id) as undone
     from ledger_line l where job_id = $1 and id = $2`,
    [jobId, lineId],
  );
  const [found] = rows as readonly ({ readonly undone: boolean } & Record<string, unknown>)[];
  if (!found) return null;
  const { undone, ...row } = found;
  return { line: Row.parse(row), undone };
}

/** Lines of a job after one of its numbers, oldest first. */
export async function linesAfter(db: Db, jobId: string, seq: number): Promise<readonly StoredLine[]> {
  const { rows } = await db.query(
    `select ${COLUMNS} from ledger_line where job_id = $1 and seq > $2 order by seq limit 500`,
    [jobId, seq],
  );
  return manyRows(Row, rows);
}

/** The line that a client's key already made, or null. */
export async function lineByClientKey(db: Db, jobId: string, clientKey: string): Promise<StoredLine | null> {
  const { rows } = await db.query(`select ${COLUMNS} from ledger_line where job_id = $1 and client_key = $2`, [
    jobId,
    clientKey,
  ]);
  return maybeRow(Row, rows);
}

/**
 * Appends a line; its number follows the job's last, under a lock on the job's row, so that two writers take turns.
 *
 * Throws ProblemError `job-gone`, `board-gone`, `line-gone`, `already-reversed` or `reversal-of-reversal`.
 */
export async function insertLine(tx: Tx, jobId: string, line: NewLine, at: Date): Promise<StoredLine> {
  const numbered = await tx.query('update job set last_seq = last_seq + 1 where id = $1 returning last_seq', [jobId]);
  if (numbered.rows.length === 0) throw new ProblemError(gone('job-gone', 'This job'));
  const { boot, uptime } = steadyTime();
  const seq = z.strictObject({ last_seq: z.number() }).parse(numbered.rows[0]).last_seq;
  const { rows } = await tx
    .query(
      `insert into ledger_line (job_id, seq, board_id, kind, body, actor, at, reverses, client_key, boot, uptime)
       values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11) returning ${COLUMNS}`,
      [
        jobId,
        seq,
        line.boardId,
        line.entry.kind,
        JSON.stringify(storedBody(line.entry)),
        line.actor,
        at,
        line.reverses,
        line.clientKey,
        boot,
        uptime,
      ],
    )
    .catch(
      refusals({
        ledger_board_fkey: () => gone('board-gone', 'This board'),
        ledger_reverses_fkey: () => gone('line-gone', 'The line to undo'),
        ledger_reversed_once: () => ({
          code: 'already-reversed',
          sentence: 'This line has already been undone.',
          remedy: 'Nothing was changed. Reload to see it.',
        }),
        ledger_reversal_of_reversal: () => ({
          code: 'reversal-of-reversal',
          sentence: 'An undo cannot be undone.',
          remedy: 'Write the line again instead.',
        }),
      }),
    );
  return oneRow(Row, rows);
}

function gone(code: string, what: string) {
  return { code, sentence: `${what} is not there any more.`, remedy: 'Nothing was written. Reload the page.' };
}
