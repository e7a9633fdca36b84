import type { Board } from '@/core/circuit';
import type { ExpectedReading, Moved, Supposition } from '@/core/expect';
import type { RatedUnit, UsableOutput } from '@/core/rate';
import type {
  AlivePoint,
  OperatingCondition,
  RailVolts,
  StartSequence,
  TakenReading,
  WavePlace,
  Waveform,
} from '@/core/work';
import type { StatedUnit } from './poweredMessages';
import type { LimiterStep } from '@/core/diagnose';

/** The board as it is noted, the condition it works in, what was read then, what is supposed of it. */
export interface WorkingAsked {
  readonly board: Board;
  readonly condition: OperatingCondition;
  readonly readings: readonly TakenReading[];
  readonly supposed: readonly Supposition[];
}

/** What is asked of the working board. `id` comes back with every answer. */
export type BoardAsked =
  | ({ readonly type: 'work'; readonly id: number } & WorkingAsked)
  | { readonly type: 'rate'; readonly id: number; readonly board: Board; readonly supposed: readonly Supposition[] }
  | { readonly type: 'wave'; readonly id: number; readonly red: string; readonly black: string }
  | {
      readonly type: 'limiter';
      readonly id: number;
      readonly board: Board;
      readonly condition: OperatingCondition;
      readonly suspects: readonly { readonly fault: string; readonly share: number }[];
    };

/** The unit at work: its state, its points in the order it comes alive, its start, what a supposition moved. */
export interface WorkingUnit extends StatedUnit {
  readonly points: readonly WorkingPoint[];
  readonly waves: readonly WavePlace[];
  readonly rails: readonly RailVolts[];
  readonly sequence: StartSequence;
  /** Against the board as it is noted; null where nothing is supposed. */
  readonly moved: readonly Moved[] | null;
  /** Milliseconds that it took. */
  readonly took: number;
}

/** A point with what it shows between the same leads cold: ohms, null where that says nothing. */
export type WorkingPoint = AlivePoint & { readonly cold: ExpectedReading | null };

export interface RatedBoard {
  readonly rated: RatedUnit;
  readonly usable: UsableOutput | null;
  /** Stresses whose verdict is another one than on the board as it is noted, in words. */
  readonly moved: readonly string[];
}

export type BoardAnswer =
  | { readonly type: 'work'; readonly id: number; readonly unit: WorkingUnit }
  | { readonly type: 'rate'; readonly id: number; readonly rated: RatedBoard | null }
  | { readonly type: 'wave'; readonly id: number; readonly wave: Waveform | null }
  | { readonly type: 'limiter'; readonly id: number; readonly steps: readonly LimiterStep[] }
  | { readonly type: 'progress'; readonly id: number; readonly done: number }
  | { readonly type: 'failed'; readonly id: number; readonly sentence: string };
