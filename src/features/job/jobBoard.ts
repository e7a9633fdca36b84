import type { Board } from '@/core/circuit';
import type { TraceEntry, TracedBoard } from '@/core/trace';

/** A board as it follows from its start and the tracing facts that stand, those on their way to the server included. */
export interface JobBoard {
  readonly id: string;
  readonly label: string;
  readonly damaged: string | null;
  readonly board: Board;
  readonly start: Board;
  /** Without what was changed or fitted since: what the readings of the fault-finding were taken on. */
  readonly asFound: Board;
  readonly entries: readonly TraceEntry[];
  readonly trace: TracedBoard;
}
