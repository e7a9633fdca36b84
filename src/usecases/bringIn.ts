import type { Pool } from 'pg';
import { strFromU8, unzipSync } from 'fflate';
import { boardEntries, liveSource, saysOfBoard } from '@/core/job';
import { ProblemError } from '@/core/problem';
import { deriveBoard } from '@/core/trace';
import { insertBoard, updateBoard } from '@/data/board/boardTable';
import { insertHarness } from '@/data/harness/harnessTable';
import { insertJob, markBroughtIn } from '@/data/job/jobTable';
import { insertArchived } from '@/data/ledger/ledgerTable';
import { insertPhoto, putMarks } from '@/data/photo/photoTable';
import { withTransaction } from '@/data/pool';
import type { Tx } from '@/data/pool';
import { boardFromJson, boardToJson } from '@/wire/boardCopy';
import { JobArchive, renamed } from '@/wire/jobArchive';
import type { StoredLine } from '@/wire/ledger';
import { wellFormed } from '@/wire/wellFormed';
import { refuseSecondLive } from './oneLive';
import { keptPicture } from './takePhoto';

/** Unpacked it may be no longer than this, bytes; and hold no more files. */
const MOST_UNPACKED = 200_000_000;
const MOST_FILES = 2000;
/** So long may the job itself be: it is read in one piece. */
const MOST_JOB = 30_000_000;

const refused = (sentence: string, remedy = 'Nothing was taken in.'): ProblemError =>
  new ProblemError({ code: 'bad-archive', sentence, remedy });

/**
 * Takes in a whole job from its `.zip`, all or nothing: unit, boards, log, photographs with their marks. Boards are derived
 * anew from their beginnings and the log; what the log says of isolation and discharge was so elsewhere and counts for
 * nothing here.
 *
 * tag, bench  others than in the file: where that tag is on a job already, or another unit is live on that bench.
 * Throws ProblemError `bad-archive`, `tag-taken`, `bench-live`, and what a picture that is none gives.
 */
export async function bringIn(
  pool: Pool,
  bytes: Uint8Array,
  { tag, bench }: { readonly tag?: string | undefined; readonly bench?: string | undefined } = {},
): Promise<{ readonly tag: string }> {
  const files = unpacked(bytes);
  const archive = readArchive(files);
  const pictures = await Promise.all(
    archive.photos.map(async (photo) => {
      const file = files[photo.file];
      if (!file) throw refused(`The photograph ${photo.file} is not in the file.`);
      return { ...photo, picture: await keptPicture(Buffer.from(file)) };
    }),
  );
  const job = { ...archive.job, bench: bench ?? archive.job.bench };
  const named = tag ?? job.tag;
  return withTransaction(pool, async (tx) => {
    const at = new Date(job.createdAt);
    const jobId = await insertJob(tx, { ...job, tag: named }, at);
    const boardIds: string[] = [];
    for (const { label, origin, start } of archive.boards)
      boardIds.push(await insertBoard(tx, jobId, label, origin, start));
    const board = (i: number): string => {
      const id = boardIds[i];
      if (id === undefined) throw refused(`Something in the file is about board ${i + 1}, which is not in it.`);
      return id;
    };
    const lines = await writeLines(tx, jobId, archive, board);
    await deriveBoards(tx, archive, boardIds, lines);
    for (const h of archive.harnesses)
      await insertHarness(tx, jobId, { ...h, fromBoard: board(h.fromBoard), toBoard: board(h.toBoard) });
    for (const p of pictures) await insertPhoto(tx, board(p.board), { side: p.side, ...p.picture }, new Date(p.at));
    for (const m of archive.marks) await putMarks(tx, board(m.board), m.marks, at);
    await markBroughtIn(tx, jobId, lines.length);
    if (liveSource(job.sources, lines, lines.length) !== null)
      await refuseSecondLive(
        tx,
        job.bench,
        jobId,
        'Isolate that one first: what is brought in counts as connected. Nothing was taken in.',
      );
    return { tag: named };
  });
}

function unpacked(bytes: Uint8Array): Readonly<Record<string, Uint8Array>> {
  let [total, count] = [0, 0];
  try {
    return unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        total += originalSize;
        count++;
        const long = name === 'job.json' && originalSize > MOST_JOB;
        if (long || total > MOST_UNPACKED || count > MOST_FILES)
          throw refused('Unpacked this file is too large for a job.');
        return true;
      },
    });
  } catch (error) {
    if (error instanceof ProblemError) throw error;
    throw refused('This is no zip file, or it is cut short.', 'Nothing was taken in. Export the job again.');
  }
}

function readArchive(files: Readonly<Record<string, Uint8Array>>): JobArchive {
  const file = files['job.json'];
  if (!file) throw refused('There is no job.json in this file.', 'Nothing was taken in. Choose a job’s own zip file.');
  let raw: unknown;
  try {
    raw = JSON.parse(strFromU8(file));
  } catch {
    throw refused('The job.json in this file is no JSON.');
  }
  if (!wellFormed(raw)) throw refused('A text in the job.json holds a character that is none.');
  const parsed = JobArchive.safeParse(raw);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    throw refused(`The job.json does not fit: ${issue?.path.join('.') ?? ''} ${issue?.message ?? ''}`);
  }
  const { lines } = parsed.data;
  if (lines.some((l, i) => l.seq !== i + 1 || (l.reverses !== null && l.reverses >= l.seq)))
    throw refused('The lines of the log are not numbered one after the other.');
  return parsed.data;
}

async function writeLines(
  tx: Tx,
  jobId: string,
  { lines }: JobArchive,
  board: (i: number) => string,
): Promise<readonly StoredLine[]> {
  const written: StoredLine[] = [];
  for (const line of lines) {
    const body = renamed(line.kind, line.body, (seq) => written[Number(seq) - 1]?.id);
    const stored = await insertArchived(tx, jobId, {
      ...line,
      body,
      at: new Date(line.at),
      boardId: line.board === null ? null : board(line.board),
      reverses: line.reverses === null ? null : written[line.reverses - 1]!.id,
    });
    written.push(stored);
  }
  return written;
}

/** What each board is by its beginning and the log. */
async function deriveBoards(
  tx: Tx,
  { boards }: JobArchive,
  ids: readonly string[],
  lines: readonly StoredLine[],
): Promise<void> {
  for (const [i, { start }] of boards.entries()) {
    const id = ids[i]!;
    const told = lines.filter((l) => {
      const said = l.reverses === null ? l : lines.find((m) => m.id === l.reverses);
      return said !== undefined && said.boardId === id && saysOfBoard(said.entry);
    });
    const last = told.at(-1);
    if (!last) continue;
    const { board } = deriveBoard(boardFromJson(start), boardEntries(lines, id));
    await updateBoard(tx, id, boardToJson(board), last.seq);
  }
}
