import { z } from 'zod';
import { JOB_TAG } from '@/wire/ids';
import type { NewJob } from '@/wire/jobForm';
import { NameplateJson } from '@/wire/boardJson';
import type { Db, Tx } from '../pool';
import { maybeRow, oneRow, refusals, soundRows } from '../rows';

const Sources = z.array(
  z.strictObject({
    id: z.string().optional(),
    name: z.string(),
    kind: z.enum(['mains', 'battery', 'solar', 'back-feed', 'dc']),
  }),
);

const Row = z
  .strictObject({
    id: z.string(),
    tag: z.string(),
    bench: z.string(),
    unit: z.string(),
    serial: z.string(),
    nameplate: NameplateJson,
    complaint: z.string(),
    symptoms: z.array(z.string()),
    history: z.string(),
    accessories: z.string(),
    sources: Sources,
    created_at: z.date(),
    brought_in: z.number(),
  })
  .transform(({ created_at, brought_in, ...rest }) => ({
    ...rest,
    createdAt: created_at.getTime(),
    /** Number of the last line that came from a file; 0 where the job was taken in here. */
    broughtIn: brought_in,
  }));
/** A job with its unit. */
export type StoredJob = z.output<typeof Row>;

const SELECT = `select j.id, j.tag, j.bench, u.name as unit, u.serial, u.nameplate, j.complaint, j.symptoms, j.history, j.accessories,
  j.sources, j.created_at, j.brought_in from job j join unit u on u.id = j.unit_id`;

/** Every job, newest first, and the tags of those whose own row cannot be read. */
export async function allJobs(
  db: Db,
): Promise<{ readonly sound: readonly StoredJob[]; readonly damaged: readonly string[] }> {
  const { rows } = await db.query(`${SELECT} order by j.created_at desc, j.id desc`);
  const { sound, damaged } = soundRows(Row, rows);
  return { sound, damaged: damaged.map((row) => String((row as { readonly tag?: unknown }).tag ?? '?')) };
}

/** The job with this tag, or null. */
export async function jobByTag(db: Db, tag: string): Promise<StoredJob | null> {
  // What cannot be a tag is not asked for: the database refuses some texts outright.
  if (!JOB_TAG.test(tag)) return null;
  const { rows } = await db.query(`${SELECT} where j.tag = $1`, [tag]);
  return maybeRow(Row, rows);
}

/** Stores a job and its unit; gives the job's id. Throws ProblemError `tag-taken`. */
export async function insertJob(tx: Tx, job: Omit<NewJob, 'board' | 'disconnected'>, at: Date): Promise<string> {
  const unit = await tx.query('insert into unit (name, serial, nameplate) values ($1, $2, $3) returning id', [
    job.unit,
    job.serial,
    JSON.stringify(job.nameplate),
  ]);
  const unitId = oneRow(z.strictObject({ id: z.string() }), unit.rows).id;
  const { rows } = await tx
    .query(
      `insert into job (tag, unit_id, complaint, symptoms, history, accessories, sources, created_at, bench)
       values ($1, $2, $3, $4, $5, $6, $7, $8, $9) returning id`,
      [
        job.tag,
        unitId,
        job.complaint,
        job.symptoms,
        job.history,
        job.accessories,
        JSON.stringify(job.sources),
        at,
        job.bench,
      ],
    )
    .catch(
      refusals({
        job_tag_key: () => ({
          code: 'tag-taken',
          sentence: `Tag ${job.tag} is already on another job.`,
          remedy: 'Everything you typed is still here: choose another tag.',
        }),
      }),
    );
  return oneRow(z.strictObject({ id: z.string() }), rows).id;
}

/** Says that a job came from a file with so many lines: the next follows them. */
export async function markBroughtIn(tx: Tx, jobId: string, lines: number): Promise<void> {
  await tx.query('update job set last_seq = $2, brought_in = $2 where id = $1', [jobId, lines]);
}

/**
 * A mark that changes with every job and every line, a board's among them: each counts its job's last number up as it
 * is committed. The newest id would not do: of two that are written at once the older may be committed last.
 */
export async function benchMark(db: Db): Promise<string> {
  const { rows } = await db.query(`select concat_ws(' ', count(*), coalesce(sum(last_seq), 0)) as mark from job`);
  return oneRow(z.strictObject({ mark: z.string() }), rows).mark;
}

/** All that is kept of a job, as JSON text, through no schema; an empty list when there is no such tag. */
export async function rawJob(db: Db, tag: string): Promise<string> {
  if (!JOB_TAG.test(tag)) return '[]';
  const { rows } = await db.query(
    `select coalesce(json_agg(json_build_object(
       'job', to_json(j), 'unit', to_json(u),
       'boards', (select json_agg(to_json(b) order by b.id) from board b where b.job_id = j.id),
       'lines', (select json_agg(to_json(l) order by l.seq) from ledger_line l where l.job_id = j.id))), '[]')::text as content
     from job j join unit u on u.id = j.unit_id where j.tag = $1`,
    [tag],
  );
  return oneRow(z.strictObject({ content: z.string() }), rows).content;
}
