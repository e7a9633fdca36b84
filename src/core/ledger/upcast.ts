import { COLD_CONDITIONS } from './bodies';
import type { LedgerKind } from './bodies';

/** Makes the body of one version into that of the next. */
export type Upcaster = (body: Readonly<Record<string, unknown>>) => Readonly<Record<string, unknown>>;

/**
 * What lines of earlier versions lack, kind by kind: the n-th entry makes version n into version n + 1. A line is
 * written with the newest version and opens for ever, so nothing is ever taken out of this table.
 */
export const UPCASTERS: Readonly<Partial<Record<LedgerKind, readonly Upcaster[]>>> = {
  reading: [
    // From before the server said whether the place was sure, and before conditions were written out.
    (body) => ({
      placeConfirmed: false,
      ...body,
      conditions: { ...COLD_CONDITIONS, ...(body['conditions'] as object | undefined) },
    }),
  ],
  // From before a job could be put away.
  'job-state': [(body) => ({ ...body, archived: false })],
};

/** The version that lines of a kind are written with now. */
export function newestVersion(kind: LedgerKind): number {
  return (UPCASTERS[kind]?.length ?? 0) + 1;
}

/** A stored body with its version taken off and brought to the newest one; null when it is none that was ever written. */
export function upcast(kind: LedgerKind, stored: unknown): Readonly<Record<string, unknown>> | null {
  if (stored === null || typeof stored !== 'object' || Array.isArray(stored)) return null;
  const { v = 1, ...body } = stored as Readonly<Record<string, unknown>>;
  const newest = newestVersion(kind);
  if (typeof v !== 'number' || !Number.isInteger(v) || v < 1 || v > newest) return null;
  return (UPCASTERS[kind] ?? []).slice(v - 1).reduce((at, up) => up(at), body as Readonly<Record<string, unknown>>);
}
