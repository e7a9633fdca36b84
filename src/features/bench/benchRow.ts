import type { HazardState } from '@/core/safety';

/** One job as the bench lists it. */
export interface BenchRow {
  readonly tag: string;
  readonly unit: string;
  readonly bench: string;
  readonly step: string;
  readonly stepPath: string;
  readonly hazard: HazardState;
  /** Until one of its proofs runs out; null without one. */
  readonly minutesLeft: number | null;
  readonly waitingFor: string;
  readonly next: string;
  readonly last: string;
  readonly done: boolean;
  /** Put away, and no danger to anybody. */
  readonly archived: boolean;
  /** Something of it cannot be read; the export holds it as it is. */
  readonly damaged?: boolean;
}
