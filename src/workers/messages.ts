import type { Board } from '@/core/circuit';
import type {
  ComplaintSigns,
  Creep,
  DictionaryPart,
  DictionaryShare,
  Evidence,
  Finding,
  PlannedReading,
  ProbePoint,
  Suspect,
  Symptom,
  TakenReading,
} from '@/core/diagnose';
import type { SignalEvidence } from '@/core/meter';
import type { PowerPermit, PresentReading } from '@/core/permit';

/** What the page asks of the diagnosis worker. `number` returns with the answer: an old answer is dropped. */
export type DiagnoseRequest =
  | {
      readonly type: 'open';
      readonly number: number;
      readonly board: Board;
      readonly symptoms: readonly Symptom[];
      /** Those beside the meter that the workshop has. */
      readonly instruments: readonly SignalEvidence[];
      /** How many threads may help. */
      readonly helpers: number;
    }
  /** The board as it is now, changes and fitted parts included: what a permit to power is for. */
  | { readonly type: 'present'; readonly number: number; readonly board: Board }
  /** What units with these faults would show, by the label of the fault: more of it as it is worked out. */
  | {
      readonly type: 'signs';
      readonly number: number;
      readonly entries: readonly (readonly [label: string, signs: ComplaintSigns | null])[];
    }
  | {
      readonly type: 'weigh';
      readonly number: number;
      /** The numbers under which the board was opened and presented: of another board nothing is said. */
      readonly opened: number;
      readonly presented: number;
      readonly readings: readonly TakenReading[];
      /** Those that hold for the board as it is now, with where it was changed since. */
      readonly present: readonly PresentReading[];
      readonly skipped: readonly ProbePoint[];
      /** What was seen on the board. */
      readonly findings: readonly Finding[];
    };

/** What is asked of a worker that helps with a dictionary. */
export interface DictionaryAsked {
  readonly board: Board;
  readonly symptoms: readonly Symptom[];
  readonly share: DictionaryShare;
}

/** How many hypotheses of its share it has, and at last all that is predicted of them. */
export type DictionaryAnswer =
  { readonly type: 'progress'; readonly done: number } | { readonly type: 'part'; readonly part: DictionaryPart };

/** A board whose faults are worked out under power for the complaints of its job. */
export interface ComplaintAsked {
  readonly board: Board;
  readonly symptoms: readonly Symptom[];
}

/** What was worked out since the last answer, and how far it is. */
export interface ComplaintAnswer {
  readonly entries: readonly (readonly [label: string, signs: ComplaintSigns | null])[];
  readonly done: number;
  readonly of: number;
}

/** A planned reading without the parts only the worker needs. */
export interface PlanEntry extends ProbePoint {
  readonly gainBits: number;
  readonly seconds: number;
  readonly settle: number;
  readonly split: readonly number[];
  /** It was read before: once more, because much hangs on it. */
  readonly again: boolean;
  readonly creep: Creep | null;
}

/** What the worker answers. Failures are data, never exceptions. */
export type DiagnoseAnswer =
  /** So many hypotheses are worked out; `opened`: and those are what is weighed from now on. */
  | { readonly type: 'progress' | 'opened'; readonly number: number; readonly done: number; readonly of: number }
  | { readonly type: 'presented'; readonly number: number }
  | {
      readonly type: 'weighed';
      readonly number: number;
      /** Of which board: the number under which it was opened, and the one it was presented under for the permit. */
      readonly opened: number;
      readonly presented: number;
      readonly suspects: readonly Suspect[];
      readonly plan: readonly PlanEntry[];
      /** Null while the list of readings that earn it is being worked out. */
      readonly permit: PowerPermit | null;
      /** Hypotheses weighed, of how many there are; nothing is called before all are. */
      readonly done: number;
      readonly of: number;
      /** Instruments beside the meter whose readings are among those that it goes by. */
      readonly instruments: readonly SignalEvidence[];
      /** Milliseconds it took until so many were worked out. */
      readonly tookMs: number;
      readonly ledBy: 'readings' | 'prior' | null;
      readonly evidence: Evidence | null;
      readonly verdict: 'named' | 'cannot-tell' | 'open';
      /** Probability that something is wrong with each part, by designator. */
      readonly byPart: ReadonlyMap<string, number>;
    }
  | {
      readonly type: 'failed';
      readonly of: DiagnoseRequest['type'];
      readonly number: number;
      readonly sentence: string;
    };

/** A planned reading as it crosses to the page. */
export function planEntry({ point, gainBits, seconds, split, again, creep }: PlannedReading): PlanEntry {
  const { mode, red, black, settle } = point;
  return { mode, red, black, gainBits, seconds, settle, split, again, creep };
}
