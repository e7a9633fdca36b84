'use client';
import { useEffect, useMemo, useState } from 'react';
import { linesOf } from '@/core/ledger';
import { useJob } from './JobContext';
import { useEngine } from './useEngine';
import { readMarks } from './readMarks';
import type { Read, ReadMark } from './readMarks';

/** The parts of the board worked on that were read, by designator: judged one reading after the other while nothing else is to do. */
export function useReadMarks(): ReadonlyMap<string, ReadMark> {
  const { boards, active, lines } = useJob();
  const { board, id } = active;
  const engine = useEngine();
  const [reads, setReads] = useState<readonly Read[]>([]);
  useEffect(() => {
    if (!engine) return;
    const own = (l: { readonly boardId: string | null }): boolean => l.boardId === id;
    // What was read before the last part was fitted is of another board than this.
    const since = Math.max(0, ...linesOf(lines, 'replacement').flatMap(({ line }) => (own(line) ? [line.seq] : [])));
    const list = linesOf(lines, 'reading').filter(({ line }) => own(line) && line.seq > since);
    const made: Read[] = [];
    let timer: ReturnType<typeof setTimeout> | null = null;
    const next = (): void => {
      const one = list[made.length];
      if (!one) {
        setReads(made);
        return;
      }
      const told = engine.judgeReading({ boards, lines }, { ...one.line, body: one.body });
      const { mode, red, black } = one.body;
      made.push({ mode, red, black, outcome: told?.outcome ?? null });
      timer = setTimeout(next, BREATH);
    };
    timer = setTimeout(next, BREATH);
    return () => {
      if (timer !== null) clearTimeout(timer);
    };
  }, [engine, boards, id, lines]);
  return useMemo(() => readMarks(board, reads), [board, reads]);
}

/** Between one reading and the next, milliseconds: keys come first. */
const BREATH = 30;
