import { existsSync, readFileSync, rmSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { buildApplication } from './build.mjs';
import { migrateDatabase, seedDemo } from './database.mjs';
import { debianEnvironment, installDebian } from './debian.mjs';
import { npmPackages } from './packages.mjs';
import { freePort, startCluster } from './postgres.mjs';
import { ROOT, STATE, heard, run, show } from './run.mjs';
import { say } from './say.mjs';
import { served } from './served.mjs';
import { torture } from './torture.mjs';

const bin = (name) => join(ROOT, 'node_modules', '.bin', name);

/** `lantern test [unit|browser]`: makes everything ready, runs every test, ends with `N passed, N failed`. Gives the exit status. */
export async function test(words) {
  const only = words.find((w) => !w.startsWith('--'));
  const more = words.filter((w) => w.startsWith('--'));
  await npmPackages();
  const total = { passed: 0, failed: 0 };
  const cluster = await startCluster('test');
  try {
    if (only !== 'browser') {
      // Next writes a file at a build which the type check needs.
      await buildApplication();
      // The killing mostly waits: the checks take the machine meanwhile.
      await Promise.all([checks(total), more.length === 0 ? killed(total) : undefined]);
      await unitTests(total, cluster.url, more);
    }
    if (only !== 'unit') await browserTests(total, cluster.url, more);
  } finally {
    // Another run beside this one may have started it: it is theirs.
    if (!cluster.joined) await cluster.stop();
  }
  console.log(`${total.passed} passed, ${total.failed} failed`);
  return total.failed === 0 && total.passed > 0 ? 0 : 1;
}

/** Types and rules count as one test each; two at a time, the longest first. */
async function checks(total) {
  const list = [
    ['lint: the core stays pure, its tiers in order', bin('eslint'), ['.', '--max-warnings', '0']],
    ['format', bin('prettier'), ['--check', '--log-level', 'warn', '.']],
    ['types of the core, without DOM and Node', bin('tsc'), ['-p', 'tsconfig.core.json', '--noEmit']],
    ['types of the application', bin('tsc'), ['-p', 'tsconfig.json', '--noEmit']],
  ].values();
  const lane = async () => {
    for (const [name, command, args] of list) {
      const { status, output } = await heard(command, args);
      if (status !== 0) say(output);
      say(`${status === 0 ? 'ok  ' : 'FAIL'} ${name}`);
      if (status === 0) total.passed++;
      else total.failed++;
    }
  };
  await Promise.all([lane(), lane()]);
}

async function unitTests(total, databaseUrl, more) {
  const file = join(STATE, 'jest.json');
  rmSync(file, { force: true });
  await show(bin('jest'), ['--json', '--forceExit', '--maxWorkers=100%', `--outputFile=${file}`, ...more], {
    env: { ...process.env, TEST_DATABASE_URL: databaseUrl, FORCE_COLOR: '0' },
  });
  if (!existsSync(file)) {
    total.failed++;
    return;
  }
  const result = JSON.parse(readFileSync(file, 'utf8'));
  total.passed += result.numPassedTests;
  total.failed += result.numFailedTests + result.numRuntimeErrorTestSuites;
}

/** A short run of the killing: the whole of it is `lantern torture`. */
async function killed(total) {
  const status = await torture(['--kills', '6', '--seed', '4', '--load', '0']);
  say(`${status === 0 ? 'ok  ' : 'FAIL'} no acknowledged line is lost when server and database are killed`);
  if (status === 0) total.passed++;
  else total.failed++;
}

/** Screens are tested in lanes, each with an application and a database of its own: two, or LANTERN_LANES of them. */
async function browserTests(total, databaseUrl, more) {
  const chromium = await findChromium();
  await buildApplication();
  process.env.LANTERN_LOG = join(STATE, 'test.log');
  const lanes = [];
  for (let lane = 0; lane < lanesWanted(); lane++) {
    const url = await freshDatabase(databaseUrl, `lantern_browser_${lane}`);
    await migrateDatabase(url);
    await seedDemo(url);
    const port = await freePort();
    lanes.push({ url, page: `http://127.0.0.1:${port}`, server: await served(port, url) });
  }
  const file = join(STATE, 'playwright.json');
  rmSync(file, { force: true });
  const env = {
    ...debianEnvironment(),
    DATABASE_URL: lanes.map((l) => l.url).join(' '),
    BASE_URL: lanes.map((l) => l.page).join(' '),
    CHROMIUM: chromium,
    FORCE_COLOR: '0',
  };
  delete env.NODE_ENV;
  await show(bin('playwright'), ['test', ...more], { env });
  for (const { server } of lanes) server.kill();
  if (!existsSync(file)) {
    total.failed++;
    return;
  }
  const { stats } = JSON.parse(readFileSync(file, 'utf8'));
  total.passed += stats.expected;
  total.failed += stats.unexpected + stats.flaky;
}

/** No more lanes than cores. */
function lanesWanted() {
  return Math.max(1, Math.min(Number(process.env.LANTERN_LANES) || 2, availableParallelism()));
}

/** An empty database of this name beside the given one. */
async function freshDatabase(databaseUrl, name) {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  await client.query(`drop database if exists ${name} with (force)`);
  await client.query(`create database ${name}`);
  await client.end();
  const url = new URL(databaseUrl);
  url.pathname = `/${name}`;
  return url.href;
}

/** Chromium without a window is the lightest for tests; that with one does as well. */
async function findChromium() {
  const shell = 'chromium-headless-shell';
  const here = (name) => {
    const found = run('sh', ['-c', `command -v ${name}`]).stdout.trim();
    if (found !== '') return found;
    // The script in usr/bin of the package knows only its usual place.
    const unpacked = join(STATE, 'debian', 'usr', 'lib', 'chromium', name);
    return existsSync(unpacked) ? unpacked : null;
  };
  if (!here(shell)) {
    try {
      await installDebian([shell], 'Chromium');
    } catch (problem) {
      if (!here('chromium')) throw problem;
    }
  }
  return here(shell) ?? here('chromium') ?? '/usr/bin/chromium';
}
