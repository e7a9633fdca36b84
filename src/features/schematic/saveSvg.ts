import type { Board } from '@/core/circuit';
import { drawingSvg } from '@/core/drawing';
import type { Drawing } from '@/core/drawing';
import { recogniseStages } from '@/core/stages';
import { saveFile } from '@/ui/saveFile';

/** What stands below a drawing: of what it is, and what it rests on. */
export function titleLines(board: Board, more: readonly string[] = []): readonly string[] {
  const assumed = board.parts.filter((p) => p.basis === 'assumed').length;
  return [
    [board.title, ...more].join(' · '),
    `drawn from ${board.parts.length - assumed} traced facts, ${assumed} assumed`,
  ];
}

/** Saves the whole drawing as an SVG file, black on white. */
export function saveSvg(drawing: Drawing, board: Board): void {
  const name = board.title.replace(/[^\w-]+/gu, '-').slice(0, 60) || 'schematic';
  const text = drawingSvg(drawing, board, recogniseStages(board), { lines: titleLines(board) });
  saveFile(`${name}.svg`, 'image/svg+xml', text);
}
