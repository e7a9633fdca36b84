import { contentOf } from '@/data/board/boardTable';
import { pool } from '@/data/pool';
import { ProblemError } from '@/core/problem';
import { RowId } from '@/wire/ids';
import { answer } from '../../handle';

/** A board as it is now, to compare with. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return answer(async () => {
    const content = RowId.safeParse(id).success ? await contentOf(pool(), id) : null;
    if (!content)
      throw new ProblemError({ code: 'board-gone', sentence: 'This board is not there.', remedy: 'Choose another.' });
    return { content };
  });
}
