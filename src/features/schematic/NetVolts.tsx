import { netKey } from '@/core/circuit';
import type { Drawing, DrawnWire } from '@/core/drawing';

/** Pixels of a wire that a figure needs above it. */
const ROOM = 46;

/** Volts at work: at each net's longest level wire, above it; far away larger. */
export function NetVolts({
  drawing,
  volts,
  far,
}: {
  drawing: Drawing;
  volts: ReadonlyMap<string, string>;
  far: boolean;
}) {
  const longest = new Map<string, { x: number; y: number; long: number; net: string }>();
  for (const w of drawing.wires) {
    const key = netKey(w.net);
    if (!volts.has(key)) continue;
    for (const piece of levels(w)) {
      const known = longest.get(key);
      if (!known || known.long < piece.long) longest.set(key, { ...piece, net: w.net });
    }
  }
  return (
    <g textAnchor="middle" fontSize={far ? 20 : 10} fill="var(--brass)" fontWeight={600} className="figure">
      {[...longest].flatMap(([key, { x, y, long, net }]) =>
        long < ROOM
          ? []
          : [
              <text
                key={key}
                x={x}
                y={y - 4}
                style={{ paintOrder: 'stroke' }}
                stroke="var(--ground)"
                strokeWidth={3}
                strokeLinejoin="round"
              >
                {`${net} ${volts.get(key)!}`}
              </text>,
            ],
      )}
    </g>
  );
}

/** The level pieces of a wire by their middles. */
function levels(w: DrawnWire): readonly { readonly x: number; readonly y: number; readonly long: number }[] {
  return w.points.slice(1).flatMap(([x, y], i) => {
    const [x0, y0] = w.points[i]!;
    return y === y0 ? [{ x: (x + x0) / 2, y, long: Math.abs(x - x0) }] : [];
  });
}
