import type { Nameplate } from '../circuit';
import type { Severity } from '../diagnose';
import type { UnpoweredMode } from '../meter';
import type { Change, ExpectedStep } from '../modify';
import type { FittedPart } from '../substitute';
import type { SumGiven } from '../sums';
import type { SweepColumn } from '../sweep';
import type { OperatingCondition, PoweredMode } from '../work';

/** What a meter showed: a figure, overload, or that it was as expected, without a figure. */
export type SeenAtMeter =
  | { readonly kind: 'figure'; readonly value: number; readonly unsteady?: boolean | undefined }
  | { readonly kind: 'overload' }
  | { readonly kind: 'agrees' };

/** Conditions of a reading, as the trade notes them. celsius in degrees, minutesOn in minutes. */
export interface Conditions {
  readonly powered: boolean;
  readonly suppliedBy: string;
  readonly load: string;
  readonly minutesOn: number | null;
  readonly celsius: number | null;
  readonly stimulus: 'none' | 'tapped' | 'flexed' | 'frozen' | 'heated';
  readonly settled: 'settled' | 'creeping' | 'jumping';
}

/** Conditions of a reading of which nothing else was said: an unpowered board, the figure standing still. */
export const COLD_CONDITIONS: Conditions = {
  powered: false,
  suppliedBy: '',
  load: '',
  minutesOn: null,
  celsius: null,
  stimulus: 'none',
  settled: 'settled',
};

/** A reading between two nets. placeConfirmed: whether the leads were surely there; the server says it. */
export interface ReadingBody {
  readonly mode: UnpoweredMode;
  readonly red: string;
  readonly black: string;
  readonly seen: SeenAtMeter;
  readonly purpose: 'probe' | 'also-check' | 'after-repair';
  readonly ref?: string | undefined;
  readonly placeConfirmed: boolean;
  readonly conditions: Conditions;
}

/** A reading on the unit under power: V or Hz as the meter showed them; source: volts it was fed with. */
export interface PoweredReadingBody {
  readonly mode: PoweredMode;
  readonly red: string;
  readonly black: string;
  readonly value: number;
  readonly unsteady?: boolean | undefined;
  readonly source: number;
  readonly load: OperatingCondition['load'];
}

type Given = Readonly<Record<string, SumGiven>>;

/** How a job may end; `open` until it does. */
export const OUTCOMES = ['open', 'repaired', 'not-worth-repair', 'no-fault-found', 'returned'] as const;
export type JobOutcome = (typeof OUTCOMES)[number];

/** A job's source of energy; `id` tells two of one name apart. */
export interface JobSource {
  readonly id?: string | undefined;
  readonly name: string;
  readonly kind: 'mains' | 'battery' | 'solar' | 'back-feed' | 'dc';
}

/** What was written of a unit when it was taken in. */
export interface JobFacts {
  readonly unit: string;
  readonly serial: string;
  readonly nameplate: Nameplate;
  readonly complaint: string;
  readonly symptoms: readonly string[];
  readonly history: string;
  readonly accessories: string;
  readonly sources: readonly JobSource[];
}

/** What each kind of line says. */
export interface LedgerBodies {
  readonly reading: ReadingBody;
  readonly 'powered-reading': PoweredReadingBody;
  readonly finding: { readonly place: string; readonly severity: Severity; readonly words: string };
  /** `id` tells two sources of one name apart. */
  readonly isolation: { readonly source: string; readonly id?: string | undefined };
  readonly site: { readonly wet: boolean };
  readonly 'discharge-proof': {
    readonly storeKey: string;
    readonly refs: readonly string[];
    readonly volts: number;
    readonly meterProved: boolean;
  };
  readonly recharged: { readonly why: string };
  readonly action: { readonly words: string };
  readonly override: { readonly what: 'proof' | 'gate'; readonly reason: string };
  /** `fault` is a label such as `M1:short(d,s)+F1:open`, or words. */
  readonly fault: { readonly fault: string; readonly words: string };
  readonly 'check-skipped': { readonly ref: string; readonly fault: string; readonly reason: string };
  readonly 'step-closed': { readonly step: 'repair' };
  readonly replacement: {
    readonly ref: string;
    readonly was: string;
    readonly fitted: FittedPart;
    readonly words: string;
  };
  readonly 'safety-test': { readonly test: string; readonly result: string };
  /** A line of the shorthand. */
  readonly trace: { readonly text: string };
  readonly sum: {
    readonly name: string;
    readonly inputs: Given;
    readonly bound: Readonly<Record<string, string>>;
    readonly words: string;
  };
  readonly modification: {
    readonly title: string;
    readonly why: string;
    readonly change: Change;
    readonly facts: readonly string[];
    readonly parts: readonly { readonly ref: string; readonly words: string }[];
    readonly sum: { readonly name: string; readonly inputs: Given };
    readonly reaches: number | null;
    readonly steps: readonly ExpectedStep[];
  };
  readonly 'modification-verdict': {
    readonly modification: string;
    readonly verified: boolean;
    readonly words: string;
  };
  readonly sweep: {
    readonly title: string;
    readonly setBy: SweepColumn;
    readonly claimed: {
      readonly column: SweepColumn;
      readonly value: number;
      readonly tolerance: number;
    } | null;
    readonly sagLimit: number;
    readonly efficiency: number | null;
    /** The line of the change that it proves. */
    readonly modification: string | null;
  };
  readonly 'sweep-rows': { readonly sweep: string; readonly csv: string; readonly count: number };
  readonly 'job-state': { readonly outcome: JobOutcome; readonly waitingFor: string; readonly archived: boolean };
  /** What was taken in wrongly, as it is; nameplate and sources as a whole. What is not named stays as it was. */
  readonly correction: { readonly [K in keyof JobFacts]?: JobFacts[K] | undefined };
  readonly reversal: { readonly reason: string };
}

export type LedgerKind = keyof LedgerBodies;

/** A line that stands in the log but cannot be read any more: kept as it is, told as damaged. */
export interface DamagedEntry {
  readonly kind: 'damaged';
  readonly body: { readonly kind: string; readonly was: unknown };
}

/** What a line may say, by kind. Derived results are never among it. */
export type LedgerEntry = {
  readonly [K in LedgerKind]: { readonly kind: K; readonly body: LedgerBodies[K] };
}[LedgerKind];

/** What a stored line says: what a new one may, or that it is damaged. */
export type StoredEntry = LedgerEntry | DamagedEntry;
