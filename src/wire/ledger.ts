import { z } from 'zod';
import { COLD_CONDITIONS, OUTCOMES, newestVersion, upcast } from '@/core/ledger';
import type { LedgerEntry as CoreEntry, LedgerKind, LedgerLine, StoredEntry } from '@/core/ledger';
import { UNPOWERED_MODES } from '@/core/meter';
import { LOADS, POWERED_MODES } from '@/core/work';
import { ModificationBody, ModificationVerdictBody, SumBody, SweepBody, SweepRowsBody } from './change';
import { RowId } from './ids';
import { Correction } from './jobForm';

const Net = z.string().min(1).max(64);
const Words = z.string().trim().max(2000);
const Ref = z.string().min(1).max(64);

const Seen = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('figure'), value: z.number(), unsteady: z.boolean().optional() }),
  z.strictObject({ kind: z.literal('overload') }),
  z.strictObject({ kind: z.literal('agrees') }),
]);

/** Conditions of a reading, as the trade notes them. */
const Conditions = z.strictObject({
  powered: z.boolean().default(COLD_CONDITIONS.powered),
  suppliedBy: Words.default(COLD_CONDITIONS.suppliedBy),
  load: Words.default(COLD_CONDITIONS.load),
  minutesOn: z.number().min(0).max(100000).nullable().default(COLD_CONDITIONS.minutesOn),
  celsius: z.number().min(-60).max(200).nullable().default(COLD_CONDITIONS.celsius),
  stimulus: z.enum(['none', 'tapped', 'flexed', 'frozen', 'heated']).default(COLD_CONDITIONS.stimulus),
  settled: z.enum(['settled', 'creeping', 'jumping']).default(COLD_CONDITIONS.settled),
});

