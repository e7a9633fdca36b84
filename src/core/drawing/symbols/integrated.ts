import type { Art, ArtFrame, Mark } from '../stroke';

/** An integrated circuit: a box, its pins named inside. */
export function integrated({ width, height, pins }: ArtFrame): Art {
  return {
    strokes: [{ d: `M0 0H${width}V${height}H0Z` }],
    marks: pins.map((p): Mark => {
      if (p.x === 0) return { text: p.name, x: 4, y: p.y, anchor: 'start' };
      if (p.x === width) return { text: p.name, x: width - 4, y: p.y, anchor: 'end' };
      return { text: p.name, x: p.x, y: p.y === 0 ? 8 : height - 8, anchor: 'middle' };
    }),
  };
}
