import { partFigure } from '@/core/part';
import type { Part } from '@/core/part';
import type { Point } from '@/core/registration';

/** Where a part lies on the picture: its pads in pin order, and the box that its sign takes on the drawing. */
export interface Lying {
  readonly kind: string;
  readonly part: Part;
  readonly pads: readonly Point[];
  readonly box: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
}

const METAL = '#b9bdb9';
const BANDS = [
  '#1a1a1a',
  '#6b3f1d',
  '#b3261e',
  '#d9731f',
  '#d9b81f',
  '#2f7d3a',
  '#2a4f9e',
  '#6d3f8f',
  '#7d7d7d',
  '#e8e8e2',
];

/** A part as it looks from above. */
export function bodyOf(lying: Lying): string {
  const { kind, part, pads, box } = lying;
  const [a, b] = pads as [Point, Point];
  if (pads.length === 2 && kind !== 'connector') {
    const turn = (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI;
    const half = Math.hypot(b.x - a.x, b.y - a.y) / 2;
    const lead = `<path d="M${-half} 0H${half}" stroke="${METAL}" stroke-width="3"/>`;
    return `<g transform="translate(${(a.x + b.x) / 2} ${(a.y + b.y) / 2}) rotate(${turn})">${lead}${twoLegs(kind, part)}</g>`;
  }
  const middle = `translate(${box.x + box.width / 2} ${box.y + box.height / 2})`;
  const screws = kind === 'connector' ? pads.map(({ y }) => screw(box.x + box.width / 2, y)) : [];
  return `<g transform="${middle}">${manyLegs(kind, part, box)}</g>${screws.join('')}`;
}

/** With its first leg left and its second right, about the middle between them. */
function twoLegs(kind: string, part: Part): string {
  switch (kind) {
    case 'resistor':
      return `${block(36, 14, '#d9c29a', 6)}${bands(part)}`;
    case 'electrolytic': {
      const volts = partFigure(part, 'ratedVolts') ?? 10;
      const value = part.kind === 'capacitor' ? part.value : 0;
      const r = value * volts > 0.05 ? 44 : value * volts > 0.005 ? 29 : 20;
      // The stripe is at the minus, its second leg.
      return `<circle r="${r}" fill="#20262f" stroke="#8d99a8" stroke-width="3"/><path d="M${r * 0.55} ${-r * 0.75}v${r * 1.5}" stroke="#c9d2dc" stroke-width="${r * 0.2}"/><path d="M${-r * 0.4} ${-r * 0.3}h${r * 0.6}M${-r * 0.1} ${-r * 0.6}v${r * 0.6}" stroke="#5b6675" stroke-width="2"/>`;
    }
    case 'safety-capacitor':
      return part.ref.startsWith('CX') ? block(58, 28, '#d8c23c', 3) : disc(17, 10, '#2f5f9e');
    case 'capacitor':
      return part.kind === 'capacitor' && part.value >= 2e-7 ? block(34, 18, '#a83f2c', 3) : disc(14, 8, '#cf8b3d');
    case 'fuse':
      return `${block(44, 15, '#e9e5d6', 3)}<path d="M-22 -7.500v15M22 -7.500v15" stroke="#8f9498" stroke-width="8"/>`;
    case 'mov':
      return disc(20, 10, '#2b59a8');
    case 'ntc':
      return disc(18, 9, '#33513f');
    case 'led':
      return '<circle r="13" fill="#c8402f" stroke="#7d1f16" stroke-width="2"/><circle cx="-4" cy="-4" r="4" fill="#f0a79c"/>';
    case 'inductor':
    case 'core-inductor':
      return ring(22, '#b26b33');
    case 'diode':
    case 'schottky':
    case 'zener':
    case 'tvs':
      // The band is at the cathode, its second leg.
      return `${block(34, 15, kind === 'zener' ? '#8c3d24' : '#17191c', 3)}<path d="M10 -7.500v15" stroke="#d5d8d8" stroke-width="5"/>`;
    default:
      return block(40, 20, '#24272e', 3);
  }
}

function manyLegs(kind: string, part: Part, { width, height }: Lying['box']): string {
  switch (kind) {
    case 'transformer':
      return `${block(width - 8, height + 26, '#2c2d31', 4)}${block(width - 30, height + 10, '#d4b03b', 2)}<path d="M${15 - width / 2} -8h${width - 30}M${15 - width / 2} 12h${width - 30}" stroke="#b3922c" stroke-width="1.500"/>`;
    case 'common-mode-choke':
    case 'coupled-choke':
      return ring(Math.max(36, Math.min(width, height) / 2), '#b26b33');
    case 'connector':
      return block(width + 12, height + 8, '#2f8f5b', 3);
    case 'bridge':
      return `${block(width + 6, height - 12, '#17191c', 4)}${word('~  +  −  ~', 14, '#c9cdd2')}`;
    case 'opto':
      return `${block(Math.max(40, width - 26), 38, '#1c1e22', 3)}<circle cx="${-Math.max(40, width - 26) / 2 + 8}" cy="-11" r="3" fill="#7d858c"/>`;
    case 'ic':
      return `${block(width - 14, height, '#16181c', 3)}<path d="M-8 ${-height / 2}a8 8 0 0 0 16 0" fill="#2e3238"/>${word(part.keys.find((k) => k.key === 'mark')?.text ?? part.ref, 14, '#8b9299')}`;
    case 'nmos':
    case 'pmos':
    case 'igbt':
      // On its heat sink.
      return `${block(92, 22, '#9aa0a3', 1)}<path d="M-40 -11v22M-28 -11v22M-16 -11v22M-4 -11v22M8 -11v22M20 -11v22M32 -11v22" stroke="#7c8285" stroke-width="2"/><g transform="translate(0 15)">${block(46, 18, '#17191c', 2)}</g>`;
    case 'relay':
      return block(width - 10, height, '#dedfd8', 3);
    default:
      return '<path d="M-15 6a15 15 0 1 1 30 0z" fill="#1a1c1f" stroke="#000"/>';
  }
}

const block = (w: number, h: number, fill: string, rx: number): string =>
  `<rect x="${-w / 2}" y="${-h / 2}" width="${w}" height="${h}" rx="${rx}" fill="${fill}" stroke="#0b0d0c"/>`;
const screw = (x: number, y: number): string =>
  `<circle cx="${x}" cy="${y}" r="11" fill="#a9aeb0" stroke="#1d5a39"/><path d="M${x - 7} ${y - 7}l14 14" stroke="#5b6062" stroke-width="3"/>`;
const disc = (rx: number, ry: number, fill: string): string =>
  `<ellipse rx="${rx}" ry="${ry}" fill="${fill}" stroke="#0b0d0c"/>`;
const ring = (r: number, wire: string): string =>
  `<circle r="${r * 0.72}" fill="none" stroke="#3b3f42" stroke-width="${r * 0.55}"/><circle r="${r * 0.72}" fill="none" stroke="${wire}" stroke-width="${r * 0.6}" stroke-dasharray="5 3"/>`;
const word = (text: string, size: number, fill: string): string =>
  `<text y="${size / 3}" font-size="${size}" text-anchor="middle" fill="${fill}" font-family="sans-serif">${text.replace(/[<&]/gu, '')}</text>`;

/** The colours of a resistor's value: two figures, how many noughts, 5 %. */
function bands(part: Part): string {
  if (part.kind !== 'resistor' || part.value <= 0) return '';
  const power = Math.floor(Math.log10(part.value)) - 1;
  const figures = Math.round(part.value / 10 ** power);
  const colours = [BANDS[Math.floor(figures / 10) % 10], BANDS[figures % 10], BANDS[power] ?? '#c9a227', '#c9a227'];
  return colours
    .map((c, i) => `<path d="M${-11 + 7 * i + (i === 3 ? 3 : 0)} -7v14" stroke="${c}" stroke-width="3.500"/>`)
    .join('');
}
