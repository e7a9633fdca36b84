import { pool } from '@/data/pool';
import { addLine } from '@/usecases/addLine';
import { NewLine } from '@/wire/ledger';
import { handleChange } from '../../../handle';

export async function POST(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  const { tag } = await params;
  return handleChange(request, NewLine, 700_000, (line) => addLine(pool(), tag, line, new Date()));
}
