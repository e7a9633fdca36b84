import './choices';
import { draw } from '@/core/drawing';
import { recogniseStages } from '@/core/stages';
import type { DrawingAnswer, DrawingAsked } from './drawingMessages';

/** Draws boards away from the page. */
self.onmessage = ({ data: { id, board, before } }: MessageEvent<DrawingAsked>): void => {
  let answer: DrawingAnswer;
  try {
    answer = { type: 'drawn', id, drawn: draw(board, recogniseStages(board), before ?? undefined) };
  } catch (error) {
    answer = { type: 'failed', id, sentence: error instanceof Error ? error.message : String(error) };
  }
  self.postMessage(answer);
};
