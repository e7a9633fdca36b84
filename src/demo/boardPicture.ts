import sharp from 'sharp';
import { netKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { draw } from '@/core/drawing';
import type { Drawing } from '@/core/drawing';
import type { Point } from '@/core/registration';
import { bodyOf } from './partBodies';

/** Pictures of a made-up board, both sides, with where everything is: the demo's photographs. */
export interface BoardPicture {
  readonly front: Buffer;
  readonly back: Buffer;
  /** Centre of each part and place of each pad on the front. */
  readonly parts: ReadonlyMap<string, Point>;
  readonly pads: ReadonlyMap<string, Point>;
  /** Where a point of the front is on the back's picture. */
  onBack(at: Point): Point;
}

const SIZE = { width: 1500, height: 980 };
const EDGE = 22;
/** Room between the board's edge and its parts. */
const RIM = 34;
const SLOT = 12;

/**
 * Draws a board's two sides. Parts lie in the order in which the power goes through them, with a slot milled between the mains
 * side and the other, as a board is laid out; on the back, mirrored and a little askew, pads, copper and the pours of the references.
 */
export async function boardPicture(board: Board): Promise<BoardPicture> {
  const { drawing } = draw(board);
  const place = layOut(drawing);
  const byRef = new Map(board.parts.map((p) => [p.ref, p]));
  const pads = new Map<string, Point>();
  for (const s of drawing.symbols) for (const p of s.pins) pads.set(`${p.ref} ${p.index}`, place(p));
  const padsOf = (ref: string): readonly Point[] => byRef.get(ref)!.nets.map((_, i) => pads.get(`${ref} ${i}`)!);
  const parts = new Map(board.parts.map((p) => [p.ref, middle(padsOf(p.ref))]));
  // Mirrored, turned by two degrees and set off, as a board turned over by hand would be.
  const angle = (2 * Math.PI) / 180;
  const onBack = ({ x, y }: Point): Point => {
    const [u, v] = [SIZE.width - x - SIZE.width / 2, y - SIZE.height / 2];
    return {
      x: 0.97 * (u * Math.cos(angle) - v * Math.sin(angle)) + SIZE.width / 2 + 12,
      y: 0.97 * (u * Math.sin(angle) + v * Math.cos(angle)) + SIZE.height / 2 - 8,
    };
  };
  const bodies = drawing.symbols.flatMap((s) => {
    const part = byRef.get(s.refs[0]!)!;
    if (!s.refs.some((ref) => byRef.get(ref)!.fitted)) return [];
    const [from, to] = [place(s), place({ x: s.x + s.width, y: s.y + s.height })];
    const box = { x: from.x, y: from.y, width: to.x - from.x, height: to.y - from.y };
    return [bodyOf({ kind: s.kind, part, pads: s.refs.flatMap(padsOf), box })];
  });
  const holes = [...pads.values()];
  const front = sheet('#174d36', [
    traces(drawing, place, '#1f5f45', 1),
    slots(drawing, place),
    ...holes.map((h) => pad(h, 5)),
    ...bodies,
    silk(drawing, place),
  ]);
  const back = sheet('#123f2c', [copper(drawing, place, onBack), ...holes.map((h) => pad(onBack(h), 8))]);
  return { front: await png(front), back: await png(back), parts, pads, onBack };
}

/** Where a place of the drawing is on the picture. */
function layOut({ width, height }: Drawing): (at: Point) => Point {
  const [wide, high] = [SIZE.width - 2 * (EDGE + RIM), SIZE.height - 2 * (EDGE + RIM)];
  return ({ x, y }) => ({ x: EDGE + RIM + (x * wide) / width, y: EDGE + RIM + (y * high) / height });
}

function middle(points: readonly Point[]): Point {
  const mean = (of: (p: Point) => number): number => points.reduce((sum, p) => sum + of(p), 0) / points.length;
  return { x: mean((p) => p.x), y: mean((p) => p.y) };
}

/** Designators, printed. */
function silk(d: Drawing, place: (at: Point) => Point): string {
  const seen = new Set<string>();
  return d.texts
    .flatMap((t) => {
      if (seen.has(t.of)) return [];
      seen.add(t.of);
      const { x, y } = place({ x: t.x, y: t.y + 9 });
      return [
        `<text x="${x}" y="${y}" font-size="14" fill="#f2f2e6" stroke="#12382a" stroke-width="3" paint-order="stroke" font-family="sans-serif">${t.text}</text>`,
      ];
    })
    .join('');
}

/** The slots milled along the barrier, between what stands across it. */
function slots(d: Drawing, place: (at: Point) => Point): string {
  return d.barriers
    .flatMap(({ points: [[x] = [0]] }) => {
      const across = d.symbols
        .filter((s) => s.x < x! && s.x + s.width > x!)
        .map((s) => [s.y - 24, s.y + s.height + 24] as const)
        .sort(([a], [b]) => a - b);
      const free: string[] = [];
      let from = 0;
      for (const [top, foot] of [...across, [d.height, d.height] as const]) {
        const [a, b] = [place({ x: x!, y: from }), place({ x: x!, y: top })];
        if (b.y - a.y > 30)
          free.push(
            `<rect x="${a.x - SLOT / 2}" y="${a.y}" width="${SLOT}" height="${b.y - a.y}" rx="${SLOT / 2}" fill="#0e0d0c"/>`,
          );
        from = Math.max(from, foot);
      }
      return free;
    })
    .join('');
}

/** The wires of the drawing as tracks. */
function traces(d: Drawing, place: (at: Point) => Point, colour: string, scale: number, more = 0): string {
  const pins = new Map<string, number>();
  for (const p of d.symbols.flatMap((s) => s.pins)) pins.set(netKey(p.net), (pins.get(netKey(p.net)) ?? 0) + 1);
  return d.wires
    .map(({ net, points }) => {
      const path = points.map(([x, y]) => place({ x, y })).map((p, i) => `${i === 0 ? 'M' : 'L'}${p.x} ${p.y}`);
      const width = scale * ((pins.get(netKey(net)) ?? 0) > 6 ? 9 : 6) + more;
      return `<path d="${path.join('')}" fill="none" stroke="${colour}" stroke-width="${width}" stroke-linejoin="round" stroke-linecap="round"/>`;
    })
    .join('');
}

/** Tracks among the pours of the references, one on each side of the barrier. */
function copper(d: Drawing, place: (at: Point) => Point, onBack: (at: Point) => Point): string {
  const turned = (at: Point): Point => onBack(place(at));
  const limits = [-20, ...d.barriers.flatMap(({ points: [[x] = [0]] }) => [x! - 26, x! + 26]), d.width + 20];
  const pours: string[] = [];
  for (let i = 0; i < limits.length; i += 2) {
    const [left, right] = [limits[i]!, limits[i + 1]!];
    const corners = [
      { x: left, y: -16 },
      { x: right, y: -16 },
      { x: right, y: d.height + 16 },
      { x: left, y: d.height + 16 },
    ].map(turned);
    pours.push(`<polygon points="${corners.map((c) => `${c.x},${c.y}`).join(' ')}" fill="#8f6433"/>`);
  }
  const grounded = new Set(d.names.flatMap((n) => (n.sign === null ? [] : [netKey(n.net)])));
  const free = d.symbols
    .flatMap((s) => s.pins)
    .filter((p) => !grounded.has(netKey(p.net)))
    .map(turned)
    .map(({ x, y }) => `<circle cx="${x}" cy="${y}" r="15" fill="#123f2c"/>`);
  return [...pours, traces(d, turned, '#123f2c', 1, 14), ...free, traces(d, turned, '#b57a3c', 1)].join('');
}

function pad({ x, y }: Point, r: number): string {
  return `<circle cx="${x}" cy="${y}" r="${r}" fill="#cfd4cf" stroke="#4a4f4a" stroke-width="1.5"/>`;
}

/** A board on the bench: its ground, four screws, what is on it. */
function sheet(ground: string, inside: readonly string[]): string {
  const screws = [EDGE + 20, SIZE.width - EDGE - 20]
    .flatMap((x) => [EDGE + 20, SIZE.height - EDGE - 20].map((y) => [x, y] as const))
    .map(([x, y]) => `<circle cx="${x}" cy="${y}" r="11" fill="#2b2926" stroke="#b9a35c" stroke-width="5"/>`);
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${SIZE.width}" height="${SIZE.height}"><rect width="100%" height="100%" fill="#2b2926"/><rect x="${EDGE}" y="${EDGE}" width="${SIZE.width - 2 * EDGE}" height="${SIZE.height - 2 * EDGE}" rx="14" fill="${ground}"/>${screws.join('')}${inside.join('')}</svg>`;
}

function png(svg: string): Promise<Buffer> {
  return sharp(Buffer.from(svg)).png().toBuffer();
}
