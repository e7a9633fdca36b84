import { z } from 'zod';
import type { Db, Tx } from '../pool';
import { manyRows, refusals } from '../rows';

const Row = z
  .strictObject({ from_board: z.string(), from_pin: z.string(), to_board: z.string(), to_pin: z.string() })
  .transform((r) => ({ fromBoard: r.from_board, fromPin: r.from_pin, toBoard: r.to_board, toPin: r.to_pin }));
/** A wire between two boards of a job: board ids and the pins' names. */
export type StoredHarness = z.output<typeof Row>;

/** The wires between a job's boards, in the order they were noted. */
export async function harnessesOf(db: Db, jobId: string): Promise<readonly StoredHarness[]> {
  const { rows } = await db.query(
    'select from_board, from_pin, to_board, to_pin from harness where job_id = $1 order by id',
    [jobId],
  );
  return manyRows(Row, rows);
}

const gone = () => ({
  code: 'board-gone',
  sentence: 'One of these boards is not of this job.',
  remedy: 'Nothing was written.',
});

/** Notes a wire between two boards of one job. Throws ProblemError `board-gone`, `one-board`, `already-joined`. */
export async function insertHarness(tx: Tx, jobId: string, h: StoredHarness): Promise<void> {
  await tx
    .query('insert into harness (job_id, from_board, from_pin, to_board, to_pin) values ($1, $2, $3, $4, $5)', [
      jobId,
      h.fromBoard,
      h.fromPin,
      h.toBoard,
      h.toPin,
    ])
    .catch(
      refusals({
        harness_from_fkey: gone,
        harness_to_fkey: gone,
        harness_once: () => ({
          code: 'already-joined',
          sentence: 'This wire is noted already.',
          remedy: 'Nothing was written.',
        }),
        harness_two_boards: () => ({
          code: 'one-board',
          sentence: 'A harness joins two boards.',
          remedy: 'Choose another board for one of its ends; nothing was written.',
        }),
      }),
    );
}
