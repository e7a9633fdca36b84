import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { buildApplication } from './build.mjs';
import { migrateDatabase } from './database.mjs';
import { npmPackages } from './packages.mjs';
import { freePort, startCluster } from './postgres.mjs';
import { STATE } from './run.mjs';
import { SetUpProblem, say } from './say.mjs';
import { served } from './served.mjs';

const JOBS = 10;
const CLIENTS = 8;
const LOAD_CLIENTS = 50;
const LOAD_LINES = 20;
/** An append may take this many times as long as the cheapest route, at the 95th percentile. */
const MOST_RATIO = 10;
const FRONT = 't\nXJ1 L N CONN\nXF1 L LF FUSE\nXBD1 LF N P M BRIDGE\nC1 P M 1000u vr=400\nR1 P M 100k\n';

/**
 * `lantern torture [--kills N] [--seed S] [--load 0]`: kills the server, the database and its backends at random moments while
 * clients write, then lets fifty write at once, unless told not to. Gives the exit status: 0 when no acknowledged line is lost, doubled or
 * out of order, and an append takes no longer than it may.
 */
export async function torture(words) {
  const { kills, seed, load: loaded } = readOptions(words);
  await npmPackages();
  await buildApplication();
  process.env.LANTERN_LOG = join(STATE, 'torture.log');
  const random = seeded(seed);
  say(`Torture: ${kills} kills, seed ${seed}.`);
  const bench = new Bench(await freePort(), await freePort());
  const breaches = [];
  try {
    await bench.startDatabase();
    await migrateDatabase(bench.url, { reset: true });
    await bench.startServer();
    const tags = await Promise.all(Array.from({ length: JOBS }, (_, i) => bench.takeIn(`TT-${i + 1}`)));
    breaches.push(...(await killing(bench, tags, kills, random)));
    if (loaded > 0) breaches.push(...(await load(bench, tags.slice(0, 1))), ...(await load(bench, tags)));
  } finally {
    await bench.end();
  }
  for (const breach of breaches.slice(0, 20)) say(`BROKEN ${breach}`);
  say(breaches.length === 0 ? 'Nothing was lost, doubled or out of order.' : `${breaches.length} breaches.`);
  return breaches.length === 0 ? 0 : 1;
}

function readOptions(words) {
  const wanted = { kills: 60, seed: Date.now() % 1_000_000, load: 1 };
  for (let i = 0; i < words.length; i++) {
    const [name, inline] = words[i].split('=');
    const key = name.slice(2);
    if (!(key in wanted)) throw new SetUpProblem(`torture has no option ${name}.`);
    wanted[key] = Number(inline ?? words[++i]);
    if (!Number.isInteger(wanted[key]) || wanted[key] < 0) throw new SetUpProblem(`${name} wants a whole number.`);
  }
  return wanted;
}

