import type { Art, ArtFrame } from '../stroke';

/** A bridge rectifier: a diamond with a diode in it; the minus lead steps over the second line. */
export function bridge({ width, height }: ArtFrame): Art {
  const [x, y, r] = [width / 2, height / 2, 26];
  const foot = height - 10;
  return {
    strokes: [
      { d: `M${x} ${y - r}L${x + r} ${y}L${x} ${y + r}L${x - r} ${y}Z` },
      { d: `M0 10H${x}V${y - r}M0 ${foot}H${x}V${y + r}` },
      { d: `M${x + r} ${y}V10H${width}M${x - r} ${y}V${y + 48}H${x - 4}a4 4 0 0 1 8 0H${x + r}V${foot}H${width}` },
      {
        d: `M${x - 14} ${y}H${x - 6}M${x - 6} ${y - 8}V${y + 8}L${x + 6} ${y}ZM${x + 6} ${y - 8}V${y + 8}M${x + 6} ${y}H${x + 14}`,
      },
    ],
  };
}
