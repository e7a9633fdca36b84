import { z } from 'zod';
import { SWEEP_COLUMNS } from '@/core/sweep';
import type { SweepColumn } from '@/core/sweep';
import { RowId } from './ids';

const Net = z.string().min(1).max(64);
const Ref = z.string().min(1).max(64);
const Pin = z.string().min(1).max(8);
const Positive = z.number().positive().max(1e12);
const NotNegative = z.number().min(0).max(1e12);
const LineId = RowId;
const Words = z.string().trim().max(2000);

/** A board changed on purpose, by its parameters; the same shape as the core's `Change`. */
export const ChangeJson = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('output-voltage'),
    rail: Net,
    return: Net,
    tap: Net,
    vRef: Positive,
    vTarget: Positive,
    modify: z.enum(['top', 'bottom']),
    series: z.enum(['E12', 'E24', 'E96']),
    loadVolts: Positive.optional(),
  }),
  z.strictObject({
    kind: z.literal('lock-out'),
    ref: Ref,
    pin: Pin,
    rail: Net,
    return: Net,
    vTh: Positive,
    vRise: Positive,
    vHyst: NotNegative,
    vBrownOut: NotNegative,
    rBottom: Positive,
    series: z.enum(['E24', 'E96']),
    hystNet: Net.optional(),
  }),
  z.strictObject({
    kind: z.literal('start-on-load'),
    rail: Net,
    return: Net,
    connector: Ref,
    pin: Pin,
    vBe: Positive,
    iMin: Positive,
    iMax: Positive,
    vDropMax: Positive,
    ratedWatts: Positive,
    wakes: Net,
    loadVoltsMin: Positive.optional(),
  }),
]);

const Given = z.record(
  z.string().min(1).max(40),
  z.union([z.number(), z.string().max(40), z.array(z.number()).max(500)]),
);

/** A kept sum: what it was given, and which figure of the board each bound input follows. */
export const SumBody = z.strictObject({
  name: z.string().min(1).max(40),
  inputs: Given,
  bound: z.record(z.string().min(1).max(40), z.string().min(1).max(140)),
  words: Words,
});

const ExpectedStepJson = z.strictObject({
  setBy: z.enum(['vin', 'iout']),
  set: z.number(),
  words: z.string().max(200),
  nominal: z.number(),
  low: z.number(),
  high: z.number(),
  off: z.boolean(),
});

/** A kept change of a board: what was decided, the parts it took, the sweep that was to prove it. */
export const ModificationBody = z.strictObject({
  title: z.string().trim().min(1).max(200),
  why: Words.min(3),
  change: ChangeJson,
  facts: z.array(z.string().min(1).max(500)).min(1).max(40),
  parts: z.array(z.strictObject({ ref: Ref, words: z.string().max(300) })).max(40),
  sum: z.strictObject({ name: z.string().min(1).max(40), inputs: Given }),
  reaches: z.number().nullable(),
  steps: z.array(ExpectedStepJson).max(40),
});

export const ModificationVerdictBody = z.strictObject({
  modification: LineId,
  verified: z.boolean(),
  words: Words,
});

const Column = z.enum(Object.keys(SWEEP_COLUMNS) as [SweepColumn, ...SweepColumn[]]);

/** A sweep as it was set up; its rows come in lines of their own. */
export const SweepBody = z.strictObject({
  title: z.string().trim().min(1).max(200),
  setBy: Column,
  claimed: z.strictObject({ column: Column, value: Positive, tolerance: z.number().min(0).max(1) }).nullable(),
  sagLimit: z.number().min(0).max(1),
  efficiency: z.number().min(0).max(1).nullable(),
  /** The change that it proves. */
  modification: LineId.nullable(),
});

/** The most characters of one batch of rows. */
export const MOST_SWEEP_TEXT = 600_000;

/** Rows of a sweep as CSV with headings, without derived columns. */
export const SweepRowsBody = z.strictObject({
  sweep: LineId,
  csv: z.string().min(1).max(MOST_SWEEP_TEXT),
  count: z.number().int().min(1).max(20_000),
});
