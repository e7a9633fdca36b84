import { z } from 'zod';
import type { Db } from '../pool';
import { manyRows } from '../rows';

const Row = z.strictObject({
  tag: z.string(),
  unit: z.string(),
  label: z.string(),
  board_id: z.string(),
  parts: z.number(),
});
/** A board of an earlier job that something printed on it leads to. */
export type FoundBoard = z.output<typeof Row>;

const MOST = 12;

/** Boards whose unit, title or any marking holds the words, newest job first. */
export async function findBoards(db: Db, words: string): Promise<readonly FoundBoard[]> {
  const pattern = `%${words.trim().replace(/[\\%_]/gu, (c) => `\\${c}`)}%`;
  const { rows } = await db.query(
    `select j.tag, coalesce((
         select l.body->>'unit' from ledger_line l where l.job_id = j.id and l.kind = 'correction' and l.body ? 'unit'
         and not exists (select 1 from ledger_line r where r.reverses = l.id) order by l.seq desc limit 1), u.name) as unit,
       b.label, b.id as board_id, jsonb_array_length(b.content->'parts') as parts
     from (
       select id from board where printed ilike $1
       union
       select b.id from board b join job j on j.id = b.job_id join unit u on u.id = j.unit_id where u.name ilike $1
       union
       select b.id from board b join ledger_line l on l.job_id = b.job_id
         where l.kind = 'correction' and l.body->>'unit' ilike $1
     ) found
     join board b on b.id = found.id
     join job j on j.id = b.job_id
     join unit u on u.id = j.unit_id
     order by j.created_at desc limit ${MOST}`,
    [pattern],
  );
  return manyRows(Row, rows);
}
