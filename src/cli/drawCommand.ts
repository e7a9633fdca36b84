import { writeFileSync } from 'node:fs';
import { draw, drawingSvg, measureDrawing, titleLines } from '@/core/drawing';
import type { Drawing } from '@/core/drawing';
import { openBoard } from '@/wire/openBoard';
import { UnusableArguments, option, readArguments } from './arguments';

/** `lantern draw BOARD [--svg FILE] [--facts FILE]`: the board as it is drawn on one sheet. Gives the exit status. */
export function drawCommand(words: readonly string[]): number {
  const args = readArguments(words, ['facts', 'svg']);
  const [path] = args.plain;
  if (path === undefined) throw new UnusableArguments('draw needs a board file.');
  const board = openBoard(path, option(args, 'facts'));
  const { drawing } = draw(board);
  const file = option(args, 'svg');
  if (file !== undefined) {
    writeFileSync(file, drawingSvg(drawing, board.title, titleLines(board)));
  }
  if (option(args, 'json') !== undefined) console.log(JSON.stringify(contractJson(drawing)));
  else console.log(text(drawing, file));
  return 0;
}

/** The document of the contract; what else is known of a drawing comes along. */
function contractJson(d: Drawing): unknown {
  return {
    ...d,
    symbols: d.symbols.map((s) => ({ ...s, pins: s.pins.map(({ ref, pin, net, x, y }) => ({ ref, pin, net, x, y })) })),
  };
}

function text(d: Drawing, file: string | undefined): string {
  const m = measureDrawing(d);
  return [
    `${m.symbols} symbols, ${m.nets} nets on ${d.width} x ${d.height}`,
    `  crossings a net   ${m.crossingsPerNet.toFixed(2)}`,
    `  bends a wire      ${m.bendsPerWire.toFixed(2)}`,
    `  nets of 2 to 5 pins drawn as wires alone   ${Math.round(100 * m.wired)} %`,
    ...(file === undefined ? [] : [`  written to ${file}`]),
  ].join('\n');
}
