import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { findPart } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { boardEntries } from '@/core/job';
import { planChange } from '@/core/modify';
import type { Change } from '@/core/modify';
import { ProblemError } from '@/core/problem';
import { writeSweepCsv, EMPTY_ROW } from '@/core/sweep';
import { deriveBoard } from '@/core/trace';
import { testDatabase } from '@/data/testDatabase';
import { DOCK_MODULE } from '@/demo/boards/dockModule';
import { boardFromJson, boardToJson } from '@/wire/boardCopy';
import { NewJob } from '@/wire/jobForm';
import type { LedgerEntry, NewLine } from '@/wire/ledger';
import { addLine } from './addLine';
import { createJob } from './createJob';
import { jobJson } from './exportJob';
import { openJob } from './openJob';

type Database = Awaited<ReturnType<typeof testDatabase>>;
let db: Database;
let boardId: string;
const NOW = new Date('2026-11-25T10:00:00Z');
const TAG = 'M-1';

const write = (entry: LedgerEntry, more: Partial<NewLine> = {}) =>
  addLine(db.pool, TAG, { clientKey: randomUUID(), actor: 'Bench A', boardId, entry, reverses: null, ...more }, NOW);
const codeOf = async (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'done',
    (error: unknown) =>
      error instanceof ProblemError
        ? error.problem.code
        : error instanceof pg.DatabaseError
          ? (error.constraint ?? error.message)
          : String(error),
  );
const board = async (): Promise<Board> => boardFromJson((await openJob(db.pool, TAG)).boards[0]!.content);
const row = async () => (await openJob(db.pool, TAG)).boards[0]!;

const change = {
  kind: 'output-voltage',
  rail: 'OUT+',
  return: 'GND',
  tap: 'FB',
  vRef: 1.22,
  vTarget: 6.2,
  modify: 'bottom',
  series: 'E24',
} as const satisfies Change;
async function modification(more: object = {}, vTarget = 6.2): Promise<LedgerEntry> {
  const plan = planChange(await board(), { ...change, vTarget });
  if (!plan.ok) throw new Error(plan.problem.sentence);
  const { title, facts, parts, reaches, steps, sum } = plan.value;
  return {
    kind: 'modification',
    body: {
      title,
      why: 'the cradles want 6.2 V',
      change,
      facts: [...facts],
      parts: [...parts],
      sum: { name: sum.name, inputs: { ...sum.inputs } as Record<string, number | string> },
      reaches,
      steps: [...steps],
      ...more,
    },
  };
}

beforeAll(async () => {
  db = await testDatabase();
  const intake = NewJob.parse({
    tag: TAG,
    bench: 'Bench M',
    unit: 'Brightwater DM-5',
    nameplate: { source: 'dc', inputMin: 10, inputNominal: 12, inputMax: 15 },
    complaint: 'wants 6.2 V',
    symptoms: [],
    sources: [{ name: '12 V battery', kind: 'battery' }],
    board: { from: 'netlist', text: DOCK_MODULE },
    disconnected: true,
  });
  ({ boardId } = await createJob(db.pool, intake, NOW));
}, 60_000);
afterAll(() => db.close());

let modified: string;

test('a modification puts its parts on the board; what it started from stays, and any state between follows from the log', async () => {
  const stored = await write(await modification());
  modified = stored.id;
  expect(findPart(await board(), 'R6')).toMatchObject({ kind: 'resistor', value: 47e3, nets: ['FB', 'GND'] });
  const now = await row();
  expect(now).toMatchObject({ origin: 'netlist', upto: stored.seq });
  expect(JSON.stringify(now.start)).not.toContain('"R6"');
  const { lines } = await openJob(db.pool, TAG);
  const replayed = (upto: number) => {
    const facts = boardEntries(
      lines.filter((l) => l.seq <= upto),
      boardId,
    );
    return boardToJson(deriveBoard(boardFromJson(now.start), facts).board);
  };
  expect(replayed(stored.seq)).toEqual(now.content);
  expect(replayed(stored.seq - 1).parts).toEqual(now.start.parts);
});

