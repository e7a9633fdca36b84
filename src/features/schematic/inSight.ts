import { netKey } from '@/core/circuit';
import { around } from '@/core/drawing';
import type { Drawing, DrawnSymbol } from '@/core/drawing';
import { nearest } from './Leads';
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
 * What of a selection is brought into sight: the picked part; else a part that lies on both nets; else the two parts, one on
 * each, that lie nearest to each other, both of them whole. Null where nothing of it is drawn.
 */
export function inSight(drawing: Drawing, { part, nets = [] }: Selection): Seen | null {
  const of = (ref: string): DrawnSymbol | undefined => drawing.symbols.find((s) => s.refs.includes(ref));
  const seen = (refs: readonly string[]): Seen | null => {
    const boxes = refs.flatMap((ref) => of(ref) ?? []);
    if (boxes.length === 0) return null;
    const { x, y, width, height } = around(boxes, ABOUT);
    return { key: refs.join(' '), x: x + width / 2, y: y + height / 2, size: { width, height } };
  };
  if (part !== undefined) return seen([part]);
  const pins = drawing.symbols.flatMap((s) => s.pins);
  const on = (net: string) => pins.filter((p) => netKey(p.net) === netKey(net));
  const [one, other] = nets;
  if (one === undefined) return null;
  if (other === undefined)
    return seen(
      on(one)
        .slice(0, 1)
        .map((p) => p.ref),
    );
  const pair = nearest(on(one), on(other));
  return pair && seen([...new Set(pair.map((p) => p.ref))]);
}
