import type { SeenReading } from '@/core/expect';
import type { Purpose } from '@/core/job';
import type { UnpoweredMode } from '@/core/meter';
import { COLD_CONDITIONS } from '@/core/ledger';
import type { LedgerEntry } from '@/wire/ledger';

type Reading = Extract<LedgerEntry, { kind: 'reading' }>;

/** The line of a reading on an unpowered board. Whether its place is confirmed is the server's to say. */
export function unpoweredReading(
  { mode, red, black }: { readonly mode: UnpoweredMode; readonly red: string; readonly black: string },
  seen: SeenReading,
  purpose: Purpose,
  ref?: string,
): Reading {
  const unsteady = seen.kind === 'figure' && seen.unsteady === true;
  return {
    kind: 'reading',
    body: {
      mode,
      red,
      black,
      seen,
      purpose,
      ...(ref === undefined ? {} : { ref }),
      placeConfirmed: false,
      conditions: { ...COLD_CONDITIONS, settled: unsteady ? 'creeping' : 'settled' },
    },
  };
}
