import { linesOf } from '../ledger';
import type { JobSource, LedgerLine } from '../ledger';
import { everySource } from './corrections';
import type { KnownSource } from './corrections';

/** Whether an isolation names a source: by its id, or by a name that only one of them came in with. */
export function isolates(
  body: { readonly source: string; readonly id?: string | undefined },
  sources: readonly KnownSource[],
  i: number,
): boolean {
  if (body.id !== undefined) return sources[i]!.id === body.id;
  const same = ({ first }: KnownSource): boolean => first?.trim().toLowerCase() === body.source.trim().toLowerCase();
  return same(sources[i]!) && sources.filter(same).length === 1;
}

/** Whether a line was read on the unit with its sources connected. */
export const isUnderPower = ({ entry }: Pick<LedgerLine, 'entry'>): boolean => entry.kind === 'powered-reading';

/** Who isolated each source of `everySource`, in its order; null where nobody has, or where it was undone. */
export function isolatedBy(
  takenIn: readonly JobSource[],
  lines: readonly LedgerLine[],
  broughtIn = 0,
): readonly (string | null)[] {
  return isolators(everySource(takenIn, lines), lines, broughtIn);
}

export function isolators(
  sources: readonly KnownSource[],
  lines: readonly LedgerLine[],
  broughtIn: number,
): readonly (string | null)[] {
  // What was read under power was connected, whoever had isolated it before; also where that line was undone.
  const last = Math.max(broughtIn, ...lines.filter(isUnderPower).map((l) => l.seq));
  const standing = linesOf(lines, 'isolation').filter(({ line }) => line.seq > last);
  return sources.map((_, i) => standing.find(({ body }) => isolates(body, sources, i))?.line.actor ?? null);
}

/** The first source that nobody has isolated, or null: while there is one the job is LIVE. takenIn: as the job came. */
export function liveSource(takenIn: readonly JobSource[], lines: readonly LedgerLine[], broughtIn = 0): string | null {
  const sources = everySource(takenIn, lines);
  const by = isolators(sources, lines, broughtIn);
  return sources.find((_, i) => by[i] === null)?.name ?? null;
}
