import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { debianEnvironment } from './debian.mjs';
import { npmPackages } from './packages.mjs';
import { postgresPrograms, startCluster } from './postgres.mjs';
import { STATE, show } from './run.mjs';
import { SetUpProblem, say } from './say.mjs';

const FOLDER = join(STATE, 'backups');
/** Nightly copies that are kept. */
const KEPT = 7;
const HOUR_MS = 3_600_000;

/** `lantern backup FILE`: one file with everything, taken while the application goes on. */
export async function backup(words) {
  const [file, ...more] = words;
  if (!file || file.startsWith('--') || more.length > 0) throw new SetUpProblem('backup wants one file to write to.');
  await withDatabase((url) => dump(url, resolve(file)));
  say(`Backed up: ${file} (${Math.ceil(statSync(resolve(file)).size / 1000)} kB).`);
}

/**
 * `lantern restore FILE [--replace]`: puts a backup back, all of it or nothing. What is there now is kept in a file of
 * its own first. A given database that holds jobs is replaced only when told.
 */
export async function restore(words) {
  const file = words.find((w) => !w.startsWith('--'));
  const odd = words.find((w) => w.startsWith('--') && w !== '--replace');
  if (!file || odd)
    throw new SetUpProblem(odd ? `restore has no option ${odd}.` : 'restore wants the file of a backup.');
  if (!existsSync(resolve(file))) throw new SetUpProblem(`${file} is not there. Nothing was changed.`);
  await withDatabase(async (url) => {
    const jobs = await jobsIn(url);
    if (jobs > 0 && !words.includes('--replace'))
      throw new SetUpProblem(
        `The database holds ${jobs} jobs. Nothing was changed. To put the backup in their place: --replace`,
      );
    if (jobs > 0) {
      const kept = join(FOLDER, `before-restore-${new Date().toISOString().replaceAll(':', '-')}.dump`);
      await dump(url, kept);
      say(`What was there is kept in ${kept}.`);
    }
    await put(url, resolve(file));
    say(`Restored: ${await jobsIn(url)} jobs.`);
  });
}

/** A copy a day while the application runs, the last seven kept; says where. Trouble with it never stops the application. */
export function nightly(url) {
  const copy = async () => {
    const today = join(FOLDER, `${new Date().toISOString().slice(0, 10)}.dump`);
    try {
      if (existsSync(today)) return;
      await dump(url, today);
      const copies = readdirSync(FOLDER).filter((f) => /^\d{4}-\d\d-\d\d\.dump$/u.test(f));
      for (const old of copies.sort().slice(0, -KEPT)) rmSync(join(FOLDER, old), { force: true });
    } catch (error) {
      say(`The daily copy could not be made: ${error.message}`);
    }
  };
  void copy();
  setInterval(() => void copy(), HOUR_MS).unref();
  say(`A copy a day is kept for a week in ${FOLDER}; ./lantern backup FILE makes one now.`);
}

/** The database that is given, or this folder's own: joined where it runs, started for the work where it does not. */
async function withDatabase(work) {
  await npmPackages();
  const given = process.env.DATABASE_URL;
  if (given) return work(given);
  const cluster = await startCluster('main');
  try {
    return await work(cluster.url);
  } finally {
    // Started for this alone: stopped again, unless the application has come up on it meanwhile.
    if (!cluster.joined && !(await inUse(cluster.url))) await cluster.stop();
  }
}

/** Whether anybody else is connected. */
async function inUse(url) {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    const others = "select 1 from pg_stat_activity where backend_type = 'client backend' and pid <> pg_backend_pid()";
    return (await client.query(others)).rows.length > 0;
  } finally {
    await client.end();
  }
}

async function dump(url, file) {
  mkdirSync(dirname(file), { recursive: true });
  const half = `${file}.part`;
  const status = await program('pg_dump', url, ['--format=custom', '--no-owner', '--no-privileges', `--file=${half}`]);
  // What cannot be listed cannot be put back.
  if (status !== 0 || (await program('pg_restore', url, ['--list', '--file=/dev/null', half])) !== 0) {
    rmSync(half, { force: true });
    throw new SetUpProblem(`The backup could not be made. ${file} is as it was.`);
  }
  renameSync(half, file);
}

async function put(url, file) {
  const { dbname } = connection(url);
  const args = ['--clean', '--if-exists', '--no-owner', '--no-privileges', '--single-transaction', '--exit-on-error'];
  const status = await program('pg_restore', url, [...args, `--dbname=${dbname}`, file]);
  if (status !== 0) throw new SetUpProblem('The backup could not be put back. The database is as it was.');
}

async function program(name, url, args) {
  const { env } = connection(url);
  return show(await clientProgram(name), args, { env: { ...debianEnvironment(), ...env } });
}

/** A client program beside the server's, or where the system has it: the two may come from different packages. */
async function clientProgram(name) {
  const server = await postgresPrograms();
  const system = '/usr/lib/postgresql';
  const versions = existsSync(system) ? readdirSync(system).sort((a, b) => Number(b) - Number(a)) : [];
  const places = [server, ...versions.map((v) => join(system, v, 'bin'))].map((folder) => join(folder, name));
  return places.find((place) => existsSync(place)) ?? name;
}

/** A connection string in the environment, so that no password stands in a list of processes. */
function connection(url) {
  const at = new URL(url);
  const dbname = decodeURIComponent(at.pathname.slice(1));
  const env = {
    PGHOST: at.hostname,
    PGPORT: at.port || '5432',
    PGUSER: decodeURIComponent(at.username),
    PGPASSWORD: decodeURIComponent(at.password),
    PGDATABASE: dbname,
  };
  return { dbname, env };
}

async function jobsIn(url) {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    const { rows } = await client.query("select to_regclass('public.job') is not null as there");
    if (!rows[0].there) return 0;
    return (await client.query('select count(*)::int as n from job')).rows[0].n;
  } finally {
    await client.end();
  }
}
