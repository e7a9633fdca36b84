import type { Art, ArtFrame } from '../stroke';

/** A connector: a terminal for each pin along a bar. */
export function connector({ width, height, pins }: ArtFrame): Art {
  return {
    strokes: [
      { d: `M12 4V${height - 4}`, bold: true },
      ...pins.map(({ y }) => ({ d: `M12 ${y}H20M28 ${y}a4 4 0 1 1 -8 0a4 4 0 1 1 8 0M28 ${y}H${width}` })),
    ],
    marks: pins.map((p) => ({ text: p.name, x: 6, y: p.y, anchor: 'middle' as const })),
  };
}
