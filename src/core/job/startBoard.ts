import type { Board } from '../circuit';
import type { TraceEntry, TracedBoard } from '../trace';

/** What a board of a job started from; damaged: why it cannot be read, null when it can. */
export interface StartBoard {
  readonly id: string;
  readonly label: string;
  readonly damaged: string | null;
  readonly start: Board;
}

/** A board as it follows from its start and the tracing facts that stand, those on their way to the server included. */
export interface TracedJobBoard extends StartBoard {
  readonly board: Board;
  /** Without what was changed or fitted since: what the readings of the fault-finding were taken on. */
  readonly asFound: Board;
  readonly entries: readonly TraceEntry[];
  readonly trace: TracedBoard;
}

/** A board that nothing has been found out about since it was taken in. */
export function untouchedBoard(s: StartBoard): TracedJobBoard {
  const nothing = { contradictions: [], questions: [], misfits: [], touches: 0 };
  return { ...s, board: s.start, asFound: s.start, entries: [], trace: { board: s.start, ...nothing } };
}
