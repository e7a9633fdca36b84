import { pool } from '@/data/pool';
import { changeBoards } from '@/usecases/changeBoards';
import { BoardsChange } from '@/wire/jobForm';
import { handleChange } from '../../../handle';

export async function POST(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  const { tag } = await params;
  return handleChange(request, BoardsChange, 6_000_000, (change) => changeBoards(pool(), tag, change, new Date()));
}
