import type { Board } from '../circuit';
import { linesOf } from '../ledger';
import type { LedgerBodies, LedgerLine } from '../ledger';
import { judgeSteps, keptStress } from '../modify';
import type { StepResult } from '../modify';
import type { StressRow } from '../stress';
import type { KeptSweep } from './sweeps';

/** A kept change with where it stands: what it bears on the board now, its sweep, its mark. */
export interface Modification {
  readonly id: string;
  readonly at: number;
  readonly actor: string;
  readonly body: LedgerBodies['modification'];
  readonly stress: readonly StressRow[];
  readonly sweep: KeptSweep | null;
  readonly results: readonly StepResult[];
  readonly verdict: { readonly verified: boolean; readonly words: string; readonly actor: string } | null;
}

/** The changes of a board on purpose, newest first. */
export function modificationsOf(
  lines: readonly LedgerLine[],
  { id, board }: { readonly id: string; readonly board: Board },
  sweeps: readonly KeptSweep[],
): readonly Modification[] {
  const verdicts = linesOf(lines, 'modification-verdict');
  return linesOf(lines, 'modification')
    .filter(({ line }) => line.boardId === id)
    .map(({ line, body }): Modification => {
      const sweep = sweeps.find((s) => s.setup.modification === line.id) ?? null;
      const said = verdicts.filter((v) => v.body.modification === line.id).at(-1);
      return {
        id: line.id,
        at: line.at,
        actor: line.actor,
        body,
        stress: keptStress(board, body.change, body.reaches),
        sweep,
        results: judgeSteps(body.steps, sweep?.rows ?? []),
        verdict: said ? { verified: said.body.verified, words: said.body.words, actor: said.line.actor } : null,
      };
    })
    .reverse();
}
