import { upcast } from '@/core/ledger';
import type { LedgerKind, StoredEntry } from '@/core/ledger';

/** An entry of a test's log: what its body leaves out is filled in as for a line of an earlier version. */
export function entryOf(kind: string, body: unknown): StoredEntry {
  return { kind, body: upcast(kind as LedgerKind, body) ?? body } as StoredEntry;
}
