import type { Board } from '@/core/circuit';
import type { AlivePoint, ConverterState, OperatingCondition, PoweredMode } from '@/core/work';

/** A unit to work out under power, or one more place of the one worked out last. `id` comes back with the answer. */
export type PoweredAsked =
  | { readonly type: 'unit'; readonly id: number; readonly board: Board; readonly condition: OperatingCondition }
  | {
      readonly type: 'place';
      readonly id: number;
      readonly mode: PoweredMode;
      readonly red: string;
      readonly black: string;
    };

/** The unit at work: its state, what gives way, its points in the order in which it comes alive. */
export interface PoweredUnit {
  readonly state: ConverterState;
  readonly states: Readonly<Record<string, ConverterState>>;
  readonly period: number | null;
  readonly warnings: readonly string[];
  readonly destroys: readonly { readonly ref: string; readonly why: string }[];
  readonly points: readonly AlivePoint[];
}

export type PoweredAnswer =
  | { readonly type: 'unit'; readonly id: number; readonly unit: PoweredUnit }
  | { readonly type: 'place'; readonly id: number; readonly point: AlivePoint | null }
  | { readonly type: 'failed'; readonly id: number; readonly sentence: string };
