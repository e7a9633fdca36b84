import { archetypeBoard } from '@/core/archetype';
import { NOMINAL_DRAW } from '@/core/device';
import { SimulatedBoard } from '@/core/meter';
import { parseFault } from '@/core/fault';
import { seededRandom } from '@/core/quantity';
import type { ProbePoint, TakenReading } from '@/core/diagnose';
import type { DiagnoseAnswer, DiagnoseRequest } from './messages';

/** The worker in a world of its own: what the page posts goes in, what it answers is kept. */
const answers: DiagnoseAnswer[] = [];
const world = { postMessage: (message: DiagnoseAnswer) => void answers.push(message) } as {
  postMessage(message: DiagnoseAnswer): void;
  onmessage?: (event: { data: DiagnoseRequest }) => void;
};
const ask = (data: DiagnoseRequest): void => world.onmessage!({ data: structuredClone(data) });
const board = archetypeBoard('buck-module')!;

async function until(type: DiagnoseAnswer['type'], number: number): Promise<DiagnoseAnswer> {
  for (let i = 0; i < 4000; i++) {
    // Opened is what all hypotheses are worked out of.
    const found = answers.find(
      (a) => a.type === type && a.number === number && (a.type !== 'opened' || a.done === a.of),
    );
    if (found) return found;
    await new Promise((resolve) => setTimeout(resolve, 5));
  }
  throw new Error(`no ${type} ${number} in ${answers.map((a) => a.type).join()}`);
}

beforeAll(async () => {
  (globalThis as unknown as { self: typeof world }).self = world;
  await import('./diagnose.worker');
});
beforeEach(() => (answers.length = 0));

test('a board opened is worked out in slices, with progress that only rises, and can then be weighed', async () => {
  ask({ type: 'open', number: 1, board, symptoms: [], instruments: [], helpers: 0 });
  await until('opened', 1);
  const done = answers.flatMap((a) => (a.type === 'progress' ? [a.done] : []));
  expect(done).toEqual([...done].sort((a, b) => a - b));
  ask({ type: 'weigh', number: 2, opened: 1, presented: 0, readings: [], present: [], skipped: [], findings: [] });
  const weighed = await until('weighed', 2);
  if (weighed.type !== 'weighed') throw new Error('weighed');
  expect(weighed.plan.length).toBeGreaterThan(3);
  // The permit's own list comes once its board has been worked out.
  expect(weighed.permit).toBeNull();
  ask({ type: 'present', number: 3, board });
  await until('presented', 3);
  ask({ type: 'weigh', number: 4, opened: 1, presented: 3, readings: [], present: [], skipped: [], findings: [] });
  const again = await until('weighed', 4);
  if (again.type !== 'weighed') throw new Error('weighed');
  expect(again.permit?.allowed).toBe(false);
  expect(again.permit?.clearing.length).toBeGreaterThan(0);
  expect(weighed.byPart.size).toBeGreaterThan(10);
  // What crosses to the page can be cloned.
  expect(structuredClone(weighed)).toEqual(weighed);
}, 60_000);

test('a first look at the likeliest is weighed while the rest is worked out: it plans, and neither calls nor permits', async () => {
  ask({ type: 'open', number: 8, board, symptoms: [], instruments: [], helpers: 0 });
  for (let i = 0; !answers.some((a) => a.type === 'opened') && i < 4000; i++)
    await new Promise((r) => setTimeout(r, 1));
  const first = answers.find((a) => a.type === 'opened');
  if (first?.type !== 'opened') throw new Error('opened');
  expect(first.done).toBeLessThan(first.of);
  const seen = { kind: 'figure', value: 0.1 } as const;
  const [mode, red, black] = ['ohms', board.parts[0]!.nets[0]!, board.parts[0]!.nets[1]!] as const;
  const readings = [1, 2, 3, 4].map(() => ({ mode, red, black, seen }));
  ask({ type: 'weigh', number: 9, opened: 8, presented: 3, readings, present: [], skipped: [], findings: [] });
  const weighed = await until('weighed', 9);
  expect(weighed).toMatchObject({ verdict: 'open', permit: null, done: first.done, of: first.of });
  expect(weighed.type === 'weighed' && weighed.plan.length).toBeGreaterThan(0);
  await until('opened', 8);
}, 60_000);

