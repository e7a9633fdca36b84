import { netKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import type { SchematicLayout } from './elkLayout';
import type { Selection } from './selection';

/** A place of the drawing that is to be seen whole: its middle and how large it is, pixels of the drawing. */
export interface Seen {
  readonly key: string;
  readonly x: number;
  readonly y: number;
  readonly size: { readonly width: number; readonly height: number };
}

/** Room that is left about what is brought into sight. */
const ABOUT = 70;

/**
 * What of a selection is brought into sight: the picked part; else a part that lies on all the nets; else of two nets the two
 * parts, one on each, that lie nearest to each other, both of them whole. Null where nothing of it is drawn.
 */
export function inSight(board: Board, layout: SchematicLayout, { part, nets = [] }: Selection): Seen | null {
  const box = new Map(layout.symbols.map((s) => [s.ref, s]));
  const on = (net: string): readonly string[] =>
    board.parts.flatMap((p) => (layout.at.has(p.ref) && p.nets.some((n) => netKey(n) === netKey(net)) ? [p.ref] : []));
  const around = (refs: readonly string[]): Seen | null => {
    const corners = refs.flatMap((ref) => {
      const [at, symbol] = [layout.at.get(ref), box.get(ref)];
      return at ? [{ ...at, width: symbol?.width ?? 60, height: symbol?.height ?? 30 }] : [];
    });
    if (corners.length === 0) return null;
    const [left, top] = [Math.min(...corners.map((c) => c.x)), Math.min(...corners.map((c) => c.y))];
    const width = Math.max(...corners.map((c) => c.x + c.width)) - left;
    const height = Math.max(...corners.map((c) => c.y + c.height)) - top;
    const size = { width: width + 2 * ABOUT, height: height + 2 * ABOUT };
    return { key: refs.join(' '), x: left + width / 2, y: top + height / 2, size };
  };
  if (part !== undefined) return around([part]);
  const [one, other] = nets;
  if (one === undefined) return null;
  if (other === undefined) return around(on(one).slice(0, 1));
  const there = on(other);
  const both = on(one).find((ref) => there.includes(ref));
  if (both !== undefined) return around([both]);
  const far = (a: string, b: string): number => {
    const [p, q] = [layout.at.get(a)!, layout.at.get(b)!];
    return Math.hypot(p.x - q.x, p.y - q.y);
  };
  const pairs = on(one).flatMap((a) => there.map((b) => [a, b] as const));
  const nearest = pairs.reduce<readonly [string, string] | null>(
    (best, pair) => (best === null || far(...pair) < far(...best) ? pair : best),
    null,
  );
  return nearest && around(nearest);
}
