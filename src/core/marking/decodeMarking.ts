import { CAPACITOR_SYSTEMS } from './capacitorMarks';
import { colourBands } from './colourBands';
import { INDUCTOR_SYSTEMS } from './inductorMarks';
import type { MarkKind, MarkReading } from './markReading';
import { PROTECTION_SYSTEMS } from './protectionMarks';
import { RESISTOR_SYSTEMS } from './resistorMarks';
import { SEMICONDUCTOR_SYSTEMS } from './semiconductorMarks';

/** A reading with its share among all that are offered, 0..1. */
export type RankedReading = Omit<MarkReading, 'weight'> & { readonly likelihood: number };

/** More readings than this help nobody. */
const MOST_READINGS = 8;
const MOST_LENGTH = 80;

/**
 * Every reading of what is printed on a part, most likely first; none where no system covers it.
 *
 * kind  the technician's hint: only readings of that kind are given.
 * Source: the systems name theirs; IEC 60062, EIA-96, EIA-198, EIA-535, IEC 60384-14, IEC 60127, and habits of the trade.
 */
export function decodeMarking(mark: string, kind: MarkKind | null = null): readonly RankedReading[] {
  const text = mark
    .normalize('NFC')
    .replace(/\u03bc/gu, 'µ')
    .replace(/\s+/gu, ' ')
    .trim();
  if (text === '' || text.length > MOST_LENGTH) return [];
  const capitals = text.toUpperCase();
  const packed = capitals.replace(/ /gu, '');
  const all = [
    ...RESISTOR_SYSTEMS.flatMap((read) => read(text)),
    ...colourBands(text),
    ...CAPACITOR_SYSTEMS.flatMap((read) => read(text)),
    ...INDUCTOR_SYSTEMS.flatMap((read) => read(text)),
    ...SEMICONDUCTOR_SYSTEMS.flatMap((read) => read(packed)),
    ...PROTECTION_SYSTEMS.flatMap((read) => read(capitals)),
  ].filter((r) => kind === null || r.kind === kind);
  const kept = all.sort((a, b) => b.weight - a.weight).slice(0, MOST_READINGS);
  const total = kept.reduce((sum, r) => sum + r.weight, 0);
  return kept.map(({ weight, ...reading }) => ({ ...reading, likelihood: weight / total }));
}