test('readings of a broken board narrow it down to its fault', async () => {
  ask({ type: 'open', number: 5, board, symptoms: ['dead'], instruments: [], helpers: 0 });
  await until('opened', 5);
  const fault = parseFault(board, 'D1:short');
  if (!fault.ok) throw new Error('fault');
  const unit = new SimulatedBoard(board, [fault.value], NOMINAL_DRAW);
  const random = seededRandom(1);
  const readings: TakenReading[] = [];
  for (let k = 0; k < 30; k++) {
    ask({
      type: 'weigh',
      number: 10 + k,
      opened: 5,
      presented: 3,
      readings,
      present: readings,
      skipped: [],
      findings: [],
    });
    const answer = await until('weighed', 10 + k);
    if (answer.type !== 'weighed') throw new Error('weighed');
    if (answer.verdict === 'named') {
      expect(answer.suspects[0]!.group).toContain('D1:short');
      expect(answer.byPart.get('D1')!).toBeGreaterThan(0.5);
      return;
    }
    const [next] = answer.plan;
    if (!next) throw new Error('nothing left to read');
    const { mode, red, black } = next;
    readings.push({ mode, red, black, seen: unit.read(mode, red, black, random) });
  }
  throw new Error('not named in 30 readings');
}, 60_000);

test('what the instruments tell comes on top of what the meter tells, once that is whole', async () => {
  ask({ type: 'open', number: 40, board, symptoms: [], instruments: ['cap'], helpers: 0 });
  await until('opened', 40);
  const whole = (): number => answers.filter((a) => a.type === 'opened' && a.done === a.of).length;
  for (let i = 0; whole() < 2 && i < 4000; i++) await new Promise((r) => setTimeout(r, 5));
  expect(whole()).toBe(2);
  const skipped: ProbePoint[] = [];
  for (let k = 0; k < 40; k++) {
    const number = 41 + k;
    ask({ type: 'weigh', number, opened: 40, presented: 3, readings: [], present: [], skipped, findings: [] });
    const weighed = await until('weighed', number);
    if (weighed.type !== 'weighed') throw new Error('weighed');
    expect(weighed.instruments).toEqual(['cap']);
    if (weighed.plan.some((p) => p.mode === 'cap')) return;
    skipped.push(...weighed.plan);
  }
  throw new Error('no capacitance is planned');
}, 60_000);

test('a newer board takes the place of one still being worked out', async () => {
  ask({ type: 'open', number: 20, board, symptoms: [], instruments: [], helpers: 0 });
  ask({ type: 'open', number: 21, board, symptoms: ['hiccup'], instruments: [], helpers: 0 });
  await until('opened', 21);
  expect(answers.some((a) => a.type === 'opened' && a.number === 20 && a.done === a.of)).toBe(false);
}, 60_000);

test('the readings of one board are never weighed on another, and a permit is of the board as it is', async () => {
  ask({ type: 'open', number: 24, board, symptoms: [], instruments: [], helpers: 0 });
  await until('opened', 24);
  ask({ type: 'weigh', number: 25, opened: 23, presented: 3, readings: [], present: [], skipped: [], findings: [] });
  ask({ type: 'weigh', number: 26, opened: 24, presented: 2, readings: [], present: [], skipped: [], findings: [] });
  const weighed = await until('weighed', 26);
  expect(answers.some((a) => a.type === 'weighed' && a.number === 25)).toBe(false);
  expect(weighed).toMatchObject({ opened: 24, presented: 2, permit: null });
}, 60_000);

test('trouble is answered as data', async () => {
  ask({
    type: 'open',
    number: 30,
    board: { ...board, parts: null as never },
    symptoms: [],
    instruments: [],
    helpers: 0,
  });
  const failed = await until('failed', 30);
  expect(failed.type === 'failed' && failed.sentence).not.toBe('');
  // Nothing can be weighed then, and nothing is made up.
  ask({ type: 'weigh', number: 31, opened: 30, presented: 3, readings: [], present: [], skipped: [], findings: [] });
  await new Promise((resolve) => setTimeout(resolve, 30));
  expect(answers.some((a) => a.type === 'weighed')).toBe(false);
});