/** What a ledger line may say, by kind. Derived results are never stored here. */
export const LedgerEntry = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('reading'),
    body: z.strictObject({
      mode: z.enum(UNPOWERED_MODES),
      red: Net,
      black: Net,
      seen: Seen,
      purpose: z.enum(['probe', 'also-check', 'after-repair']).default('probe'),
      ref: Ref.optional(),
      /** Said by the server, whatever was sent. */
      placeConfirmed: z.boolean().default(false),
      conditions: Conditions.prefault({}),
    }),
  }),
  z.strictObject({
    kind: z.literal('powered-reading'),
    body: z.strictObject({
      mode: z.enum(POWERED_MODES),
      red: Net,
      black: Net,
      value: z.number().min(-100000).max(1e9),
      unsteady: z.boolean().optional(),
      source: z.number().min(0).max(5000),
      load: z.enum(LOADS),
    }),
  }),
  z.strictObject({
    kind: z.literal('finding'),
    body: z.strictObject({ place: Words, severity: z.enum(['note', 'doubt', 'fault', 'danger']), words: Words.min(1) }),
  }),
  z.strictObject({
    kind: z.literal('isolation'),
    /** `id` tells two sources of one name apart. */
    body: z.strictObject({ source: z.string().min(1).max(80), id: z.string().min(1).max(20).optional() }),
  }),
  z.strictObject({ kind: z.literal('site'), body: z.strictObject({ wet: z.boolean() }) }),
  z.strictObject({
    kind: z.literal('discharge-proof'),
    body: z.strictObject({
      storeKey: z.string().min(1).max(200),
      refs: z.array(Ref).min(1),
      volts: z.number().min(-5000).max(5000),
      meterProved: z.boolean(),
    }),
  }),
  z.strictObject({ kind: z.literal('recharged'), body: z.strictObject({ why: Words.min(1) }) }),
  z.strictObject({ kind: z.literal('action'), body: z.strictObject({ words: Words.min(1) }) }),
  z.strictObject({
    kind: z.literal('override'),
    body: z.strictObject({ what: z.enum(['proof', 'gate']), reason: Words.min(3) }),
  }),
  z.strictObject({
    kind: z.literal('fault'),
    body: z.strictObject({ fault: z.string().trim().min(1).max(300), words: Words }),
  }),
  z.strictObject({
    kind: z.literal('check-skipped'),
    body: z.strictObject({ ref: Ref, fault: z.string().max(300), reason: Words.min(3) }),
  }),
  z.strictObject({ kind: z.literal('step-closed'), body: z.strictObject({ step: z.enum(['repair']) }) }),
  z.strictObject({
    kind: z.literal('replacement'),
    body: z.strictObject({
      ref: Ref,
      was: Words,
      fitted: z.strictObject({
        source: z.enum(['new', 'salvaged']),
        samePart: z.boolean(),
        value: z.number().positive().optional(),
        ratedVolts: z.number().positive().optional(),
        ratedAmps: z.number().positive().optional(),
        ratedWatts: z.number().positive().optional(),
        lowEsr: z.boolean().optional(),
        celsius105: z.boolean().optional(),
        safetyClass: z.string().max(60).optional(),
        fuseSpeed: z.enum(['T', 'F', 'TT', 'FF', 'M']).optional(),
        fuseBreaking: z.enum(['L', 'H', 'E']).optional(),
      }),
      words: Words,
    }),
  }),
  z.strictObject({
    kind: z.literal('safety-test'),
    body: z.strictObject({ test: z.string().min(1).max(80), result: Words.min(1) }),
  }),
  z.strictObject({ kind: z.literal('trace'), body: z.strictObject({ text: z.string().trim().min(1).max(500) }) }),
  z.strictObject({ kind: z.literal('sum'), body: SumBody }),
  z.strictObject({ kind: z.literal('modification'), body: ModificationBody }),
  z.strictObject({ kind: z.literal('modification-verdict'), body: ModificationVerdictBody }),
  z.strictObject({ kind: z.literal('sweep'), body: SweepBody }),
  z.strictObject({ kind: z.literal('sweep-rows'), body: SweepRowsBody }),
  z.strictObject({
    kind: z.literal('job-state'),
    body: z.strictObject({
      outcome: z.enum(OUTCOMES),
      waitingFor: z.string().trim().max(200),
      archived: z.boolean().default(false),
    }),
  }),
  z.strictObject({ kind: z.literal('correction'), body: Correction }),
  z.strictObject({ kind: z.literal('reversal'), body: z.strictObject({ reason: Words }) }),
]);
export type LedgerEntry = CoreEntry;
export type { StoredEntry };

const KINDS = new Map<string, LedgerKind>(
  LedgerEntry.options.map((o) => [o.shape.kind.value, o.shape.kind.value] as const),
);

/** A stored line's entry, whatever was stored and whenever: what fits no version is told as damaged. */
export function readEntry(kind: string, body: unknown): StoredEntry {
  const known = KINDS.get(kind);
  const newest = known && upcast(known, body);
  const read = LedgerEntry.safeParse({ kind, body: newest });
  return read.success ? read.data : { kind: 'damaged', body: { kind, was: body } };
}

/** The body of an entry as it is stored, with the version it is written in. */
export function storedBody({ kind, body }: LedgerEntry): unknown {
  return { v: newestVersion(kind), ...body };
}

/**
 * A request to add a line. `clientKey` makes a repeated request harmless. What it reverses is named by its id, or by its own
 * client key where its sender has not heard of it yet.
 */
export const NewLine = z.strictObject({
  clientKey: z.uuid(),
  actor: z.string().trim().min(1).max(60),
  boardId: RowId.nullable(),
  entry: LedgerEntry,
  reverses: z.union([RowId, z.uuid()]).nullable().default(null),
});
export type NewLine = Omit<z.output<typeof NewLine>, 'entry'> & { readonly entry: LedgerEntry };

/** A ledger line as the client gets it; the steady clock is null on lines from before there was one. */
export interface StoredLine extends LedgerLine {
  readonly boot: string | null;
  readonly uptime: number | null;
}
