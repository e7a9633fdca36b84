import type { Art, ArtFrame } from '../stroke';

/** A relay: its coil at the left, the contact that it moves at the right. */
export function relay({ width, height }: ArtFrame): Art {
  const x = width - 14;
  return {
    strokes: [
      { d: `M0 0H14V10M14 30V${height}H0M4 10H24V30H4ZM4 26L24 14` },
      { d: `M${width} 0H${x}V9M${width} ${height}H${x}V30L${x - 9} 11` },
      { d: `M24 20H${x - 5}`, dashed: true },
    ],
  };
}
