import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { nightly } from './backup.mjs';
import { buildApplication } from './build.mjs';
import { migrateDatabase, seedDemo } from './database.mjs';
import { isLauncher, leaveLock, takeLock } from './lock.mjs';
import { npmPackages } from './packages.mjs';
import { freePort, startCluster } from './postgres.mjs';
import { STATE } from './run.mjs';
import { SetUpProblem, say } from './say.mjs';
import { serveApplication } from './serve.mjs';

const USUAL_PORT = 4730;
const RUNNING = join(STATE, 'running.json');
/** Held from the first moment of a start to its end, so that two at once do not share a database. */
const LOCK = join(STATE, 'start.lock');

/** `lantern start`: makes everything ready and serves until it is told to stop. */
export async function start(words) {
  const wanted = readOptions(words);
  const other = runningElsewhere();
  if (other) {
    say(`Rough Lantern already runs from this folder: ${other}`);
    return;
  }
  const given = process.env.DATABASE_URL;
  if (given && wanted.resetDemo) mustNameDatabase(given, wanted.database);
  const before = takeLock(LOCK);
  if (before !== null) {
    say(`Rough Lantern is just being started from this folder (process ${before}); this start leaves it alone.`);
    return;
  }
  process.on('exit', () => leaveLock(LOCK));
  await npmPackages();
  await buildApplication();
  const cluster = given ? { url: given, stop: async () => {} } : await startCluster('main');
  let closing = false;
  let stopServing = async () => {};
  const stop = async (status) => {
    if (closing) return;
    closing = true;
    rmSync(RUNNING, { force: true });
    await stopServing();
    await cluster.stop();
    process.exit(status);
  };
  process.on('SIGINT', () => void stop(0));
  process.on('SIGTERM', () => void stop(0));
  try {
    await migrateDatabase(cluster.url, { reset: wanted.resetDemo });
    if (!wanted.empty) await seedDemo(cluster.url);
    process.env.LANTERN_LOG ??= join(STATE, 'application.log');
    const port = wanted.port ?? (await freePort(USUAL_PORT));
    stopServing = await serveApplication(port, cluster.url);
    const address = `http://127.0.0.1:${port}/`;
    mkdirSync(STATE, { recursive: true });
    writeFileSync(RUNNING, JSON.stringify({ pid: process.pid, address }));
    say(`Rough Lantern is ready: ${address}   (Ctrl-C stops it)`);
    say(`Trouble is written into ${process.env.LANTERN_LOG}`);
    if (!given) {
      nightly(cluster.url);
      watchDatabase(
        cluster.pid,
        () => void stop(1),
        () => closing,
      );
    }
  } catch (error) {
    await cluster.stop();
    throw error;
  }
}

/** Without its database the application can keep nothing: it stops and says so. */
function watchDatabase(pid, stop, closing) {
  const timer = setInterval(() => {
    try {
      process.kill(pid, 0);
    } catch {
      clearInterval(timer);
      if (closing()) return;
      say('PostgreSQL has stopped. Every acknowledged line is kept; start Rough Lantern again.');
      stop();
    }
  }, 1000);
  timer.unref();
}

/** A database that is not this folder's own is emptied only by one who names it. */
function mustNameDatabase(url, named) {
  const name = decodeURIComponent(new URL(url).pathname.slice(1));
  if (named === name) return;
  throw new SetUpProblem(
    `--reset-demo would throw away everything in the database “${name}” that DATABASE_URL names. Nothing was changed. To do it all the same: --reset-demo --database ${name}`,
  );
}

function runningElsewhere() {
  if (!existsSync(RUNNING)) return null;
  try {
    const { pid, address } = JSON.parse(readFileSync(RUNNING, 'utf8'));
    return isLauncher(pid) && pid !== process.pid ? address : null;
  } catch {
    return null;
  }
}

function readOptions(words) {
  const wanted = { port: null, empty: false, resetDemo: false, database: null };
  for (let i = 0; i < words.length; i++) {
    const [name, inline] = words[i].split('=');
    if (name === '--empty') wanted.empty = true;
    else if (name === '--reset-demo') wanted.resetDemo = true;
    else if (name === '--database') wanted.database = inline ?? words[++i] ?? null;
    else if (name === '--port') {
      wanted.port = Number(inline ?? words[++i]);
      if (!Number.isInteger(wanted.port) || wanted.port < 1 || wanted.port > 65535)
        throw new SetUpProblem('--port needs a number from 1 to 65535.');
    } else throw new SetUpProblem(`start has no option ${name}.`);
  }
  return wanted;
}
