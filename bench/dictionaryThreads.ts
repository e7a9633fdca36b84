import { Worker, parentPort, workerData } from 'node:worker_threads';
import type { Board } from '@/core/circuit';
import { buildDictionary, joinParts, listHypotheses, partOf } from '@/core/diagnose';
import type { DictionaryPart, DictionaryShare } from '@/core/diagnose';
import { atOnce } from '@/core/problem';

interface Asked {
  readonly board: Board;
  readonly share: DictionaryShare;
}

/** What a thread of this bundle does that `dictionaryTogether` began: its share of a dictionary. */
export function answerInThread(): void {
  const { board, share } = workerData as Asked;
  const hypotheses = listHypotheses(board);
  const dictionary = atOnce(buildDictionary(board, hypotheses, undefined, share));
  parentPort?.postMessage(partOf(dictionary, hypotheses));
}

/**
 * Milliseconds until so many new threads, each a copy of this program that has run nothing yet, have worked out the dictionary
 * of a board together, as the workers of a page do.
 *
 * program  the bundle that is running.
 */
export async function dictionaryTogether(board: Board, of: number, program: URL): Promise<number> {
  const began = performance.now();
  const parts = await Promise.all(
    Array.from(
      { length: of },
      (_, part) =>
        new Promise<DictionaryPart>((resolve, reject) => {
          const asked: Asked = { board, share: { part, of } };
          const thread = new Worker(program, { workerData: asked });
          thread.once('message', resolve).once('error', reject);
        }),
    ),
  );
  joinParts(board, listHypotheses(board), parts);
  return performance.now() - began;
}
