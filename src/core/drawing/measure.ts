import { netKey } from '../circuit';
import type { Box, Drawing } from './drawing';

/** How well a board is drawn. */
export interface DrawingFigures {
  readonly symbols: number;
  readonly nets: number;
  readonly crossings: number;
  readonly crossingsPerNet: number;
  readonly bendsPerWire: number;
  /** Share of the nets with two to five pins that are drawn as wires alone, references left out. */
  readonly wired: number;
  readonly overlaps: readonly string[];
  readonly through: readonly string[];
  readonly unreached: readonly string[];
  readonly shape: number;
}

interface Named extends Box {
  readonly what: string;
}

const inside = (a: Box, b: Box): boolean =>
  a.x + 0.01 < b.x + b.width &&
  b.x + 0.01 < a.x + a.width &&
  a.y + 0.01 < b.y + b.height &&
  b.y + 0.01 < a.y + a.height;

/** A wire that ends at a pin touches the edge of its box, pixels. */
const HAIR = 0.5;

/** Measures a drawing by its output alone. */
export function measureDrawing(d: Drawing): DrawingFigures {
  const boxes: Named[] = [
    ...d.symbols.map((s) => ({ ...s, what: s.refs.join(' ') })),
    ...d.texts.map((t) => ({ ...t, what: `text ${t.text} of ${t.of}` })),
    ...d.names.map((n) => ({ ...n, what: `name ${n.net}` })),
    ...d.rails.map((r) => ({ ...r, what: `rail ${r.text}` })),
  ];
  const overlaps: string[] = [];
  boxes.forEach((a, i) => {
    for (const b of boxes.slice(i + 1)) if (inside(a, b)) overlaps.push(`${a.what} / ${b.what}`);
  });
  const segments = d.wires.flatMap((w, i) =>
    w.points.slice(1).map((p, k) => ({ net: netKey(w.net), wire: i, a: w.points[k]!, b: p })),
  );
  const through: string[] = [];
  for (const s of segments) {
    const box = {
      what: s.net,
      x: Math.min(s.a[0], s.b[0]),
      y: Math.min(s.a[1], s.b[1]),
      width: Math.abs(s.a[0] - s.b[0]),
      height: Math.abs(s.a[1] - s.b[1]),
    };
    for (const b of boxes)
      if (
        box.x < b.x + b.width - HAIR &&
        b.x + HAIR < box.x + box.width &&
        box.y < b.y + b.height - HAIR &&
        b.y + HAIR < box.y + box.height
      )
        through.push(`${s.net} through ${b.what}`);
  }
  let crossings = 0;
  segments.forEach((s, i) => {
    for (const t of segments.slice(i + 1)) {
      if (s.net === t.net) continue;
      const [h, v] = s.a[1] === s.b[1] ? [s, t] : [t, s];
      if (h.a[1] !== h.b[1] || v.a[0] !== v.b[0]) continue;
      const [x, y] = [v.a[0], h.a[1]];
      if (
        x >= Math.min(h.a[0], h.b[0]) &&
        x <= Math.max(h.a[0], h.b[0]) &&
        y >= Math.min(v.a[1], v.b[1]) &&
        y <= Math.max(v.a[1], v.b[1])
      )
        crossings++;
    }
  });
  const bends = d.wires.reduce((sum, w) => sum + Math.max(0, w.points.length - 2), 0);
  const { unreached, wired, nets } = reach(d);
  return {
    symbols: d.symbols.length,
    nets,
    crossings,
    crossingsPerNet: crossings / Math.max(1, nets),
    bendsPerWire: bends / Math.max(1, d.wires.length),
    wired,
    overlaps,
    through,
    unreached,
    shape: d.width / d.height,
  };
}

/** Which pins a wire or a name meets, and which nets are whole as wires. */
function reach(d: Drawing): { readonly unreached: readonly string[]; readonly wired: number; readonly nets: number } {
  const pins = d.symbols.flatMap((s) => s.pins);
  const count = new Map<string, number>();
  for (const p of pins) count.set(netKey(p.net), (count.get(netKey(p.net)) ?? 0) + 1);
  const ends = new Set(d.wires.flatMap((w) => w.points.map(([x, y]) => `${netKey(w.net)} ${x} ${y}`)));
  const named = new Set(d.names.map((n) => `${netKey(n.net)} ${n.at[0]} ${n.at[1]}`));
  const unreached = pins.flatMap((p) => {
    const key = `${netKey(p.net)} ${p.x} ${p.y}`;
    return netKey(p.net) === 'nc' || count.get(netKey(p.net)) === 1 || ends.has(key) || named.has(key)
      ? []
      : [`${p.ref}.${p.pin}`];
  });
  const written = new Map<string, boolean>();
  for (const n of d.names) written.set(netKey(n.net), n.sign !== null);
  const few = [...count].filter(([net, k]) => net !== 'nc' && k >= 2 && k <= 5 && written.get(net) !== true);
  const whole = few.filter(([net]) => !written.has(net));
  const nets = [...count.keys()].filter((n) => n !== 'nc').length;
  return { unreached, wired: few.length === 0 ? 1 : whole.length / few.length, nets };
}
