import { netKey } from '@/core/circuit';
import type { Drawing, DrawnPin } from '@/core/drawing';

/** Both leads where they touch: the nearest two pins of the nets, red a diamond, black round, as everywhere. */
export function Leads({ drawing, nets }: { drawing: Drawing; nets: readonly string[] }) {
  const [red, black] = nets;
  if (red === undefined || black === undefined) return null;
  const pins = drawing.symbols.flatMap((s) => s.pins);
  const on = (net: string): readonly DrawnPin[] => pins.filter((p) => netKey(p.net) === netKey(net));
  const pair = nearest(on(red), on(black));
  if (!pair) return null;
  const [r, b] = pair;
  return (
    <g strokeWidth={2.4}>
      <path d={`M${r.x} ${r.y - 8}l8 8l-8 8l-8 -8z`} fill="none" stroke="var(--oxide)" />
      <path d={`M${r.x - 5} ${r.y - 5}l-14 -14`} stroke="var(--oxide)" strokeWidth={4} strokeLinecap="round" />
      <circle cx={b.x} cy={b.y} r={7} fill="none" stroke="var(--ink)" />
      <path d={`M${b.x + 5} ${b.y - 5}l14 -14`} stroke="var(--ink)" strokeWidth={4} strokeLinecap="round" />
    </g>
  );
}

/** Two pins, one of each list, that lie nearest to each other. */
export function nearest(some: readonly DrawnPin[], others: readonly DrawnPin[]): readonly [DrawnPin, DrawnPin] | null {
  let best: readonly [DrawnPin, DrawnPin] | null = null;
  let least = Infinity;
  for (const a of some)
    for (const b of others) {
      // Two pins of one part show where to hold both leads at once.
      const far = Math.hypot(a.x - b.x, a.y - b.y) + (a.ref === b.ref ? 0 : 1e4);
      if (far < least) [best, least] = [[a, b], far];
    }
  return best;
}
