import { writeFileSync } from 'node:fs';
import { basename } from 'node:path';
import type { Board } from '@/core/circuit';
import { PAPERS, draw, drawingOnPaper, drawingSvg, measureDrawing, restsOn, titleLines } from '@/core/drawing';
import type { Drawing, Paper, SheetTitle } from '@/core/drawing';
import { openBoard } from '@/wire/openBoard';
import { UnusableArguments, option, readArguments } from './arguments';

/** `lantern draw BOARD [--json] [--svg FILE [--paper A4|A3]] [--facts FILE]`: the board as it is drawn on one sheet. Gives the exit status. */
export function drawCommand(words: readonly string[]): number {
  const args = readArguments(words, ['facts', 'svg', 'paper']);
  const [path] = args.plain;
  if (path === undefined) throw new UnusableArguments('draw needs a board file.');
  const board = openBoard(path, option(args, 'facts'));
  const { drawing } = draw(board);
  const file = option(args, 'svg');
  const paper = option(args, 'paper');
  if (paper !== undefined && !isPaper(paper)) throw new UnusableArguments('--paper is A4 or A3.');
  if (file !== undefined)
    writeFileSync(
      file,
      paper === undefined
        ? drawingSvg(drawing, board.title, titleLines(board))
        : drawingOnPaper(drawing, sheetTitle(board, path), paper),
    );
  if (option(args, 'json') !== undefined) console.log(JSON.stringify(contractJson(drawing)));
  else console.log(text(drawing, file));
  return 0;
}

const isPaper = (text: string): text is Paper => Object.hasOwn(PAPERS, text);

function sheetTitle(board: Board, path: string): SheetTitle {
  const when = new Date().toISOString().slice(0, 10);
  return { unit: board.title, tag: basename(path), board: 'Board', who: '', when, restsOn: restsOn(board) };
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
