import { readFileSync } from 'node:fs';
import { join } from 'node:path';

type Colour = readonly [number, number, number];

const CSS = readFileSync(join(__dirname, 'globals.css'), 'utf8');
const WASH = Number(/--color-wash: rgb\(var\(--glow\) \/ ([\d.]+)\)/u.exec(CSS)![1]);

/** The colours of one theme, by name. */
function theme(name: string): Map<string, Colour> {
  const start = CSS.indexOf(`[data-theme='${name}']`);
  const block = CSS.slice(start, CSS.indexOf('}', start));
  const colours = new Map<string, Colour>();
  for (const [, key, hex, r, g, b] of block.matchAll(/--([\w-]+): (?:#([\da-f]{6})|(\d+) (\d+) (\d+));/gu)) {
    const of = (i: number): number => parseInt(hex!.slice(2 * i, 2 * i + 2), 16);
    colours.set(key!, hex ? [of(0), of(1), of(2)] : [Number(r), Number(g), Number(b)]);
  }
  return colours;
}

/** Relative luminance and contrast as the WCAG 2.1 glossary defines them. */
function luminance(colour: Colour): number {
  const [r, g, b] = colour.map((c) => (c / 255 <= 0.03928 ? c / 255 / 12.92 : ((c / 255 + 0.055) / 1.055) ** 2.4));
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
}
function contrast(a: Colour, b: Colour): number {
  const [low, high] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return (high! + 0.05) / (low! + 0.05);
}
const over = (top: Colour, below: Colour): Colour => top.map((c, i) => WASH * c + (1 - WASH) * below[i]!) as never;

test.each(['soot', 'paper'])(
  '%s: every colour of words can be read on every ground, the bar of suspicion too',
  (name) => {
    const colours = theme(name);
    const glow = colours.get('glow')!;
    for (const ground of ['ground', 'raised'])
      for (const words of ['ink', 'faint', 'brass', 'verdigris', 'oxide', 'slate']) {
        const [below, ink] = [colours.get(ground)!, colours.get(words)!];
        expect([words, ground, contrast(ink, below) >= 4.5]).toEqual([words, ground, true]);
        expect([words, `wash on ${ground}`, contrast(ink, over(glow, below)) >= 4.5]).toEqual([
          words,
          `wash on ${ground}`,
          true,
        ]);
      }
  },
);
