import type { Board } from '@/core/circuit';
import type { ComputedVolts } from '@/core/operate';
import type {
  AlivePoint,
  ConverterState,
  OperatingCondition,
  PoweredMode,
  PoweredReading,
  RailVolts,
  TakenReading,
} from '@/core/work';

/**
 * A unit to work out under power, what was read on it since, one more place of it; or the rails of a board at
 * work, or what a sound unit shows at some places.
 * `id` comes back with the answer.
 */
export type PoweredAsked =
  | {
      readonly type: 'unit';
      readonly id: number;
      readonly board: Board;
      readonly condition: OperatingCondition;
      readonly readings: readonly TakenReading[];
    }
  | { readonly type: 'readings'; readonly id: number; readonly readings: readonly TakenReading[] }
  | { readonly type: 'rails'; readonly id: number; readonly board: Board }
  | {
      readonly type: 'expected';
      readonly id: number;
      readonly board: Board;
      readonly condition: OperatingCondition;
      readonly places: readonly Omit<TakenReading, 'value'>[];
    }
  | {
      readonly type: 'place';
      readonly id: number;
      readonly mode: PoweredMode;
      readonly red: string;
      readonly black: string;
    };

/**
 * The unit at work: its state, what gives way, its points in the order in which it comes alive. A point that was read shows
 * what a sound unit would; the others what is to be expected after those readings.
 */
export interface PoweredUnit extends StatedUnit {
  readonly points: readonly AlivePoint[];
  readonly rails: readonly RailVolts[];
}

/** What is said of a unit at work as a whole: its state, its start, what gives way, what was read against what is computed. */
export interface StatedUnit {
  readonly state: ConverterState;
  readonly states: Readonly<Record<string, ConverterState>>;
  readonly period: number | null;
  /** Seconds from switch-on until each controller starts; Infinity: never. */
  readonly starts: Readonly<Record<string, number>>;
  readonly warnings: readonly string[];
  readonly destroys: readonly { readonly ref: string; readonly why: string }[];
  readonly contradictions: readonly { readonly words: string; readonly adopted: boolean }[];
}

export type PoweredAnswer =
  | { readonly type: 'unit'; readonly id: number; readonly unit: PoweredUnit }
  | { readonly type: 'place'; readonly id: number; readonly point: AlivePoint | null }
  | { readonly type: 'rails'; readonly id: number; readonly volts: readonly ComputedVolts[] }
  /** What a sound unit shows at each place, in their order; none where it does not come to rest. */
  | { readonly type: 'expected'; readonly id: number; readonly readings: readonly (PoweredReading | null)[] }
  | { readonly type: 'failed'; readonly id: number; readonly sentence: string };
