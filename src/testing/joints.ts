import { netKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import type { Drawing } from '@/core/drawing';

/** Where the wires and names of a drawing join other pins than the nets of its board do. */
export function wrongJoints(board: Board, drawing: Drawing): readonly string[] {
  const wrong: string[] = [];
  // A wire's every grid point belongs to its net; another net may only cross it.
  const ends = new Map<string, string>();
  for (const p of drawing.symbols.flatMap((s) => s.pins)) ends.set(`${p.x} ${p.y}`, netKey(p.net));
  for (const w of drawing.wires) {
    for (const [x, y] of w.points) {
      const there = ends.get(`${x} ${y}`);
      if (there !== undefined && there !== netKey(w.net)) wrong.push(`${w.net} ends at a pin of ${there}`);
      ends.set(`${x} ${y}`, netKey(w.net));
    }
    // No pin of another net lies along a wire.
    for (let i = 1; i < w.points.length; i++) {
      const [[x1, y1], [x2, y2]] = [w.points[i - 1]!, w.points[i]!];
      if (x1 !== x2 && y1 !== y2) wrong.push(`${w.net} is aslant`);
      for (const p of drawing.symbols.flatMap((s) => s.pins)) {
        const on = between(p.x, x1, x2) && between(p.y, y1, y2);
        if (on && netKey(p.net) !== netKey(w.net)) wrong.push(`${w.net} runs over ${p.ref}.${p.pin}`);
      }
    }
  }
  // Pieces of a net that no wire joins are told by name at each.
  for (const net of new Set(board.parts.flatMap((p) => p.nets.map(netKey)))) {
    if (net === 'nc') continue;
    const pieces = piecesOf(drawing, net);
    if (pieces.length > 1 && pieces.some((piece) => !piece.named)) wrong.push(`${net} falls apart`);
  }
  return wrong;
}

const between = (v: number, a: number, b: number): boolean => v >= Math.min(a, b) && v <= Math.max(a, b);

/** The points of the grid from one place to another. */
function along([x1, y1]: readonly [number, number], [x2, y2]: readonly [number, number], grid: number): string[] {
  const steps = Math.max(Math.abs(x1 - x2), Math.abs(y1 - y2)) / grid;
  return Array.from({ length: steps + 1 }, (_, i) => {
    const part = steps === 0 ? 0 : i / steps;
    return `${x1 + (x2 - x1) * part} ${y1 + (y2 - y1) * part}`;
  });
}

/** What hangs together of a net by wires, and whether each piece is named. */
function piecesOf(drawing: Drawing, net: string): readonly { readonly named: boolean }[] {
  const wires = drawing.wires.filter((w) => netKey(w.net) === net);
  const pins = drawing.symbols.flatMap((s) => s.pins).filter((p) => netKey(p.net) === net);
  const names = drawing.names.filter((n) => netKey(n.net) === net);
  const spots: string[][] = [
    ...wires.map((w) => w.points.flatMap((p, i) => along(w.points[i - 1] ?? p, p, drawing.grid))),
    ...pins.map((p) => [`${p.x} ${p.y}`]),
  ];
  const groups: Set<string>[] = [];
  for (const list of spots) {
    const own = groups.filter((g) => list.some((s) => g.has(s)));
    const merged = new Set([...list, ...own.flatMap((g) => [...g])]);
    for (const g of own) groups.splice(groups.indexOf(g), 1);
    groups.push(merged);
  }
  return groups.map((g) => ({ named: names.some((n) => g.has(n.at.join(' '))) }));
}
