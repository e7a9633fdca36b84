import { randomUUID } from 'node:crypto';
import type { Pool } from 'pg';
import { findPart } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import type { ProbePoint, TakenReading } from '@/core/diagnose';
import { Diagnoser, buildWholeDictionary, listHypotheses } from '@/core/diagnose';
import { parseFault } from '@/core/fault';
import { SimulatedBoard, drawParts, simulateReading, solverFor } from '@/core/meter';
import type { UnpoweredMode } from '@/core/meter';
import { invariant } from '@/core/problem';
import { seededRandom } from '@/core/quantity';
import { UNTRACED, energyStores, untracedStore } from '@/core/safety';
import { EMPTY_ROW, writeSweepCsv } from '@/core/sweep';
import { makePool } from '@/data/pool';
import { allJobs } from '@/data/job/jobTable';
import { addLine } from '@/usecases/addLine';
import { createJob } from '@/usecases/createJob';
import { openJob } from '@/usecases/openJob';
import { boardFromJson } from '@/wire/boardCopy';
import { COLD_CONDITIONS } from '@/core/ledger';
import type { LedgerEntry } from '@/wire/ledger';
import { NewJob } from '@/wire/jobForm';
import { DEMO_JOBS } from './demoJobs';
import type { DemoJob } from './demoJobs';
import { DEMO_SETTINGS } from './demoSettings';
import { changeSettings } from '@/usecases/settings';
import { seedPhotos } from './seedPhotos';

const MINUTE = 60_000;

/** Puts the demo jobs in unless the database already holds a job; gives how many it made. */
export async function seedDemo(url: string, now = new Date()): Promise<number> {
  const pool = makePool(url);
  try {
    const there = await allJobs(pool);
    if (there.sound.length + there.damaged.length > 0) return 0;
    await changeSettings(pool, DEMO_SETTINGS, now);
    for (const demo of DEMO_JOBS) await seedJob(pool, demo, now);
    return DEMO_JOBS.length;
  } finally {
    await pool.end();
  }
}

/** Makes one demo job: its lines are written as a technician would have, its readings come from the engine. */
async function seedJob(pool: Pool, demo: DemoJob, now: Date): Promise<void> {
  let at = now.getTime() - demo.minutesAgo * MINUTE;
  const tick = (minutes: number): Date => new Date((at += minutes * MINUTE));
  const { boardId } = await createJob(pool, NewJob.parse({ ...demo.intake, bench: demo.actor }), tick(0));
  const { boards } = await openJob(pool, demo.intake.tag);
  let board = boardFromJson(boards[0]!.content);
  const write = async (entry: LedgerEntry, minutes: number, onBoard = true): Promise<string> => {
    const line = {
      clientKey: randomUUID(),
      actor: demo.actor,
      boardId: onBoard ? boardId : null,
      entry,
      reverses: null,
    };
    return (await addLine(pool, demo.intake.tag, line, tick(minutes))).id;
  };
  for (const text of demo.traced ?? []) await write({ kind: 'trace', body: { text } }, 0.4);
  if (demo.traced) board = boardFromJson((await openJob(pool, demo.intake.tag)).boards[0]!.content);
  if (demo.photographs) await seedPhotos(pool, demo.intake.tag, boardId, board, tick(1));
  for (const finding of demo.findings ?? []) await write({ kind: 'finding', body: finding }, 1);
  if (demo.isolated) {
    for (const [i, source] of demo.intake.sources.entries())
      await write({ kind: 'isolation', body: { source: source.name, id: `s${i + 1}` } }, 1, false);
  }
  if (demo.proved) await proveStores(board, write);
  if (demo.hidden !== undefined) await hunt(board, demo, write);
  if (demo.repair) await repair(board, demo, write);
  if (demo.sweep) await sweep(demo.sweep, write);
  const { waitingFor = '' } = demo;
  const outcome = demo.repair ? 'repaired' : 'open';
  if (demo.repair || waitingFor !== '')
    await write({ kind: 'job-state', body: { outcome, waitingFor, archived: false } }, 3, false);
}

