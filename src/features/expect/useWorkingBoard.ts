'use client';
import { watched } from '@/features/job/workers';
import { workerName } from '@/wire/choices';
import { startTransition, useCallback, useEffect, useRef, useState } from 'react';
import type { Board } from '@/core/circuit';
import type { Supposition } from '@/core/expect';
import type { LimiterStep } from '@/core/diagnose';
import type { OperatingCondition, TakenReading, Waveform } from '@/core/work';
import type { BoardAnswer, BoardAsked, RatedBoard, WorkingUnit } from '@/workers/workingMessages';

/** What is typed waits this long before it is worked out, milliseconds; a worker that takes longer than the other is begun anew. */
const PAUSE_MS = 120;
const STUCK_MS = 2500;

type Question = Extract<BoardAsked, { type: 'work' | 'rate' | 'limiter' }>;
type Asking = { [K in Question['type']]: Omit<Extract<Question, { type: K }>, 'id'> }[Question['type']];

/** The worker of the working board: one for the page, begun anew when it is stopped or stuck. */
class WorkingWorker {
  private worker: Worker | null = null;
  private count = 0;
  private readonly open = new Map<
    number,
    { answer(said: BoardAnswer | null): void; progress(done: number): void; at: number }
  >();

  /** Asks; gives null where it was stopped. */
  ask(
    asked: Asking | Omit<Extract<BoardAsked, { type: 'wave' }>, 'id'>,
    progress: (done: number) => void = () => undefined,
  ): Promise<BoardAnswer | null> {
    const now = performance.now();
    if ([...this.open.values()].some((o) => now - o.at > STUCK_MS)) this.stop();
    this.worker ??= this.begin();
    const id = ++this.count;
    return new Promise((answer) => {
      this.open.set(id, { answer, progress, at: now });
      this.worker!.postMessage({ ...asked, id });
    });
  }

  /** Ends what is under way. */
  stop(): void {
    this.worker?.terminate();
    this.worker = null;
    for (const { answer } of this.open.values()) answer(null);
    this.open.clear();
  }

  private begin(): Worker {
    const made = watched(
      new Worker(new URL('../../workers/working.worker.ts', import.meta.url), {
        type: 'module',
        name: workerName(),
      }),
    );
    made.onmessage = ({ data }: MessageEvent<BoardAnswer>) => {
      const asked = this.open.get(data.id);
      if (data.type === 'progress') {
        if (asked) asked.at = performance.now();
        return asked?.progress(data.done);
      }
      this.open.delete(data.id);
      asked?.answer(data);
    };
    return made;
  }
}

/** The working board of a page: what it does in a condition, how hard its parts are worked, what a limiter would show. */
export interface WorkingBoard {
  readonly unit: WorkingUnit | null;
  readonly working: boolean;
  readonly rated: RatedBoard | null;
  /** 0..1 while the ratings are worked out; null: they are not. */
  readonly rating: number | null;
  readonly limiter: readonly LimiterStep[] | null;
  readonly failed: string | null;
  stop(): void;
  /** Waveform between two nets of the unit as it was worked out last. */
  wave(red: string, black: string): Promise<Waveform | null>;
}

/**
 * Works a board out in a worker, and again whenever it, its condition or what is supposed of it changes. wants: what else is to
 * be worked out for what is on the screen.
 */
export function useWorkingBoard(
  board: Board,
  condition: OperatingCondition | null,
  readings: readonly TakenReading[],
  supposed: readonly Supposition[],
  wants: {
    readonly rate: boolean;
    readonly suspects: readonly { readonly fault: string; readonly share: number }[] | null;
  },
): WorkingBoard {
  const [worker] = useState(() => new WorkingWorker());
  useEffect(() => () => worker.stop(), [worker]);
  // What was asked when it was stopped: the next question is worked out again.
  const [stopped, setStopped] = useState<readonly unknown[]>([]);
  const work = useAnswer(worker, condition && { type: 'work', board, condition, readings, supposed }, [
    board,
    condition,
    readings,
    supposed,
  ]);
  const rate = useAnswer(worker, wants.rate ? { type: 'rate', board, supposed } : null, [board, supposed, wants.rate]);
  const { suspects } = wants;
  const limiter = useAnswer(worker, suspects && condition ? { type: 'limiter', board, condition, suspects } : null, [
    board,
    condition,
    suspects,
  ]);
  const stop = useCallback(() => {
    worker.stop();
    setStopped([board, condition, readings, supposed]);
  }, [worker, board, condition, readings, supposed]);
  const wave = useCallback(
    async (red: string, black: string): Promise<Waveform | null> => {
      const said = await worker.ask({ type: 'wave', red, black });
      return said?.type === 'wave' ? said.wave : null;
    },
    [worker],
  );
  const failed = [work, rate, limiter]
    .map((a) => (a.said?.type === 'failed' ? a.said.sentence : null))
    .find((s) => s !== null);
  return {
    unit: work.said?.type === 'work' ? work.said.unit : null,
    working: work.pending && [board, condition, readings, supposed].some((part, i) => stopped[i] !== part),
    rated: rate.said?.type === 'rate' ? rate.said.rated : null,
    rating: rate.pending ? rate.done : null,
    limiter: limiter.said?.type === 'limiter' ? limiter.said.steps : null,
    failed: failed ?? null,
    stop,
    wave,
  };
}

/** The answer to a question that is asked again when any of its parts changes; the last one stays until then. */
function useAnswer(
  worker: WorkingWorker,
  question: Asking | null,
  parts: readonly unknown[],
): { readonly said: BoardAnswer | null; readonly pending: boolean; readonly done: number } {
  const [told, setTold] = useState<BoardAnswer | null>(null);
  const [asked, setAsked] = useState<object | null>(null);
  const [done, setDone] = useState(0);
  const latest = useRef(question);
  useEffect(() => {
    latest.current = question;
  });
  useEffect(() => {
    const now = latest.current;
    if (!now) return;
    const key = {};
    let gone = false;
    const timer = setTimeout(() => {
      setAsked(key);
      setDone(0);
      void worker
        .ask(now, (d) => !gone && setDone(d))
        .then((said) => {
          if (gone) return;
          setAsked((a) => (a === key ? null : a));
          // Drawn in pieces: typing goes on meanwhile.
          if (said) startTransition(() => setTold(said));
        });
    }, PAUSE_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the parts of the question are what it hangs on
  }, [worker, ...parts]);
  return { said: told, pending: question !== null && (asked !== null || told === null), done };
}
