import { netKey } from '../circuit';
import type { Drawing } from './drawing';

/** Where wires of one net meet: a dot tells a joint from a crossing. */
export function joints(d: Drawing): readonly (readonly [number, number])[] {
  const ends = new Map<string, { at: readonly [number, number]; count: number }>();
  const add = (net: string, at: readonly [number, number]): void => {
    const key = `${netKey(net)} ${at.join(' ')}`;
    const known = ends.get(key);
    if (known) known.count++;
    else ends.set(key, { at, count: 1 });
  };
  for (const w of d.wires) {
    add(w.net, w.points[0]!);
    add(w.net, w.points.at(-1)!);
  }
  for (const pin of d.symbols.flatMap((s) => s.pins)) {
    const key = `${netKey(pin.net)} ${pin.x} ${pin.y}`;
    const known = ends.get(key);
    if (known) known.count++;
  }
  return [...ends.values()].flatMap(({ at, count }) => (count >= 3 ? [at] : []));
}
