import { pool } from '@/data/pool';
import { findBoards } from '@/data/board/findBoards';
import { answer } from '../handle';

/** Boards of earlier jobs by something printed on them: `?printed=KV51`. */
export async function GET(request: Request) {
  const words = (new URL(request.url).searchParams.get('printed') ?? '').slice(0, 80);
  return answer(async () => ({ found: words.trim().length < 2 ? [] : await findBoards(pool(), words) }));
}
