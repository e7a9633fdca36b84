import { randomUUID } from 'node:crypto';
import type { Pool } from 'pg';
import type { Board, Nameplate } from '@/core/circuit';
import { readNetlist } from '@/core/netlist';
import type { NetlistProblem } from '@/core/netlist';
import { ProblemError } from '@/core/problem';
import { boardsOf, insertBoard } from '@/data/board/boardTable';
import type { BoardOrigin } from '@/data/board/boardTable';
import { insertJob, jobByTag } from '@/data/job/jobTable';
import { insertLine } from '@/data/ledger/ledgerTable';
import { withTransaction } from '@/data/pool';
import type { Tx } from '@/data/pool';
import { archetypeBoard } from '@/core/archetype';
import { BoardJson, boardFromJson, boardToJson } from '@/wire/boardJson';
import type { NewJob } from '@/wire/jobForm';
import { liveJobs } from './openJob';

/** A board file that was not read: every error with its line. */
export function netlistRefused(problems: readonly NetlistProblem[]): ProblemError {
  return new ProblemError({
    code: 'bad-netlist',
    sentence: `The board file has ${problems.length === 1 ? 'an error' : `${problems.length} errors`}; nothing of it was taken.`,
    remedy: 'Correct the lines below and drop the file again. What you typed here is kept.',
    details: { lines: problems.map((p) => ({ line: p.details?.line ?? 0, sentence: p.sentence, remedy: p.remedy })) },
  });
}

/**
 * Opens a job: the unit, the job and its board, all or nothing. Gives the job's tag.
 *
 * Only one unit of a bench may be live: another that is not isolated yet keeps a connected one out.
 * Throws ProblemError `tag-taken`, `bench-live`, `bad-netlist`, `bad-board`, `no-such-job`, `no-such-circuit`.
 */
export async function createJob(
  pool: Pool,
  job: NewJob,
  now: Date,
): Promise<{ readonly tag: string; readonly id: string; readonly boardId: string }> {
  return withTransaction(pool, async (tx) => {
    if (!job.disconnected) await refuseSecondLive(tx, job.bench);
    const { board, origin } = await chooseBoard(tx, job);
    const rails = board.nameplate ?? {};
    const nameplate = mergePlates(rails, job.nameplate as Nameplate);
    const id = await insertJob(tx, { ...job, nameplate }, now);
    const boardId = await insertBoard(tx, id, 'Main board', origin, boardToJson({ ...board, nameplate }), now);
    for (const { name } of job.disconnected ? job.sources : []) {
      const entry = { kind: 'isolation', body: { source: name } } as const;
      await insertLine(
        tx,
        id,
        { clientKey: randomUUID(), actor: job.bench, boardId: null, entry, reverses: null },
        now,
      );
    }
    return { tag: job.tag, id, boardId };
  });
}

async function refuseSecondLive(tx: Tx, bench: string): Promise<void> {
  // Two intakes on one bench at once take turns.
  await tx.query('select pg_advisory_xact_lock(hashtext($1))', [`bench ${bench}`]);
  const [live] = (await liveJobs(tx)).filter((job) => job.bench === bench);
  if (live)
    throw new ProblemError({
      code: 'bench-live',
      sentence: `${live.tag}, ${live.unit}, is still LIVE on ${bench}.`,
      remedy: 'Isolate it first, or say that this unit came in with nothing connected. What you typed is kept.',
    });
}

/** What was typed wins; the nets it does not know come from the board. */
function mergePlates(fromBoard: Nameplate, typed: Nameplate): NewJob['nameplate'] {
  const outputs = typed.outputs?.map((o, i) => ({ ...fromBoard.outputs?.[i], ...o })) ?? fromBoard.outputs;
  const merged = { ...fromBoard, ...typed, ...(outputs === undefined ? {} : { outputs }) };
  return JSON.parse(JSON.stringify(merged)) as NewJob['nameplate'];
}

async function chooseBoard(
  tx: Parameters<typeof jobByTag>[0],
  job: NewJob,
): Promise<{ readonly board: Board; readonly origin: BoardOrigin }> {
  const choice = job.board;
  switch (choice.from) {
    case 'typical': {
      const circuit = archetypeBoard(choice.name);
      if (!circuit)
        throw new ProblemError({
          code: 'no-such-circuit',
          sentence: 'There is no such typical circuit.',
          remedy: 'Choose another.',
        });
      return { board: circuit, origin: 'typical' };
    }
    case 'netlist': {
      const read = readNetlist(choice.text);
      if (!read.ok) throw netlistRefused(read.problem);
      return { board: read.value.board, origin: 'netlist' };
    }
    case 'json':
      return { board: boardOfJson(choice.text), origin: 'json' };
    case 'job': {
      const other = await jobByTag(tx, choice.tag);
      const [first] = other ? await boardsOf(tx, other.id) : [];
      if (!first)
        throw new ProblemError({
          code: 'no-such-job',
          sentence: `There is no job ${choice.tag}.`,
          remedy: 'Choose another start.',
        });
      return { board: boardFromJson(first.content), origin: 'copy' };
    }
  }
}

function boardOfJson(text: string): Board {
  const refused = (why: string): ProblemError =>
    new ProblemError({
      code: 'bad-board',
      sentence: `The board JSON was not taken: ${why}`,
      remedy: 'Nothing was saved. Check it against docs/board.schema.json.',
    });
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw refused('it is not JSON.');
  }
  const parsed = BoardJson.safeParse(raw);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    throw refused(`${issue?.path.join('.') ?? ''}: ${issue?.message ?? 'it does not fit the schema'}.`);
  }
  return boardFromJson(parsed.data);
}
