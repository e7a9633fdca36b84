import type { Pool } from 'pg';
import { strToU8, zipSync } from 'fflate';
import { sweepsOf } from '@/core/job';
import { ProblemError } from '@/core/problem';
import { writeNetlist } from '@/core/netlist';
import { writeSweepCsv } from '@/core/sweep';
import { rawLinesOf } from '@/data/ledger/ledgerTable';
import { everyPhotoOf, marksOf } from '@/data/photo/photoTable';
import { withSnapshot } from '@/data/pool';
import type { Db } from '@/data/pool';
import { boardFromJson } from '@/wire/boardCopy';
import { readSweepText } from '@/wire/csv';
import { renamed } from '@/wire/jobArchive';
import type { JobArchive } from '@/wire/jobArchive';
import { readingsCsv } from './exportJob';
import { openInside } from './openJob';
import type { OpenJob } from './openJob';

/** A drawing of one of the job's boards, by its place among them, as an SVG document. */
export interface BoardDrawing {
  readonly board: number;
  readonly svg: string;
}

/** The name of a file about one of several: its place, then what it is called. */
const fileName = (i: number, label: string): string =>
  `${i + 1}-${label
    .replace(/[^\w-]+/gu, '-')
    .slice(0, 40)
    .toLowerCase()}`;

/**
 * A whole job as one `.zip`: `job.json`, from which it can be brought in again, its photographs, and for people and other
 * programs each board as netlist and JSON, the readings and sweeps as CSV, the drawings.
 *
 * Throws ProblemError `no-such-job`, `bad-board` where one of its boards is damaged.
 */
export async function archiveJob(
  pool: Pool,
  tag: string,
  drawings: readonly BoardDrawing[] = [],
): Promise<{ readonly tag: string; readonly zip: Uint8Array<ArrayBuffer> }> {
  return withSnapshot(pool, async (db) => {
    const open = await openInside(db, tag);
    const { archive, pictures } = await archiveOf(db, open);
    const text: Record<string, string> = {
      'job.json': `${JSON.stringify(archive, null, 1)}\n`,
      'readings.csv': readingsCsv(open),
    };
    open.boards.forEach(({ label, content }, i) => {
      text[`boards/${fileName(i, label)}.cir`] = writeNetlist(boardFromJson(content));
      text[`boards/${fileName(i, label)}.json`] = `${JSON.stringify(content, null, 1)}\n`;
    });
    const rowsOf = (csv: string) => readSweepText(csv, 'vin').rows;
    sweepsOf(open.lines, rowsOf).forEach(({ setup, rows }, i) => {
      text[`sweeps/${fileName(i, setup.title)}.csv`] = writeSweepCsv(rows);
    });
    for (const { board, svg } of drawings) {
      const home = open.boards[board];
      if (home) text[`drawings/${fileName(board, home.label)}.svg`] = svg;
    }
    const files: Record<string, Uint8Array> = { ...pictures };
    for (const [name, words] of Object.entries(text)) files[name] = strToU8(words);
    return { tag: open.job.tag, zip: zipSync(files) as Uint8Array<ArrayBuffer> };
  });
}

async function archiveOf(
  db: Db,
  { job, boards, harnesses }: OpenJob,
): Promise<{ readonly archive: JobArchive; readonly pictures: Readonly<Record<string, Uint8Array>> }> {
  const damaged = boards.find((b) => b.damaged !== null);
  // An empty board stands in for it here: written into a file it would take the place of what is still kept.
  if (damaged)
    throw new ProblemError({
      code: 'bad-board',
      sentence: `${damaged.label} cannot be read, and a job without it would not be whole.`,
      remedy: 'Nothing is lost: export the job as it is kept (the link beside the notice).',
    });
  const placeOf = new Map(boards.map((b, i) => [b.id, i]));
  const lines = await rawLinesOf(db, job.id);
  const seqOf = new Map(lines.map((l) => [l.id, l.seq]));
  const numbered = (id: string): string | undefined => seqOf.get(id)?.toString();
  const pictures: Record<string, Uint8Array> = {};
  const photos: JobArchive['photos'] = [];
  const marks: JobArchive['marks'] = [];
  for (const [i, board] of boards.entries()) {
    for (const [k, photo] of (await everyPhotoOf(db, board.id)).entries()) {
      const file = `photos/${fileName(i, board.label)}-${photo.side}-${k + 1}.webp`;
      pictures[file] = photo.image;
      photos.push({ file, board: i, side: photo.side, at: photo.at.toISOString() });
    }
    const own = await marksOf(db, board.id);
    if (own.pairs.length + own.pinned.length > 0) marks.push({ board: i, marks: own });
  }
  const { tag, bench, unit, serial, nameplate, complaint, symptoms, history, accessories, sources } = job;
  const facts = { tag, bench, unit, serial, nameplate, complaint, symptoms, history, accessories, sources };
  const archive: JobArchive = {
    format: 'rough-lantern-job-archive',
    version: 1,
    job: { ...facts, createdAt: new Date(job.createdAt).toISOString() },
    boards: boards.map(({ label, origin, start }) => ({ label, origin: origin as 'typical', start })),
    harnesses: harnesses.map((h) => ({
      ...h,
      fromBoard: placeOf.get(h.fromBoard)!,
      toBoard: placeOf.get(h.toBoard)!,
    })),
    lines: lines.map(({ seq, at, actor, boardId, kind, body, reverses, clientKey }) => ({
      seq,
      at: at.toISOString(),
      actor,
      board: boardId === null ? null : placeOf.get(boardId)!,
      kind,
      body: renamed(kind, body, numbered),
      reverses: reverses === null ? null : seqOf.get(reverses)!,
      clientKey,
    })),
    photos,
    marks,
  };
  return { archive, pictures };
}