/** A small generator of even random numbers, so that a run can be made again. */
function seeded(seed) {
  let state = (seed * 2654435761 + 1) >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** The application and its database as processes that can be killed and come back where they were. */
class Bench {
  server = null;
  cluster = null;
  ending = false;

  constructor(port, databasePort) {
    this.port = port;
    this.databasePort = databasePort;
    this.origin = `http://127.0.0.1:${port}`;
  }

  get url() {
    return this.cluster.url;
  }

  async startDatabase() {
    // A backend may outlive its server for a moment: PostgreSQL itself then refuses, and says so.
    for (let tries = 0; ; tries++) {
      try {
        this.cluster = await startCluster('torture', this.databasePort);
        return;
      } catch (error) {
        if (tries === 20) throw error;
        await wait(250);
      }
    }
  }

  async startServer() {
    // Known from its first moment: it may have to end before it answers.
    await served(this.port, this.url, (child) => (this.server = child));
  }

  async kill(what) {
    const gone = (child) => new Promise((resolve) => child.once('exit', resolve));
    if (what === 'server') {
      const ended = gone(this.server);
      this.server.kill('SIGKILL');
      await ended;
      await this.startServer();
    } else if (what === 'backend') {
      const pid = backendsOf(this.cluster.pid)[0];
      // PostgreSQL then ends all others and recovers by itself.
      if (pid !== undefined) signal(pid, 'SIGKILL');
    } else {
      const { pid } = this.cluster;
      signal(pid, what === 'database' ? 'SIGKILL' : 'SIGQUIT');
      for (let i = 0; i < 200 && alive(pid); i++) await wait(20);
      await this.startDatabase();
    }
  }

  async post(path, body) {
    const answer = await fetch(this.origin + path, {
      method: 'POST',
      headers: { origin: this.origin, 'content-type': 'application/json' },
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(5000),
    });
    const told = await answer.json();
    if (!answer.ok) throw new Error(told.problem?.code ?? String(answer.status));
    return told;
  }

  async takeIn(tag) {
    await this.post('/api/jobs', {
      tag,
      unit: 'Tidewell test piece',
      nameplate: { source: 'mains', inputMin: 90, inputMax: 264 },
      complaint: 'dead',
      symptoms: [],
      sources: [{ name: 'Mains lead', kind: 'mains' }],
      board: { from: 'netlist', text: FRONT },
      bench: `Bench ${tag}`,
      disconnected: true,
    });
    return tag;
  }

  /** Every line of a job, oldest first, by pulses as a window asks for them. */
  async lines(tag) {
    const all = [];
    for (;;) {
      const answer = await fetch(`${this.origin}/api/jobs/${tag}/pulse?after=${all.at(-1)?.seq ?? 0}`);
      const { lines } = await answer.json();
      if (lines.length === 0) return all;
      all.push(...lines);
    }
  }

  async end() {
    this.server?.kill('SIGKILL');
    await this.cluster?.stop();
    // The next run starts from nothing.
    if (this.cluster) rmSync(this.cluster.folder, { recursive: true, force: true });
  }
}

function signal(pid, name) {
  try {
    process.kill(pid, name);
  } catch {
    // It has gone by itself.
  }
}

function alive(pid) {
  try {
    process.kill(pid, 0);
    return !/\) Z /u.test(readFileSync(`/proc/${pid}/stat`, 'utf8'));
  } catch {
    return false;
  }
}

/** Processes of a server that work for a client. */
function backendsOf(postmaster) {
  return readdirSync('/proc').flatMap((entry) => {
    try {
      const parent = Number(/\) \w (\d+)/u.exec(readFileSync(`/proc/${entry}/stat`, 'utf8'))?.[1]);
      const title = readFileSync(`/proc/${entry}/cmdline`, 'utf8');
      return parent === postmaster && / 127\.0\.0\.1/u.test(title) ? [Number(entry)] : [];
    } catch {
      return [];
    }
  });
}

const WAYS = ['server', 'server', 'database', 'shutdown', 'backend'];

/** Clients write on and on, each line again until it is acknowledged, while things are killed under them. */
async function killing(bench, tags, kills, random) {
  let going = true;
  const acknowledged = [];
  const client = async (name) => {
    for (let number = 1; going; number++) {
      const tag = tags[(number + name) % 3];
      const line = lineOf(`client ${name} number ${number}`);
      for (;;) {
        try {
          const { id, seq } = await bench.post(`/api/jobs/${tag}/lines`, line);
          acknowledged.push({ tag, id, seq, name, number });
          break;
        } catch {
          await wait(30);
        }
      }
    }
  };
  const clients = Array.from({ length: CLIENTS }, (_, i) => client(i));
  const done = new Map();
  for (let k = 0; k < kills; k++) {
    await wait(50 + random() * 900);
    const way = WAYS[Math.floor(random() * WAYS.length)];
    await bench.kill(way);
    done.set(way, (done.get(way) ?? 0) + 1);
    if ((k + 1) % 10 === 0) say(`${k + 1} kills, ${acknowledged.length} lines acknowledged`);
  }
  going = false;
  await Promise.all(clients);
  say(`Killed: ${[...done].map(([way, n]) => `${way} ${n}`).join(', ')}; ${acknowledged.length} lines acknowledged.`);
  if (acknowledged.length < kills) return [`only ${acknowledged.length} lines got through ${kills} kills`];
  return (await Promise.all(tags.map(async (tag) => check(tag, await bench.lines(tag), acknowledged)))).flat();
}

