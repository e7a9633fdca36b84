import './choices';
import { buildDictionary, listHypotheses, partOf } from '@/core/diagnose';
import type { DictionaryAnswer, DictionaryAsked } from './messages';

const answer = (message: DictionaryAnswer): void => self.postMessage(message);

/** How often it says how far it is, milliseconds. */
const EVERY_MS = 50;

/** Works out its share of a dictionary; who asked ends it when it is not wanted any more. */
self.onmessage = ({ data: { board, symptoms, share } }: MessageEvent<DictionaryAsked>) => {
  const hypotheses = listHypotheses(board, symptoms);
  const steps = buildDictionary(board, hypotheses, undefined, share);
  let said = performance.now();
  for (;;) {
    const step = steps.next();
    if (step.done) return answer({ type: 'part', part: partOf(step.value, hypotheses) });
    if (performance.now() - said < EVERY_MS) continue;
    said = performance.now();
    answer({ type: 'progress', done: step.value.done });
  }
};
