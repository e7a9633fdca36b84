import { boardNets } from '@/core/circuit';
import { draw, drawingSvg, titleLines } from '@/core/drawing';
import { exampleBoard } from '../../../bench/exampleBoards';
import { inSight } from './inSight';
import { walk } from './walk';

const board = exampleBoard('lamp-supply-24v');
const { drawing } = draw(board);
const symbolOf = (ref: string) => drawing.symbols.find((s) => s.refs.includes(ref))!;

test('what is probed comes into sight whole: a part between the nets, else the nearest two, one on each', () => {
  const whole = (seen: ReturnType<typeof inSight>, ref: string): boolean => {
    const s = symbolOf(ref);
    const [left, top] = [seen!.x - seen!.size.width / 2, seen!.y - seen!.size.height / 2];
    return (
      s.x >= left && s.y >= top && s.x + s.width <= left + seen!.size.width && s.y + s.height <= top + seen!.size.height
    );
  };
  let apart = 0;
  for (const one of boardNets(board))
    for (const other of boardNets(board)) {
      if (one === other) continue;
      const on = (net: string) => board.parts.filter((p) => p.nets.includes(net));
      const seen = inSight(drawing, { nets: [one, other] });
      const both = on(one).filter((p) => p.nets.includes(other));
      if (both.length > 0) expect(both.some((p) => whole(seen, p.ref))).toBe(true);
      else {
        apart++;
        const seenBoth = [on(one).some((p) => whole(seen, p.ref)), on(other).some((p) => whole(seen, p.ref))];
        expect(seenBoth).toEqual([true, true]);
      }
    }
  expect(apart).toBeGreaterThan(100);
  expect(inSight(drawing, { nets: [] })).toBeNull();
  expect(inSight(drawing, { part: 'ZZ9' })).toBeNull();
});

test('arrows walk along wires, to where they point; back again leads back or nearer', () => {
  const middle = (ref: string) => ({
    x: symbolOf(ref).x + symbolOf(ref).width / 2,
    y: symbolOf(ref).y + symbolOf(ref).height / 2,
  });
  let walked = 0;
  for (const { ref } of board.parts)
    for (const [key, axis, sign] of [
      ['ArrowLeft', 'x', -1],
      ['ArrowRight', 'x', 1],
      ['ArrowUp', 'y', -1],
      ['ArrowDown', 'y', 1],
    ] as const) {
      const next = walk(drawing, ref, key);
      if (next === null) continue;
      walked++;
      expect(next).not.toBe(ref);
      expect(sign * (middle(next)[axis] - middle(ref)[axis])).toBeGreaterThan(0);
    }
  expect(walked).toBeGreaterThan(150);
  expect(walk(drawing, 'R1', 'Enter')).toBeNull();
  expect(walk(drawing, 'ZZ9', 'ArrowLeft')).toBeNull();
});

test('every part can be reached from the inlet by arrows alone', () => {
  const reached = new Set(['J1']);
  const queue = ['J1'];
  while (queue.length > 0) {
    const ref = queue.pop()!;
    for (const key of ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown']) {
      const next = walk(drawing, ref, key);
      if (next !== null && !reached.has(next)) {
        reached.add(next);
        queue.push(next);
      }
    }
  }
  expect(drawing.symbols.map((s) => s.refs[0]!).filter((r) => !reached.has(r))).toEqual([]);
});

test('the drawing as a document of its own: every part, every wire, what it rests on; nothing that only a page knows', () => {
  const svg = drawingSvg(drawing, board.title, titleLines(board, ['SP-1']));
  for (const s of drawing.symbols) expect(svg).toContain(`data-refs="${s.refs.join(' ')}"`);
  expect(svg.match(/<polyline data-net=/gu)).toHaveLength(drawing.wires.length);
  expect(svg).toContain('SP-1');
  expect(svg).toContain('drawn from 60 traced facts, 0 assumed');
  expect(svg).not.toMatch(/var\(|class=|<script/u);
  // A title with signs of its own stays text.
  const odd = drawingSvg(drawing, 'A < B & "C"');
  expect(odd).toContain('<title>A &lt; B &amp; &quot;C&quot;</title>');
});
