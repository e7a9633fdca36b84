import type { Board } from '@/core/circuit';
import type { DictionaryPart, Symptom } from '@/core/diagnose';
import { workerName } from '@/wire/choices';
import type { DictionaryAnswer, DictionaryAsked } from './messages';

/** Fewer than these have no time to spare; more than these helpers would wait for each other. */
const LEAST_CORES = 4;
const MOST = 3;

/** How many threads may help on a machine of so many cores: half of them, none of few. */
export function helpersOf(cores: number): number {
  return cores < LEAST_CORES ? 0 : Math.min(MOST, Math.floor(cores / 2));
}

/** Workers that each work out a share of a board's dictionary; whoever asks has the first share. */
export class Helpers {
  private readonly workers: Worker[] = [];
  private readonly counts: number[] = [];
  /** The parts of the shares from the second on; null for one that broke down. */
  readonly parts: Promise<readonly (DictionaryPart | null)[]>;

  constructor(
    board: Board,
    symptoms: readonly Symptom[],
    readonly count: number,
  ) {
    const parts = Array.from({ length: count }, (_, i) =>
      this.ask({ board, symptoms, share: { part: i + 1, of: count + 1 } }),
    );
    this.parts = Promise.all(parts);
  }

  /** Hypotheses that they have worked out so far. */
  get done(): number {
    return this.counts.reduce((sum, n) => sum + n, 0);
  }

  stop(): void {
    for (const worker of this.workers) worker.terminate();
  }

  private ask(asked: DictionaryAsked): Promise<DictionaryPart | null> {
    const place = asked.share.part - 1;
    this.counts[place] = 0;
    return new Promise((resolve) => {
      const worker = begun();
      if (!worker) return resolve(null);
      this.workers.push(worker);
      worker.onerror = () => resolve(null);
      worker.onmessage = ({ data }: MessageEvent<DictionaryAnswer>) => {
        if (data.type === 'progress') this.counts[place] = data.done;
        else {
          this.counts[place] = data.part.numbers.length;
          worker.terminate();
          resolve(data.part);
        }
      };
      worker.postMessage(asked);
    });
  }
}

/** A thread that helps; null where none can be begun. */
function begun(): Worker | null {
  try {
    return new Worker(new URL('./dictionary.worker.ts', import.meta.url), { type: 'module', name: workerName() });
  } catch {
    return null;
  }
}
