import { SUMS } from './runSum';
import { SUM_TASKS } from './sumDefinition';
import type { SumDefinition } from './sumDefinition';

/** Words of a question that say nothing about which sum is meant. */
const FILLERS = new Set([
  'a',
  'an',
  'the',
  'to',
  'of',
  'on',
  'in',
  'my',
  'is',
  'how',
  'what',
  'for',
  'with',
  'do',
  'it',
]);

/** The sums that plain words may mean, best first; all of them where nothing is asked. */
export function searchSums(question: string): readonly SumDefinition[] {
  const asked = question
    .toLowerCase()
    .split(/[^\p{L}\d.-]+/u)
    .filter((w) => w !== '' && !FILLERS.has(w));
  if (asked.length === 0) return SUMS;
  // A word that few sums know says more than one that many do.
  const rarity = asked.map((word) => 1 / Math.max(1, SUMS.filter((sum) => weight(sum, word) > 0).length));
  return SUMS.map((sum) => ({ sum, score: asked.reduce((all, word, i) => all + weight(sum, word) * rarity[i]!, 0) }))
    .filter(({ score }) => score > 0)
    .sort((a, b) => b.score - a.score)
    .map(({ sum }) => sum);
}

function weight(sum: SumDefinition, word: string): number {
  const has = (text: string): boolean => text.toLowerCase().includes(word);
  let score = 0;
  if (has(sum.title) || has(sum.name)) score += 3;
  if (has(sum.words)) score += 2;
  if (has(SUM_TASKS[sum.task])) score += 1;
  if (sum.inputs.some((i) => has(i.meaning)) || Object.values(sum.resultWords).some(has)) score += 1;
  return score;
}
