import { z } from 'zod';
import { pool } from '@/data/pool';
import { markPhoto } from '@/usecases/takePhoto';
import { MarkChange } from '@/wire/photoMarks';
import { handleChange } from '../../../handle';
import { RowId } from '@/wire/ids';

const Change = z.strictObject({ boardId: RowId, change: MarkChange });

export async function POST(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  const { tag } = await params;
  return handleChange(request, Change, 20_000, ({ boardId, change }) =>
    markPhoto(pool(), tag, boardId, change, new Date()),
  );
}
