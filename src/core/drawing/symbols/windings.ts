import type { Art, ArtFrame, ArtPin, Stroke } from '../stroke';

const dot = (x: number, y: number): Stroke => ({ d: `M${x + 2} ${y}a2 2 0 1 1 -4 0a2 2 0 1 1 4 0`, filled: true });

/** The pins of each winding, its first end first. */
function byWinding(pins: readonly ArtPin[]): readonly (readonly [ArtPin, ArtPin])[] {
  const refs = [...new Set(pins.map((p) => p.ref))];
  return refs.map((ref) => {
    const own = pins.filter((p) => p.ref === ref).sort((a, b) => a.index - b.index);
    return [own[0]!, own[1]!] as const;
  });
}

/** A transformer: windings on both sides of its core, a dot at the first end of each. */
export function transformer({ width, height, pins }: ArtFrame): Art {
  const strokes: Stroke[] = [{ d: `M${width / 2 - 4} 0V${height}M${width / 2 + 4} 0V${height}` }];
  for (const [first, second] of byWinding(pins)) {
    const left = first.x === 0;
    const x = left ? 30 : width - 30;
    const top = Math.min(first.y, second.y);
    const bump = `a5 5 0 0 ${left ? 1 : 0} 0 10`;
    strokes.push({ d: `M${first.x} ${top}H${x}${bump.repeat(4)}H${first.x}` });
    strokes.push(dot(left ? x - 6 : x + 6, first.y === top ? top + 5 : top + 35));
  }
  return { strokes };
}

/** Coils that lie one below the other on one core. */
export function choke({ width, pins }: ArtFrame): Art {
  const rows = byWinding(pins);
  const ys = rows.map(([first]) => first.y);
  const [top, bottom] = [Math.min(...ys), Math.max(...ys)];
  const strokes: Stroke[] = rows.flatMap(([first], i) => {
    // The coils of a pair look at each other.
    const bump = `a3.5 3.5 0 0 ${i === rows.length - 1 && rows.length > 1 ? 1 : 0} 7 0`;
    return [
      { d: `M0 ${first.y}H6${bump.repeat(4)}H${width}` },
      dot(first.x < width / 2 ? 3 : width - 3, first.y + (i === rows.length - 1 && rows.length > 1 ? -5 : 5)),
    ];
  });
  return {
    strokes: [...strokes, { d: `M17 ${top + 9}V${bottom - 9}M23 ${top + 9}V${bottom - 9}`, dashed: rows.length === 2 }],
  };
}
