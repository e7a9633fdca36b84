import pg from 'pg';
import type { z } from 'zod';
import { ProblemError } from '@/core/problem';
import type { Problem } from '@/core/problem';

/** The only row of a result; anything else is our mistake. */
export function oneRow<T>(schema: z.ZodType<T>, rows: readonly unknown[]): T {
  if (rows.length !== 1) throw new Error(`expected one row, got ${rows.length}`);
  return schema.parse(rows[0]);
}

/** The only row, or null when there is none. */
export function maybeRow<T>(schema: z.ZodType<T>, rows: readonly unknown[]): T | null {
  if (rows.length > 1) throw new Error(`expected at most one row, got ${rows.length}`);
  return rows.length === 0 ? null : schema.parse(rows[0]);
}

/** Every row, checked. */
export function manyRows<T>(schema: z.ZodType<T>, rows: readonly unknown[]): readonly T[] {
  return rows.map((row) => schema.parse(row));
}

/** Rows by the job they name, each read without that name. */
export function byJob<T>(
  rows: readonly unknown[],
  read: (row: Record<string, unknown>) => T,
): ReadonlyMap<string, readonly T[]> {
  const found = new Map<string, T[]>();
  for (const { job_id, ...row } of rows as readonly Record<string, unknown>[]) {
    const list = found.get(String(job_id));
    if (list) list.push(read(row));
    else found.set(String(job_id), [read(row)]);
  }
  return found;
}

/** The rows that fit, and those that do not as they are: one bad row must not take the others down. */
export function soundRows<T>(
  schema: z.ZodType<T>,
  rows: readonly unknown[],
): { readonly sound: readonly T[]; readonly damaged: readonly unknown[] } {
  const read = rows.map((row) => ({ row, parsed: schema.safeParse(row) }));
  return {
    sound: read.flatMap(({ parsed }) => (parsed.success ? [parsed.data] : [])),
    damaged: read.flatMap(({ row, parsed }) => (parsed.success ? [] : [row])),
  };
}

/** Turns a refusal of the database, known by its constraint, into a problem; everything else passes through. */
export function refusals(known: Readonly<Record<string, () => Problem>>): (error: unknown) => never {
  return (error) => {
    if (error instanceof pg.DatabaseError && error.constraint !== undefined) {
      const problem = known[error.constraint];
      if (problem) throw new ProblemError(problem());
    }
    throw error;
  };
}
