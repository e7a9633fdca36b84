import type { Board } from '@/core/circuit';
import { drawingSvg, titleLines } from '@/core/drawing';
import type { Drawing } from '@/core/drawing';
import { saveFile } from '@/ui/saveFile';

/** Saves the whole drawing as an SVG file, black on white. */
export function saveSvg(drawing: Drawing, board: Board): void {
  const name = board.title.replace(/[^\w-]+/gu, '-').slice(0, 60) || 'schematic';
  saveFile(`${name}.svg`, 'image/svg+xml', drawingSvg(drawing, board.title, titleLines(board)));
}
