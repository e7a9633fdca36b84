import { archetypeBoard } from '@/core/archetype';
import { helpersOf } from './helpers';
import type { DictionaryAnswer, DictionaryAsked, DiagnoseAnswer, DiagnoseRequest } from './messages';

/** What a worker has around it. */
interface World {
  postMessage(message: unknown): void;
  onmessage?: (event: { data: never }) => void;
}
const globals = globalThis as unknown as { self: World; Worker?: unknown };

const board = archetypeBoard('buck-module')!;
const answers: DiagnoseAnswer[] = [];
/** What the threads that help do: work, break down, or say nothing for ever. */
let helping: 'well' | 'broken' | 'never' = 'well';
const asked: DictionaryAsked[] = [];
let ended = 0;

/** The module of such a thread. */
const inside: World = { postMessage: () => undefined };

/** A thread that helps, in this one. */
class Thread {
  onmessage: ((event: { data: DictionaryAnswer }) => void) | null = null;
  onerror: (() => void) | null = null;

  postMessage(message: DictionaryAsked): void {
    asked.push(message);
    setTimeout(() => {
      if (helping === 'broken') return this.onerror?.();
      if (helping === 'never') return;
      globals.self = {
        postMessage: (m) => this.onmessage?.({ data: structuredClone(m) as DictionaryAnswer }),
      };
      inside.onmessage!({ data: structuredClone(message) as never });
      globals.self = diagnosing;
    });
  }

  terminate(): void {
    ended++;
  }
}

const diagnosing: World = { postMessage: (message) => void answers.push(message as DiagnoseAnswer) };
const ask = (data: DiagnoseRequest): void => diagnosing.onmessage!({ data: structuredClone(data) as never });

async function until(fits: (answer: DiagnoseAnswer) => boolean): Promise<DiagnoseAnswer> {
  for (let i = 0; i < 4000; i++) {
    const found = answers.find(fits);
    if (found) return found;
    await new Promise((resolve) => setTimeout(resolve, 5));
  }
  throw new Error(`only ${answers.map((a) => a.type).join()}`);
}

async function suspectsAfterOpening(number: number, helpers: number) {
  answers.length = 0;
  ask({ type: 'open', number, board, symptoms: [], instruments: [], helpers });
  await until((a) => a.type === 'opened' && a.number === number && a.done === a.of);
  ask({ type: 'weigh', number, opened: number, presented: 0, readings: [], present: [], skipped: [], findings: [] });
  const weighed = await until((a) => a.type === 'weighed' && a.number === number);
  if (weighed.type !== 'weighed') throw new Error('weighed');
  const { suspects, plan, done, of } = weighed;
  return { suspects: suspects.map((s) => [s.fault, s.probability, s.group]), plan: plan.length, done, of };
}

beforeAll(async () => {
  globals.self = inside;
  await import('./dictionary.worker');
  globals.self = diagnosing;
  await import('./diagnose.worker');
});
afterEach(() => {
  asked.length = 0;
  ended = 0;
});

test('what several work out together is what one works out alone, whether they work or break down', async () => {
  const alone = await suspectsAfterOpening(1, 0);
  expect(alone.done).toBe(alone.of);
  globals.Worker = Thread;
  for (const [number, how] of [
    [2, 'well'],
    [3, 'broken'],
  ] as const) {
    helping = how;
    const together = await suspectsAfterOpening(number, 2);
    expect(together).toMatchObject({ plan: alone.plan, done: alone.done, of: alone.of });
    expect(together.suspects.map(([fault, , group]) => [fault, group])).toEqual(
      alone.suspects.map(([fault, , group]) => [fault, group]),
    );
    together.suspects.forEach(([, p], i) => expect(p).toBeCloseTo(alone.suspects[i]![1] as number, 6));
  }
  expect(asked.map((a) => a.share)).toEqual([
    { part: 1, of: 3 },
    { part: 2, of: 3 },
    { part: 1, of: 3 },
    { part: 2, of: 3 },
  ]);
}, 60_000);

test('threads that work on a board which is not wanted any more are ended, and nothing is said of it', async () => {
  globals.Worker = Thread;
  helping = 'never';
  answers.length = 0;
  ask({ type: 'open', number: 10, board, symptoms: [], instruments: [], helpers: 2 });
  await until((a) => a.type === 'opened' && a.number === 10);
  helping = 'well';
  const next = await suspectsAfterOpening(11, 2);
  expect(next.done).toBe(next.of);
  expect(ended).toBeGreaterThanOrEqual(4);
  expect(answers.some((a) => a.type === 'opened' && a.number === 10 && a.done === a.of)).toBe(false);
}, 60_000);

test('half of the cores help, three at most, none where there are few', () => {
  expect([1, 2, 3, 4, 5, 6, 8, 64].map(helpersOf)).toEqual([0, 0, 0, 2, 2, 3, 3, 3]);
});
