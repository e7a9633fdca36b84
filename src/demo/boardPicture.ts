import sharp from 'sharp';
import { netKey } from '@/core/circuit';
import { isElectrolytic, partFigure } from '@/core/part';
import type { Board } from '@/core/circuit';
import type { Part } from '@/core/part';
import type { Point } from '@/core/registration';

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
const COLUMNS = 9;
const PITCH = { x: 156, y: 122 };

/** Draws a board's two sides: parts in a grid on the front; on the back, mirrored and a little askew, pads and copper. */
export async function boardPicture(board: Board): Promise<BoardPicture> {
  const fitted = board.parts.filter((p) => p.fitted);
  const parts = new Map<string, Point>();
  const pads = new Map<string, Point>();
  fitted.forEach((p, i) => {
    const centre = { x: 120 + PITCH.x * (i % COLUMNS), y: 110 + PITCH.y * Math.floor(i / COLUMNS) };
    parts.set(p.ref, centre);
    p.nets.forEach((_, pin) => pads.set(`${p.ref} ${pin}`, padOf(p, pin, centre)));
  });
  // Mirrored, turned by two degrees and set off, as a board turned over by hand would be.
  const angle = (2 * Math.PI) / 180;
  const onBack = ({ x, y }: Point): Point => {
    const [u, v] = [SIZE.width - x - SIZE.width / 2, y - SIZE.height / 2];
    return {
      x: 0.97 * (u * Math.cos(angle) - v * Math.sin(angle)) + SIZE.width / 2 + 12,
      y: 0.97 * (u * Math.sin(angle) + v * Math.cos(angle)) + SIZE.height / 2 - 8,
    };
  };
  const holes = [...pads.values()];
  const front = sheet(
    '#174d36',
    fitted.map((p) => body(p, parts.get(p.ref)!)).join('') + holes.map((h) => pad(h, 5)).join(''),
  );
  const back = sheet('#123f2c', copper(fitted, pads, onBack) + holes.map((h) => pad(onBack(h), 8)).join(''));
  return { front: await png(front), back: await png(back), parts, pads, onBack };
}

function padOf(part: Part, pin: number, { x, y }: Point): Point {
  const count = part.nets.length;
  if (count === 2) return { x: x + (pin === 0 ? -38 : 38), y };
  const half = Math.ceil(count / 2);
  const column = pin < half ? pin : count - 1 - pin;
  return { x: x - ((half - 1) * 24) / 2 + 24 * column, y: y + (pin < half ? 30 : -30) };
}

function body(part: Part, { x, y }: Point): string {
  const name = `<text x="${x}" y="${y - 40}" font-size="17" text-anchor="middle" fill="#f2f2e6" font-family="sans-serif">${part.ref}</text>`;
  if (part.kind === 'capacitor' && isElectrolytic(part)) {
    const r = part.value * (partFigure(part, 'ratedVolts') ?? 10) > 0.01 ? 34 : 24;
    return `<circle cx="${x}" cy="${y}" r="${r}" fill="#20242c" stroke="#8d99a8" stroke-width="3"/><path d="M${x + r * 0.5} ${y - r * 0.8}v${r * 1.6}" stroke="#c9d2dc" stroke-width="5"/>${name}`;
  }
  const [w, h, fill] =
    part.kind === 'resistor'
      ? [46, 18, '#c7a77b']
      : part.kind === 'capacitor'
        ? [40, 22, '#c98a3c']
        : part.kind === 'inductor'
          ? [56, 44, '#5b4a33']
          : part.nets.length > 2
            ? [Math.max(46, 13 * part.nets.length), 38, '#16181c']
            : [44, 22, '#24272e'];
  return `<rect x="${x - w / 2}" y="${y - h / 2}" width="${w}" height="${h}" rx="4" fill="${fill}" stroke="#0b0d0c"/>${name}`;
}

/** Copper from pad to pad along each net, as far as a drawing needs it. */
function copper(parts: readonly Part[], pads: ReadonlyMap<string, Point>, place: (at: Point) => Point): string {
  const nets = new Map<string, Point[]>();
  for (const p of parts)
    p.nets.forEach((net, pin) =>
      nets.set(netKey(net), [...(nets.get(netKey(net)) ?? []), place(pads.get(`${p.ref} ${pin}`)!)]),
    );
  nets.delete('nc');
  return [...nets.values()]
    .map((points) => {
      const sorted = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
      const path = sorted
        .map((p, i) => (i === 0 ? `M${p.x} ${p.y}` : `L${sorted[i - 1]!.x} ${p.y}L${p.x} ${p.y}`))
        .join('');
      return `<path d="${path}" fill="none" stroke="#b57a3c" stroke-opacity="0.75" stroke-width="${points.length > 8 ? 9 : 4}"/>`;
    })
    .join('');
}

function pad({ x, y }: Point, r: number): string {
  return `<circle cx="${x}" cy="${y}" r="${r}" fill="#cfd4cf" stroke="#4a4f4a" stroke-width="1.5"/>`;
}

function sheet(ground: string, inside: string): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${SIZE.width}" height="${SIZE.height}"><rect width="100%" height="100%" fill="#2b2926"/><rect x="22" y="22" width="${SIZE.width - 44}" height="${SIZE.height - 44}" rx="14" fill="${ground}"/>${inside}</svg>`;
}

function png(svg: string): Promise<Buffer> {
  return sharp(Buffer.from(svg)).png().toBuffer();
}
