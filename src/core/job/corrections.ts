import type { Nameplate } from '../circuit';
import { linesOf } from '../ledger';
import type { JobFacts, JobSource, LedgerLine, StoredEntry } from '../ledger';

/**
 * A source of energy that was named at any time.
 *
 * first  the name it was taken in with; null for one that was named later, which no older line can mean.
 */
export interface KnownSource extends JobSource {
  readonly id: string;
  readonly first: string | null;
}

/** A job as it is to be read: what was taken in, with the corrections that stand, the later ones last. */
export function correctedJob<T extends JobFacts>(job: T, lines: readonly LedgerLine[]): T {
  const corrections = linesOf(lines, 'correction');
  return corrections.length === 0
    ? job
    : corrections.reduce((made, { body }) => ({ ...made, ...given(body) }), {
        ...job,
        sources: withIds(job.sources),
      });
}

/** Only what a correction names. */
function given(body: Partial<Record<string, unknown>>): object {
  return Object.fromEntries(Object.entries(body).filter(([, value]) => value !== undefined));
}

/** Sources with what each is known by: its own id, or its place in the list. */
export function withIds(sources: readonly JobSource[]): readonly (JobSource & { readonly id: string })[] {
  return sources.map((s, i) => ({ ...s, id: s.id ?? `s${i + 1}` }));
}

/**
 * Every source that was ever named, in the order they were: taken off the list, or a correction taken back, it may be there
 * all the same, so that its isolation is asked for as before.
 *
 * sources  as taken in. lines: with those that wait, if any.
 */
export function everySource(
  sources: readonly JobSource[],
  lines: readonly Pick<LedgerLine, 'entry'>[],
): readonly KnownSource[] {
  const known = new Map<string, KnownSource>();
  for (const s of withIds(sources)) known.set(s.id, { ...s, first: s.name });
  for (const list of said(lines, 'sources'))
    for (const s of withIds(list)) known.set(s.id, { ...s, first: known.get(s.id)?.first ?? null });
  return [...known.values()];
}

/** Every nameplate that was ever said to be the unit's: the most that any of them allows is what may stand. */
export function everyPlate(
  unit: Nameplate | undefined,
  lines: readonly Pick<LedgerLine, 'entry'>[],
): readonly (Nameplate | undefined)[] {
  return [unit, ...said(lines, 'nameplate')];
}

/** What corrections have ever said of one thing, oldest first, whatever became of them. */
function said<K extends keyof JobFacts>(
  lines: readonly { readonly entry: StoredEntry; readonly seq?: number }[],
  what: K,
): readonly JobFacts[K][] {
  const found = lines.filter((l) => l.entry.kind === 'correction');
  return found
    .sort((a, b) => (a.seq ?? Infinity) - (b.seq ?? Infinity))
    .flatMap(({ entry }) => {
      const value = entry.kind === 'correction' ? entry.body[what] : undefined;
      return value === undefined ? [] : [value as JobFacts[K]];
    });
}
