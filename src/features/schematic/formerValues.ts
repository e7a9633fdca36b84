import type { Board } from '@/core/circuit';
import { marking, shortValue } from '@/core/part';
import type { Part } from '@/core/part';

const said = (p: Part): string => shortValue(p) || (marking(p) ?? '');

/** What the parts that were changed or fitted since had been, by designator. */
export function formerValues(asFound: Board, now: Board): ReadonlyMap<string, string> {
  const before = new Map(asFound.parts.map((p) => [p.ref, said(p)]));
  return new Map(
    now.parts.flatMap((p) => {
      const was = before.get(p.ref);
      return was !== undefined && was !== '' && was !== said(p) ? [[p.ref, was] as const] : [];
    }),
  );
}
