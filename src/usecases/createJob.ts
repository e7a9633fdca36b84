import { randomUUID } from 'node:crypto';
import type { Pool } from 'pg';
import type { Nameplate } from '@/core/circuit';
import { insertBoard } from '@/data/board/boardTable';
import { insertJob } from '@/data/job/jobTable';
import { insertLine } from '@/data/ledger/ledgerTable';
import { readSettings } from '@/data/setting/settingTable';
import { withTransaction } from '@/data/pool';
import { boardToJson } from '@/wire/boardCopy';
import type { NewJob } from '@/wire/jobForm';
import { mainsFigures } from '@/wire/settings';
import type { Settings } from '@/wire/settings';
import { chooseBoard } from './chooseBoard';
import { refuseSecondLive } from './oneLive';

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
    if (!job.disconnected) await refuseSecondLive(tx, job.bench, null, SECOND_LIVE);
    const { board, origin } = await chooseBoard(tx, job.board);
    const rails = board.nameplate ?? {};
    const { mains } = await readSettings(tx);
    const typed = onMains(job, mains, rails);
    const nameplate = mergePlates(rails, typed);
    const sources = job.sources.map((s, i) => ({ ...s, id: `s${i + 1}` }));
    const id = await insertJob(tx, { ...job, sources, nameplate }, now);
    const boardId = await insertBoard(tx, id, 'Main board', origin, boardToJson({ ...board, nameplate }));
    for (const source of job.disconnected ? sources : []) {
      const entry = { kind: 'isolation', body: { source: source.name, id: source.id } } as const;
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

const SECOND_LIVE = 'Isolate it first, or say that this unit came in with nothing connected. What you typed is kept.';

/**
 * What was typed, with the mains of the country where nobody said which: the one that a typical circuit came with is a guess.
 * It counts only where the unit is made for it.
 */
function onMains({ nameplate, board: { from } }: NewJob, mains: Settings['mains'], rails: Nameplate): Nameplate {
  const typed = nameplate as Nameplate;
  const guessed = from === 'typical' || from === 'empty';
  if (!guessed || typed.source !== 'mains') return typed;
  const { volts, hertz } = mainsFigures(mains);
  const [lowest, highest] = [typed.inputMin ?? rails.inputMin ?? 0, typed.inputMax ?? rails.inputMax ?? Infinity];
  const fits = volts >= lowest && volts <= highest;
  return { ...(fits ? { inputNominal: volts, hertz } : {}), ...typed };
}

/** What was typed wins; the nets it does not know come from the board. */
function mergePlates(fromBoard: Nameplate, typed: Nameplate): NewJob['nameplate'] {
  const outputs = typed.outputs?.map((o, i) => ({ ...fromBoard.outputs?.[i], ...o })) ?? fromBoard.outputs;
  const merged = { ...fromBoard, ...typed, ...(outputs === undefined ? {} : { outputs }) };
  return JSON.parse(JSON.stringify(merged)) as NewJob['nameplate'];
}
