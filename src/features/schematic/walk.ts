import { netKey } from '@/core/circuit';
import type { Drawing, DrawnSymbol } from '@/core/drawing';

/** How much nearer something must be that no wire joins, pixels. */
const STRANGER = 250;

const WAYS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/**
 * The part that an arrow key leads to from a part: the nearest in that direction that a wire joins it to, else the nearest of
 * all there. Null where there is none, or where the key is no arrow.
 */
export function walk(drawing: Drawing, ref: string, key: string): string | null {
  const way = WAYS[key];
  const here = drawing.symbols.find((s) => s.refs.includes(ref));
  if (!way || !here) return null;
  const middle = (s: DrawnSymbol): readonly [number, number] => [s.x + s.width / 2, s.y + s.height / 2];
  const [x, y] = middle(here);
  const signs = new Set(drawing.names.flatMap((n) => (n.sign === null ? [] : [netKey(n.net)])));
  const nets = new Set(here.pins.map((p) => netKey(p.net)).filter((n) => !signs.has(n)));
  let best: string | null = null;
  let least = Infinity;
  for (const s of drawing.symbols) {
    if (s === here) continue;
    const [dx, dy] = [middle(s)[0] - x, middle(s)[1] - y];
    const along = dx * way[0] + dy * way[1];
    const aside = Math.abs(dx * way[1]) + Math.abs(dy * way[0]);
    if (along <= 0 || aside > 2 * along) continue;
    const joined = s.pins.some((p) => nets.has(netKey(p.net)));
    const far = along + 2 * aside + (joined ? 0 : STRANGER);
    if (far < least) [best, least] = [s.refs[0]!, far];
  }
  return best;
}
