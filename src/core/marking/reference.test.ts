import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { decodeMarking } from '.';
import type { MarkKind, RankedReading } from '.';

interface Case {
  readonly mark: string;
  readonly kind: MarkKind | null;
  readonly expect: Wanted | readonly Wanted[] | null;
}
type Wanted = Readonly<Record<string, unknown>>;
const cases = JSON.parse(readFileSync(join(__dirname, '../../../fixtures/reference/markings.json'), 'utf8')) as Case[];

/** Fields that are not compared; all others are, unless null or absent in what is wanted. Numbers agree within a promille. */
const EXPLAINED = ['note', 'system', 'source'];
function agrees(reading: RankedReading, wanted: Wanted): boolean {
  return Object.entries(wanted).every(([key, value]) => {
    if (EXPLAINED.includes(key) || value === null || value === undefined) return true;
    const own: unknown = reading[key as keyof RankedReading];
    const near = (a: unknown, b: unknown): boolean =>
      typeof b === 'number' ? typeof a === 'number' && Math.abs(a - b) <= 1e-3 * Math.abs(b) : a === b;
    return Array.isArray(value)
      ? value.every((v, i) => near((own as unknown[] | undefined)?.[i], v))
      : near(own, value);
  });
}

test.each(cases.map((c) => [`${c.mark} as ${c.kind ?? 'anything'}`, c] as const))('%s', (_title, c) => {
  const readings = decodeMarking(c.mark, c.kind);
  expect(readings.length).toBeLessThanOrEqual(8);
  if (c.expect === null) expect(readings).toEqual([]);
  else if (Array.isArray(c.expect))
    for (const wanted of c.expect as readonly Wanted[])
      expect([wanted, readings.some((r) => agrees(r, wanted))]).toEqual([wanted, true]);
  else {
    const first = readings.slice(0, 3);
    expect([
      first.map((r) => [r.kind, r.value, r.voltage, r.why]),
      first.some((r) => agrees(r, c.expect as Wanted)),
    ]).toEqual([first.map((r) => [r.kind, r.value, r.voltage, r.why]), true]);
  }
});

test('the reference covers every kind of part', () => {
  const kinds = new Set(cases.flatMap((c) => (c.expect === null ? [] : [c.expect].flat().map((e) => e['kind']))));
  expect(kinds.size).toBe(14);
});
