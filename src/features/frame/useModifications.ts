import { useMemo } from 'react';
import { linesOf } from '@/core/job';
import { judgeSteps, keptStress } from '@/core/modify';
import type { Change, StepResult } from '@/core/modify';
import type { StressRow } from '@/core/stress';
import { useJob } from './JobContext';
import type { JobBoard } from './JobContext';
import { sweepsOf } from './useSweeps';
import type { KeptSweep } from './useSweeps';
import type { LedgerEntry } from '@/wire/ledger';

type Body = Extract<LedgerEntry, { kind: 'modification' }>['body'];

/** A kept change with where it stands: what it bears on the board now, its sweep, its mark. */
export interface Modification {
  readonly id: string;
  readonly at: number;
  readonly actor: string;
  readonly body: Body;
  readonly change: Change;
  readonly stress: readonly StressRow[];
  readonly sweep: KeptSweep | null;
  readonly results: readonly StepResult[];
  readonly verdict: { readonly verified: boolean; readonly words: string; readonly actor: string } | null;
}

/** The changes of a board, newest first; of the board worked on unless told. */
export function useModifications(home?: JobBoard): readonly Modification[] {
  const { lines, active: current } = useJob();
  const active = home ?? current;
  return useMemo(() => {
    const sweeps = sweepsOf(lines);
    const verdicts = linesOf<{ modification: string; verified: boolean; words: string }>(lines, 'modification-verdict');
    return linesOf<Body>(lines, 'modification')
      .filter(({ line }) => line.boardId === active.id)
      .map(({ line, body }): Modification => {
        const change = body.change as Change;
        const sweep = sweeps.find((s) => s.setup.modification === line.id) ?? null;
        const said = verdicts.filter((v) => v.body.modification === line.id).at(-1);
        return {
          id: line.id,
          at: line.at,
          actor: line.actor,
          body,
          change,
          stress: keptStress(active.board, change, body.reaches),
          sweep,
          results: judgeSteps(body.steps, sweep?.rows ?? []),
          verdict: said ? { verified: said.body.verified, words: said.body.words, actor: said.line.actor } : null,
        };
      })
      .reverse();
  }, [lines, active.id, active.board]);
}
