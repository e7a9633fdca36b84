import type { Board } from '@/core/circuit';
import type { Finding, PlannedReading, PowerGate, ProbePoint, Suspect, Symptom, TakenReading } from '@/core/diagnose';

/** What the page asks of the diagnosis worker. `number` returns with the answer: an old answer is dropped. */
export type DiagnoseRequest =
  | { readonly type: 'open'; readonly number: number; readonly board: Board; readonly symptoms: readonly Symptom[] }
  | {
      readonly type: 'weigh';
      readonly number: number;
      readonly readings: readonly TakenReading[];
      readonly skipped: readonly ProbePoint[];
      /** What was seen on the board. */
      readonly findings: readonly Finding[];
    };

/** A planned reading without the parts only the worker needs. */
export interface PlanEntry extends ProbePoint {
  readonly gainBits: number;
  readonly seconds: number;
  readonly settle: number;
  readonly split: readonly number[];
}

/** What the worker answers. Failures are data, never exceptions. */
export type DiagnoseAnswer =
  | { readonly type: 'progress'; readonly number: number; readonly share: number }
  | { readonly type: 'opened'; readonly number: number; readonly hypotheses: number }
  | {
      readonly type: 'weighed';
      readonly number: number;
      readonly suspects: readonly Suspect[];
      readonly plan: readonly PlanEntry[];
      readonly gate: Omit<PowerGate, 'clearing'> & { readonly clearing: readonly ProbePoint[] };
      readonly verdict: 'named' | 'cannot-tell' | 'open';
      /** Probability that something is wrong with each part, by designator. */
      readonly byPart: ReadonlyMap<string, number>;
    }
  | { readonly type: 'failed'; readonly number: number; readonly sentence: string };

/** A planned reading as it crosses to the page. */
export function planEntry({ point, gainBits, seconds, split }: PlannedReading): PlanEntry {
  const { mode, red, black, settle } = point;
  return { mode, red, black, gainBits, seconds, settle, split };
}