test('another capacitor fitted is on the board as well, and undone with its line', async () => {
  const fitted = {
    source: 'new',
    samePart: false,
    value: 470e-6,
    ratedVolts: 16,
    lowEsr: true,
    celsius105: true,
  } as const;
  const stored = await write({ kind: 'replacement', body: { ref: 'C4', was: '470uF 6.3V', fitted, words: '' } });
  expect(findPart(await board(), 'C4')!.numbers['vr']).toBe(16);
  expect((await row()).upto).toBe(stored.seq);
  await write({ kind: 'reversal', body: { reason: 'wrong one' } }, { reverses: stored.id });
  expect(findPart(await board(), 'C4')!.numbers['vr']).toBe(6.3);
});

test('what does not fit the board, or says nothing, is refused and leaves the board as it was', async () => {
  const before = await row();
  expect(await codeOf(write(await modification({ facts: ['R77.1 -- FB'] }, 6.6)))).toBe('no-such-place');
  expect(await codeOf(write(await modification({ facts: ['# remark'] }, 6.6)))).toBe('shorthand');
  expect(await codeOf(write(await modification({ sum: { name: 'moon-phase', inputs: {} } }, 6.6)))).toBe('unknown-sum');
  expect(await codeOf(write(await modification({}, 6.6), { boardId: null }))).toBe('ledger_board_where_needed');
  expect(await row()).toEqual(before);
});

test('a kept sum must be one that can be done', async () => {
  const sum = (inputs: Record<string, number>): LedgerEntry => ({
    kind: 'sum',
    body: { name: 'stored-energy', inputs, bound: { c: 'C4.value' }, words: '' },
  });
  expect((await write(sum({ c: 470e-6, v: 5 }))).entry.kind).toBe('sum');
  expect(await codeOf(write(sum({ c: 470e-6 })))).toBe('bad-input');
});

describe('sweeps', () => {
  const setup = {
    title: 'at three inputs',
    setBy: 'vin',
    claimed: { column: 'vout', value: 6.2, tolerance: 0.05 },
    sagLimit: 0.05,
    efficiency: null,
  } as const;
  const rows = (sweep: string, csv: string, count: number): LedgerEntry => ({
    kind: 'sweep-rows',
    body: { sweep, csv, count },
  });

  test('rows belong to a sweep that is there, and must be sound', async () => {
    const sweep = await write({ kind: 'sweep', body: { ...setup, modification: modified } });
    expect((await write(rows(sweep.id, 'vin,vout\n10,6.2\n', 1))).entry.kind).toBe('sweep-rows');
    expect(await codeOf(write(rows(sweep.id, 'vin,vout\n10,six\n', 1)))).toBe('bad-rows');
    expect(await codeOf(write(rows(sweep.id, 'vin,vout\n10,6\n', 2)))).toBe('bad-rows');
    expect(await codeOf(write(rows('999999', 'vin,vout\n10,6\n', 1)))).toBe('line-gone');
    expect(await codeOf(write(rows(modified, 'vin,vout\n10,6\n', 1)))).toBe('line-gone');
    expect(await codeOf(write({ kind: 'sweep', body: { ...setup, modification: '999999' } }))).toBe('line-gone');
  });

  test('five thousand rows are one line, come back as they were and are in the job’s export', async () => {
    const sweep = await write({ kind: 'sweep', body: { ...setup, title: 'logged', modification: null } });
    const many = Array.from({ length: 5000 }, (_, i) => ({ ...EMPTY_ROW, vin: 10 + i / 1000, vout: 6.2, iout: 1 }));
    const csv = writeSweepCsv(many, false);
    await write(rows(sweep.id, csv, 5000));
    const open = await openJob(db.pool, TAG);
    const kept = open.lines.find((l) => l.entry.kind === 'sweep-rows' && l.entry.body.count === 5000)!;
    expect((kept.entry.body as { csv: string }).csv).toBe(csv);
    expect(JSON.stringify(jobJson(open))).toContain('14.999');
  });

  test('verified is said of a change that stands', async () => {
    const verdict = (modification: string): LedgerEntry => ({
      kind: 'modification-verdict',
      body: { modification, verified: true, words: 'sweep within the band' },
    });
    expect((await write(verdict(modified))).entry.kind).toBe('modification-verdict');
    await write({ kind: 'reversal', body: { reason: 'taken out' } }, { reverses: modified });
    expect(await codeOf(write(verdict(modified)))).toBe('line-gone');
    expect(findPart(await board(), 'R6')).toBeUndefined();
  });
});
