import type { Board } from '@/core/circuit';
import { draw, measureDrawing } from '@/core/drawing';
import type { DrawingFigures } from '@/core/drawing';
import { recogniseStages } from '@/core/stages';

/** How a board is drawn: milliseconds to recognise its stages and draw it, the best of three, and what the drawing is like. */
export function drawingTime(board: Board): DrawingFigures & { readonly ms: number } {
  let best = Infinity;
  let figures: DrawingFigures | null = null;
  for (let round = 0; round < 3; round++) {
    const since = performance.now();
    // A copy each time: what is recognised of a board is kept.
    const fresh = { ...board };
    const { drawing } = draw(fresh, recogniseStages(fresh));
    best = Math.min(best, performance.now() - since);
    figures ??= measureDrawing(drawing);
  }
  return { ...figures!, ms: best };
}
