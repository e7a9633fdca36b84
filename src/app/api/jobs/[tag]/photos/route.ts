import { z } from 'zod';
import { pool } from '@/data/pool';
import { photosOfBoard, takePhoto } from '@/usecases/takePhoto';
import { SIDES } from '@/wire/photoMarks';
import { answer, handleUpload } from '../../../handle';
import { RowId } from '@/wire/ids';

const Where = z.object({ board: RowId, side: z.enum(SIDES) });
const MOST_BYTES = 15_000_000;

/** A photograph as the body, `?board=ID&side=front`. */
export async function POST(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  const { tag } = await params;
  const { searchParams } = new URL(request.url);
  return handleUpload(request, Where, Object.fromEntries(searchParams), MOST_BYTES, ({ board, side }, bytes) =>
    takePhoto(pool(), tag, board, side, bytes, new Date()),
  );
}

/** The photographs of a board and the marks on them. */
export async function GET(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  const { tag } = await params;
  const board = new URL(request.url).searchParams.get('board') ?? '';
  return answer(() => photosOfBoard(pool(), tag, board));
}
