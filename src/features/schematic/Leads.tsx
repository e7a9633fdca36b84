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
      <RedTip at={r} />
      <BlackTip at={b} colour="var(--ink)" />
    </g>
  );
}

interface Place {
  readonly x: number;
  readonly y: number;
}

/** Where the red lead touches; the width of its lines is that of its group. */
export function RedTip({ at: { x, y } }: { at: Place }) {
  return (
    <>
      <path d={`M${x} ${y - 8}l8 8l-8 8l-8 -8z`} fill="none" stroke="var(--oxide)" />
      <path d={`M${x - 5} ${y - 5}l-14 -14`} stroke="var(--oxide)" strokeWidth={4} strokeLinecap="round" />
    </>
  );
}

/** Where the black lead touches. */
export function BlackTip({ at: { x, y }, colour }: { at: Place; colour: string }) {
  return (
    <>
      <circle cx={x} cy={y} r={7} fill="none" stroke={colour} />
      <path d={`M${x + 5} ${y - 5}l14 -14`} stroke={colour} strokeWidth={4} strokeLinecap="round" />
    </>
  );
}

/** Two pins, one of each list, that lie nearest to each other. */
export function nearest<P extends Place & { readonly ref: string }>(
  some: readonly P[],
  others: readonly P[],
): readonly [P, P] | null {
  let best: readonly [P, P] | null = null;
  let least = Infinity;
  for (const a of some)
    for (const b of others) {
      // Two pins of one part show where to hold both leads at once.
      const far = Math.hypot(a.x - b.x, a.y - b.y) + (a.ref === b.ref ? 0 : 1e4);
      if (far < least) [best, least] = [[a, b], far];
    }
  return best;
}
