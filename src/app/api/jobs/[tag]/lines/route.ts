import { z } from 'zod';
import { pool } from '@/data/pool';
import { addLine } from '@/usecases/addLine';
import { MOST_SWEEP_TEXT } from '@/wire/change';
import { NewLine } from '@/wire/ledger';
import { handleChange } from '../../../handle';

const USUAL_BYTES = 50_000;
const MOST_BYTES = MOST_SWEEP_TEXT + 100_000;
const SweepRows = z.object({ entry: z.object({ kind: z.literal('sweep-rows') }) });

export async function POST(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  const { tag } = await params;
  // Only a batch of sweep rows may be long.
  const mostFor = (raw: unknown): number => (SweepRows.safeParse(raw).success ? MOST_BYTES : USUAL_BYTES);
  return handleChange(request, NewLine, MOST_BYTES, (line) => addLine(pool(), tag, line, new Date()), mostFor);
}