/** Holds the log of a job against what was acknowledged. */
function check(tag, lines, acknowledged) {
  const off = [];
  lines.forEach((line, i) => {
    if (line.seq !== i + 1) off.push(`${tag}: line ${i + 1} has number ${line.seq}`);
  });
  const said = lines.flatMap((l) => {
    const read = /^client (\d+) number (\d+)$/u.exec(l.entry.body.words ?? '');
    return read ? [{ id: l.id, seq: l.seq, name: Number(read[1]), number: Number(read[2]) }] : [];
  });
  const seen = new Set();
  const last = new Map();
  for (const { name, number } of said) {
    const key = `${name} ${number}`;
    if (seen.has(key)) off.push(`${tag}: client ${name} number ${number} stands twice`);
    seen.add(key);
    if ((last.get(name) ?? 0) >= number) off.push(`${tag}: client ${name} number ${number} is out of order`);
    last.set(name, number);
  }
  const byId = new Map(said.map((s) => [s.id, s]));
  for (const a of acknowledged.filter((x) => x.tag === tag)) {
    const kept = byId.get(a.id);
    if (!kept || kept.seq !== a.seq || kept.name !== a.name || kept.number !== a.number)
      off.push(`${tag}: client ${a.name} number ${a.number} was acknowledged as line ${a.seq} and is not there`);
  }
  return off;
}

function lineOf(words) {
  return {
    clientKey: randomUUID(),
    actor: 'Bench A',
    boardId: null,
    entry: { kind: 'action', body: { words } },
    reverses: null,
  };
}

/** Fifty clients write at once, all on these jobs in turn; how long it takes is held against the cheapest route. */
async function load(bench, tags) {
  const timed = async (work) => {
    const begun = performance.now();
    await work();
    return performance.now() - begun;
  };
  const together = async (one) =>
    (
      await Promise.all(
        Array.from({ length: LOAD_CLIENTS }, async (_, c) => {
          const took = [];
          for (let n = 0; n < LOAD_LINES; n++) took.push(await timed(() => one(c, n)));
          return took;
        }),
      )
    ).flat();
  const cheapest = async () => void (await (await fetch(`${bench.origin}/api/boards?printed=x`)).json());
  const acknowledged = [];
  const append = async (c, n) => {
    const tag = tags[c % tags.length];
    const [name, number] = [1000 * tags.length + c, n + 1];
    const { id, seq } = await bench.post(`/api/jobs/${tag}/lines`, lineOf(`client ${name} number ${number}`));
    acknowledged.push({ tag, id, seq, name, number });
  };
  await together(cheapest);
  const [cheap, dear] = [p95(await together(cheapest)), p95(await together(append))];
  const ratio = dear / cheap;
  say(
    `${LOAD_CLIENTS} clients on ${tags.length === 1 ? 'one job' : `${tags.length} jobs`}: ${acknowledged.length} lines; p95 of an append ${dear.toFixed(0)} ms, of the cheapest route ${cheap.toFixed(0)} ms, ratio ${ratio.toFixed(1)}`,
  );
  const off = (await Promise.all(tags.map(async (tag) => check(tag, await bench.lines(tag), acknowledged)))).flat();
  if (acknowledged.length !== LOAD_CLIENTS * LOAD_LINES) off.push(`${acknowledged.length} lines acknowledged`);
  if (ratio > MOST_RATIO) off.push(`an append takes ${ratio.toFixed(1)} times as long as the cheapest route`);
  return off;
}

function p95(times) {
  return [...times].sort((a, b) => a - b)[Math.floor(times.length * 0.95)];
}
