import { z } from 'zod';
import { pool } from '@/data/pool';
import { maybeRow } from '@/data/rows';
import { ProblemError } from '@/core/problem';
import { BoardJson } from '@/wire/boardJson';
import { answer } from '../../handle';

const Row = z.strictObject({ content: BoardJson });

/** A board in its latest version, to compare with. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return answer(async () => {
    const { rows } = /^\d{1,18}$/u.test(id)
      ? await pool().query('select content from board_version where board_id = $1 order by version desc limit 1', [id])
      : { rows: [] };
    const row = maybeRow(Row, rows);
    if (!row)
      throw new ProblemError({ code: 'board-gone', sentence: 'This board is not there.', remedy: 'Choose another.' });
    return row;
  });
}
