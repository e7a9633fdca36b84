import { useMemo } from 'react';
import { untouchedBoard } from '@/core/job';
import type { StartBoard, TracedJobBoard } from '@/core/job';
import type { NewLine, StoredLine } from '@/wire/ledger';
import type { Engine } from './useEngine';

/**
 * Each board from its start and its tracing facts; a board whose facts have not changed stays the same object. Until the
 * engine is there they are as the server derived them: `first`, always the same.
 */
export function useTraced(
  engine: Engine | null,
  starts: readonly StartBoard[],
  lines: readonly StoredLine[],
  waiting: readonly NewLine[],
  first: { readonly boards: readonly TracedJobBoard[]; readonly lines: readonly StoredLine[] },
): readonly TracedJobBoard[] {
  const traced = useMemo(() => engine && new engine.TracedBoards(first.boards, first.lines), [engine, first]);
  return useMemo(
    () =>
      starts.map((s) => traced?.of(s, lines, waiting) ?? first.boards.find((b) => b.id === s.id) ?? untouchedBoard(s)),
    [traced, first, starts, lines, waiting],
  );
}
