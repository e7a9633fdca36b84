import './choices';
import { ComplaintReader, listHypotheses } from '@/core/diagnose';
import type { ComplaintSigns, Hypothesis, Symptom } from '@/core/diagnose';
import type { ComplaintAnswer, ComplaintAsked } from './messages';

const post = (answer: ComplaintAnswer): void => self.postMessage(answer);

/** What was worked out goes to the page this often, milliseconds. */
const BATCH_MS = 1500;

/** Works out what every single fault of a board would show under power, the likeliest by the complaint first. */
self.onmessage = ({ data: { board, symptoms } }: MessageEvent<ComplaintAsked>): void => {
  const reader = ComplaintReader.of(board);
  const list = listHypotheses(board, symptoms).filter((h) => h.faults.length <= 1);
  const of = list.length;
  // Of a unit that does not run as it is known nothing is said: the table by kind stands.
  if (!reader) return post({ entries: [], done: of, of });
  let entries: [string, ComplaintSigns | null][] = [];
  let since = performance.now();
  const sorted = [...list].sort((a, b) => b.weight - a.weight);
  for (const [i, { label, faults }] of sorted.entries()) {
    entries.push([label, signsOf(reader, faults, symptoms)]);
    if (performance.now() - since < BATCH_MS && i < of - 1) continue;
    post({ entries, done: i + 1, of });
    entries = [];
    since = performance.now();
  }
};

/** A fault that the engine stumbles over says nothing. */
function signsOf(
  reader: ComplaintReader,
  faults: Hypothesis['faults'],
  symptoms: readonly Symptom[],
): ComplaintSigns | null {
  try {
    return reader.signs(faults, symptoms);
  } catch {
    return null;
  }
}
