import { Worker } from 'node:worker_threads';
import { readNetlist } from '@/core/netlist';
import { ProblemError } from '@/core/problem';

type Read = ReturnType<typeof readNetlist>;

/** Shorter texts are read where they are: that takes a few milliseconds. */
const SHORT = 8000;
const MOST_MS = 5000;

/**
 * Reads board files in a thread beside the one that serves requests, one after the other; a file that takes too long
 * is given up. `path` is the bundle of `workers/reader.thread`; without one everything is read in this thread.
 */
export class AsideReader {
  private worker: Worker | null = null;
  private last: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly path: string | undefined,
    private readonly mostMs = MOST_MS,
  ) {}

  /** Throws ProblemError `took-too-long`. */
  read(text: string): Promise<Read> {
    if (this.path === undefined || text.length <= SHORT) return Promise.resolve(readNetlist(text));
    const { path } = this;
    const turn = this.last.then(() => this.ask(path, text));
    this.last = turn.catch(() => undefined);
    return turn;
  }

  private ask(path: string, text: string): Promise<Read> {
    const worker = (this.worker ??= new Worker(path));
    worker.ref();
    return new Promise<Read>((resolve, reject) => {
      const give = (error: Error | null, read?: Read): void => {
        clearTimeout(timer);
        worker.off('message', onMessage).off('error', give).off('exit', onExit);
        // A thread that failed or hangs is not used again; one that waits keeps nothing alive.
        if (error || !read) {
          this.worker = null;
          void worker.terminate();
          reject(error ?? new Error('the reader gave nothing'));
        } else {
          worker.unref();
          resolve(read);
        }
      };
      const timer = setTimeout(() => give(tooLong(this.mostMs)), this.mostMs);
      const onMessage = (read: Read): void => give(null, read);
      const onExit = (): void => give(new Error('the reader has ended'));
      worker.on('message', onMessage).on('error', give).on('exit', onExit);
      worker.postMessage(text);
    });
  }
}

function tooLong(ms: number): ProblemError {
  return new ProblemError({
    code: 'took-too-long',
    sentence: `This board file was not read through within ${Math.round(ms / 1000)} s.`,
    remedy: 'Nothing of it was taken. Drop a smaller one, or a part of it.',
  });
}

const holder = globalThis as typeof globalThis & { lanternReader?: AsideReader };

/** Reads a board file, long ones aside. Throws ProblemError `took-too-long`. */
export function readAside(text: string): Promise<Read> {
  holder.lanternReader ??= new AsideReader(process.env['LANTERN_READER']);
  return holder.lanternReader.read(text);
}
