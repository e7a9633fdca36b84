import { z } from 'zod';
import { emptyPlace, statePart } from '@/core/netlist';
import { ProblemError } from '@/core/problem';
import { BASES } from '@/core/quantity';
import { pool } from '@/data/pool';
import { reviseBoard } from '@/usecases/reviseBoard';
import { handleChange } from '../../../handle';

const Change = z.strictObject({
  boardId: z.string().regex(/^\d+$/u),
  actor: z.string().trim().min(1).max(60),
  ref: z.string().min(1).max(64),
  change: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('not-fitted') }),
    z.strictObject({
      kind: z.literal('is'),
      value: z.number().min(0).optional(),
      mark: z.string().trim().max(200).optional(),
      ratedVolts: z.number().positive().max(100_000).optional(),
      basis: z.enum(BASES),
    }),
  ]),
});

export async function POST(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  const { tag } = await params;
  return handleChange(request, Change, 20_000, ({ boardId, actor, ref, change }) => {
    const words =
      change.kind === 'not-fitted'
        ? `${ref}: not on this board`
        : `${ref}: on this board it is ${change.mark ?? change.value ?? 'as shown'} (${change.basis})`;
    return reviseBoard(
      pool(),
      tag,
      boardId,
      actor,
      words,
      (board) => {
        const said =
          change.kind === 'not-fitted'
            ? emptyPlace(board, ref)
            : statePart(board, ref, {
                basis: change.basis,
                ...(change.value === undefined ? {} : { value: change.value }),
                ...(change.mark === undefined ? {} : { mark: change.mark }),
                ...(change.ratedVolts === undefined ? {} : { ratedVolts: change.ratedVolts }),
              });
        if (!said.ok) throw new ProblemError(said.problem);
        return said.value;
      },
      new Date(),
    );
  });
}
