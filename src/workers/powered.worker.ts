import { PoweredReader, alivePoint, alivePoints } from '@/core/work';
import type { PoweredAnswer, PoweredAsked, PoweredUnit } from './poweredMessages';

let reader: PoweredReader | null = null;

/** Works out a unit under power away from the page. */
self.onmessage = ({ data }: MessageEvent<PoweredAsked>): void => {
  try {
    self.postMessage(answerTo(data));
  } catch (error) {
    const failed: PoweredAnswer = {
      type: 'failed',
      id: data.id,
      sentence: error instanceof Error ? error.message : String(error),
    };
    self.postMessage(failed);
  }
};

function answerTo(asked: PoweredAsked): PoweredAnswer {
  if (asked.type === 'place') {
    const { id, mode, red, black } = asked;
    const point = reader && alivePoint(reader, 'another place', mode, red, black);
    return { type: 'place', id, point: point ?? null };
  }
  reader = null;
  const made = new PoweredReader(asked.board, asked.condition, []);
  reader = made;
  const { unitState: state, states, period, warnings, destroys } = made.operation;
  const unit: PoweredUnit = { state, states, period, warnings, destroys, points: alivePoints(made) };
  return { type: 'unit', id: asked.id, unit };
}
