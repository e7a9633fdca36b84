import type { Art, ArtFrame } from '../stroke';

/** An optocoupler: its LED at the left, its transistor at the right, light between them over the barrier. */
export function opto({ width, height }: ArtFrame): Art {
  const x = width - 28;
  const arrow = (y: number): string => `M34 ${y}h14m-4 -2.5l4 2.5l-4 2.5`;
  return {
    strokes: [
      { d: `M6 2H${width - 6}V${height - 2}H6Z`, dashed: true },
      { d: `M0 0H18V14M18 26V${height}H0M11 14H25L18 26ZM11 26H25` },
      { d: `${arrow(16)}${arrow(24)}` },
      { d: `M${x} 16L${x + 12} 8V0H${width}M${x} 24L${x + 12} 32V${height}H${width}` },
      { d: `M${x} 9V31`, bold: true },
      { d: `M${x + 11.6} 31.7l-6.4 -1l3.4 -4.6z`, filled: true },
    ],
  };
}
