import type { Pool } from 'pg';
import { boardNets, findPart, netKey } from '@/core/circuit';
import { boardFacts, isPlaceConfirmed, saysOfBoard } from '@/core/job';
import { ProblemError } from '@/core/problem';
import { judgeSubstitution } from '@/core/substitute';
import { runSum } from '@/core/sums';
import { insertLine, lineByClientKey, lineOf } from '@/data/ledger/ledgerTable';
import type { StoredJob } from '@/data/job/jobTable';
import { withTransaction } from '@/data/pool';
import type { Tx } from '@/data/pool';
import { RowId } from '@/wire/ids';
import type { NewLine, StoredLine } from '@/wire/ledger';
import { refuseSecondLive } from './oneLive';
import { requireJob } from './openJob';
import { presentBoard } from './presentBoard';
import { checkShorthand, retrace } from './retrace';
import { readSweepText } from '@/wire/csv';

/**
 * Writes one line into a job's ledger, all or nothing.
 *
 * The same client key twice gives the first line again: a repeated request after a lost answer writes nothing new.
 * A tracing fact, or its reversal, makes its board another.
 * Throws ProblemError `no-such-job`, `shorthand`, `no-such-place`, `refused-substitution` and what `insertLine` throws.
 */
export async function addLine(pool: Pool, tag: string, line: NewLine, now: Date): Promise<StoredLine> {
  const job = await requireJob(pool, tag);
  try {
    return await withTransaction(pool, (tx) => write(tx, job, line, now));
  } catch (error) {
    const already = await lineByClientKey(pool, job.id, line.clientKey);
    if (already) return already;
    throw error;
  }
}

async function write(tx: Tx, job: StoredJob, told: NewLine, now: Date): Promise<StoredLine> {
  const jobId = job.id;
  const already = await lineByClientKey(tx, jobId, told.clientKey);
  if (already) return already;
  const { boardId } = told;
  const entry = await placed(tx, jobId, boardId, told.entry);
  const line = { ...told, entry, reverses: await reversedId(tx, jobId, told.reverses) };
  if (entry.kind === 'replacement' && boardId !== null) await checkReplacement(tx, jobId, boardId, entry.body);
  for (const text of boardFacts(entry)) checkShorthand(text);
  await checkReferences(tx, jobId, entry);
  const undone = line.reverses === null ? undefined : (await lineOf(tx, jobId, line.reverses))?.line;
  if (entry.kind === 'powered-reading') await refuseSecondLive(tx, job.bench, job.id, READ_LIVE);
  if (undone?.entry.kind === 'isolation') await refuseSecondLive(tx, job.bench, job.id, UNDO_LIVE);
  const stored = await insertLine(tx, jobId, line, now);
  if (boardId !== null && saysOfBoard(entry)) await retrace(tx, jobId, boardId, stored, stored.id);
  if (undone && undone.boardId !== null && saysOfBoard(undone.entry))
    await retrace(tx, jobId, undone.boardId, stored, null);
  return stored;
}

const READ_LIVE =
  'Two live units on one bench: isolate that one first. Nothing was written; the figure is kept in the field.';
const UNDO_LIVE =
  'Undoing this isolation would make two live units on one bench: isolate that one first. Nothing was written.';

/** The id of the line that another takes back, which may name it by the key that it was sent with. */
async function reversedId(tx: Tx, jobId: string, named: string | null): Promise<string | null> {
  if (named === null || RowId.safeParse(named).success) return named;
  const line = await lineByClientKey(tx, jobId, named);
  if (line) return line.id;
  throw new ProblemError({
    code: 'line-gone',
    sentence: 'The line to undo is not in the log.',
    remedy: 'Nothing was changed.',
  });
}

/** What a line names must be there: the sweep of its rows, the change it proves; its sum and its rows must be sound. */
async function checkReferences(tx: Tx, jobId: string, entry: NewLine['entry']): Promise<void> {
  const named =
    entry.kind === 'sweep-rows'
      ? ([entry.body.sweep, 'sweep'] as const)
      : entry.kind === 'sweep' || entry.kind === 'modification-verdict'
        ? ([entry.body.modification, 'modification'] as const)
        : null;
  if (named && named[0] !== null) {
    const there = RowId.safeParse(named[0]).success ? await lineOf(tx, jobId, named[0]) : null;
    if (!there || there.undone || there.line.entry.kind !== named[1])
      throw new ProblemError({
        code: 'line-gone',
        sentence: `The ${named[1]} that this belongs to is not in the log any more.`,
        remedy: 'Nothing was written; what you typed is kept.',
      });
  }
  if (entry.kind === 'sum' || entry.kind === 'modification') {
    const { name, inputs } = entry.kind === 'sum' ? entry.body : entry.body.sum;
    const done = runSum(name, inputs);
    if (!done.ok) throw new ProblemError(done.problem);
  }
  if (entry.kind === 'sweep-rows') {
    const read = readSweepText(entry.body.csv, 'vin');
    const [trouble] = read.troubles;
    if (trouble || read.rows.length !== entry.body.count)
      throw new ProblemError({
        code: 'bad-rows',
        sentence: trouble ? `Line ${trouble.line}: ${trouble.sentence}` : 'The rows are not as many as they say.',
        remedy: 'Nothing was written. Correct the row and send it again.',
      });
  }
}

/** A reading is taken between two nets of its own board; whether the leads were surely there is not for the sender to say. */
async function placed(
  tx: Tx,
  jobId: string,
  boardId: string | null,
  entry: NewLine['entry'],
): Promise<NewLine['entry']> {
  if (entry.kind !== 'reading' && entry.kind !== 'powered-reading') return entry;
  const { body } = entry;
  const board = boardId === null ? null : await presentBoard(tx, jobId, boardId);
  const nets = new Set(board ? boardNets(board).map(netKey) : []);
  const lost = [body.red, body.black].find((net) => !nets.has(netKey(net)));
  if (!board || lost !== undefined)
    throw new ProblemError({
      code: 'no-such-place',
      sentence: board
        ? `There is no net ${lost} on this board.`
        : 'The reading does not say on which board of this job.',
      remedy: 'Nothing was written: the reading was taken on another board, or the net has another name now.',
    });
  if (entry.kind === 'powered-reading') return entry;
  return {
    kind: 'reading',
    body: { ...entry.body, placeConfirmed: isPlaceConfirmed(board, entry.body.mode, body.red, body.black) },
  };
}

async function checkReplacement(
  tx: Tx,
  jobId: string,
  boardId: string,
  body: Extract<NewLine['entry'], { kind: 'replacement' }>['body'],
): Promise<void> {
  const board = await presentBoard(tx, jobId, boardId);
  const part = board && findPart(board, body.ref);
  if (!part)
    throw new ProblemError({
      code: 'no-such-part',
      sentence: `There is no part ${body.ref} on this board.`,
      remedy: 'Nothing was written.',
    });
  const verdict = judgeSubstitution(part, body.fitted);
  if (verdict.verdict === 'refused') {
    throw new ProblemError({
      code: 'refused-substitution',
      sentence: verdict.reasons.join(' '),
      remedy: 'Choose another part; nothing was written.',
    });
  }
}
