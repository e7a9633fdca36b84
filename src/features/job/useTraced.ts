import { useMemo, useState } from 'react';
import { untouchedBoard } from '@/core/job';
import type { StartBoard, TracedJobBoard } from '@/core/job';
import type { NewLine, StoredLine } from '@/wire/ledger';
import type { Engine } from './useEngine';

/**
 * Each board from its start and its tracing facts; a board whose facts have not changed stays the same object. Until the
 * engine is there they are as the server derived them.
 */
export function useTraced(
  engine: Engine | null,
  starts: readonly StartBoard[],
  lines: readonly StoredLine[],
  waiting: readonly NewLine[],
  first: { readonly boards: readonly TracedJobBoard[]; readonly lines: readonly StoredLine[] },
): readonly TracedJobBoard[] {
  const [told] = useState(first);
  const traced = useMemo(() => engine && new engine.TracedBoards(told.boards, told.lines), [engine, told]);
  return useMemo(
    () =>
      starts.map((s) => traced?.of(s, lines, waiting) ?? told.boards.find((b) => b.id === s.id) ?? untouchedBoard(s)),
    [traced, told, starts, lines, waiting],
  );
}