type Write = (entry: LedgerEntry, minutes: number, onBoard?: boolean) => Promise<string>;

async function proveStores(board: Board, write: Write): Promise<void> {
  const stores = energyStores(board).filter((s) => s.proof);
  const untraced = untracedStore(board, '', stores, true);
  for (const store of untraced ? [untraced, ...stores] : stores) {
    const refs = store.refs.length > 0 ? [...store.refs] : [UNTRACED];
    await write({ kind: 'discharge-proof', body: { storeKey: store.key, refs, volts: 0.04, meterProved: true } }, 0.5);
  }
}

async function hunt(board: Board, demo: DemoJob, write: Write): Promise<void> {
  const faults = demo.hidden!.split('+').map((text) => {
    const parsed = parseFault(board, text);
    invariant(parsed.ok, `demo fault ${text}`);
    return parsed.value;
  });
  const random = seededRandom(demo.seed);
  const real = new SimulatedBoard(board, faults, drawParts(random));
  const diagnoser = new Diagnoser(buildWholeDictionary(board, listHypotheses(board)));
  const readings: TakenReading[] = [];
  const take = async ({ mode, red, black }: ProbePoint): Promise<void> => {
    const shown = real.read(mode, red, black, random);
    const seen = shown.kind === 'figure' ? { kind: shown.kind, value: Number(shown.value.toPrecision(4)) } : shown;
    readings.push({ mode, red, black, seen });
    await write(reading(mode, red, black, seen, 'probe'), 0.4);
  };
  for (let k = 0; k < demo.readings; k++) {
    if (diagnoser.diagnose(readings, 1).verdict !== 'open') break;
    const point = diagnoser.plan(diagnoser.standing(readings), 1)[0]?.point;
    if (!point) break;
    await take(point);
  }
  for (const point of demo.confirm ?? []) await take(point);
}

function reading(
  mode: UnpoweredMode,
  red: string,
  black: string,
  seen: { kind: 'figure'; value: number } | { kind: 'overload' },
  purpose: 'probe' | 'after-repair' | 'also-check',
  ref?: string,
): LedgerEntry {
  const conditions = COLD_CONDITIONS;
  return {
    kind: 'reading',
    body: { mode, red, black, seen, purpose, placeConfirmed: false, conditions, ...(ref === undefined ? {} : { ref }) },
  };
}

async function repair(board: Board, demo: DemoJob, write: Write): Promise<void> {
  const { fault, words, fitted } = demo.repair!;
  await write({ kind: 'fault', body: { fault, words } }, 2);
  const healthy = solverFor(board, [], drawParts(seededRandom(demo.seed + 1)));
  const random = seededRandom(demo.seed + 2);
  for (const part of fitted) {
    await write(
      { kind: 'replacement', body: { ref: part.ref, was: part.was, fitted: part.fitted, words: part.words } },
      12,
    );
    const [red = '', black = ''] = findPart(board, part.ref)!.nets;
    const shown = simulateReading(healthy, 'diode', red, black, random);
    const seen = shown.kind === 'figure' ? { kind: shown.kind, value: Number(shown.value.toPrecision(3)) } : shown;
    await write(reading('diode', red, black, seen, 'after-repair', part.ref), 1);
  }
  await write({ kind: 'step-closed', body: { step: 'repair' } }, 1, false);
}

async function sweep({ title, claimed, efficiency, rows }: NonNullable<DemoJob['sweep']>, write: Write): Promise<void> {
  const setup = {
    title,
    setBy: 'iout',
    claimed: { column: 'vout', value: claimed, tolerance: 0.05 },
    sagLimit: 0.05,
    efficiency,
    modification: null,
  } as const;
  const id = await write({ kind: 'sweep', body: setup }, 4);
  for (const [iout, vin, iin, vout] of rows) {
    const csv = writeSweepCsv([{ ...EMPTY_ROW, iout, vin, iin, vout }], false);
    await write({ kind: 'sweep-rows', body: { sweep: id, csv, count: 1 } }, 1);
  }
}
