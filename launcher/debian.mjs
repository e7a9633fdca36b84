import { existsSync, mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { STATE, run, show } from './run.mjs';
import { SetUpProblem, say } from './say.mjs';

/**
 * Installs Debian packages: as root into the system, otherwise unpacked into a git-ignored folder.
 * Where neither works, names the one command to run as root.
 */
export async function installDebian(packages, what) {
  say(`Installing ${what} from Debian (${packages.join(' ')}) …`);
  const failed = process.getuid() === 0 ? await asRoot(packages) : await unpacked(packages);
  if (failed) {
    throw new SetUpProblem(
      `${what} could not be installed. Run this as root and start again:\n  apt-get update && apt-get install -y ${packages.join(' ')}`,
    );
  }
}

/** The environment in which programs of unpacked packages find their libraries; the usual one where none are unpacked. */
export function debianEnvironment() {
  const base = join(STATE, 'debian', 'usr', 'lib');
  if (!existsSync(base)) return { ...process.env };
  const machines = readdirSync(base).filter((name) => name.includes('-linux-gnu'));
  const folders = [...machines.map((name) => join(base, name)), base];
  const known = process.env.LD_LIBRARY_PATH;
  return { ...process.env, LD_LIBRARY_PATH: [...folders, ...(known ? [known] : [])].join(':') };
}

async function asRoot(packages) {
  // The package would make and start a cluster of its own; ours is private.
  const conf = '/etc/postgresql-common/createcluster.conf';
  if (packages.includes('postgresql') && !existsSync(conf)) {
    mkdirSync('/etc/postgresql-common', { recursive: true });
    writeFileSync(conf, 'create_main_cluster = false\n');
  }
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  await show('apt-get', ['update', '-qq'], { env });
  const status = await show(
    'apt-get',
    ['install', '-y', '-qq', '--no-install-recommends', '-o', 'Dpkg::Options::=--force-confold', ...packages],
    { env },
  );
  return status !== 0;
}

async function unpacked(packages) {
  const base = join(STATE, 'debian');
  const apt = join(STATE, 'apt');
  for (const dir of ['lists/partial', 'archives/partial', 'cache']) mkdirSync(join(apt, dir), { recursive: true });
  mkdirSync(base, { recursive: true });
  const own = [
    '-o',
    `Dir::State::lists=${apt}/lists`,
    '-o',
    `Dir::Cache=${apt}/cache`,
    '-o',
    `Dir::Cache::archives=${apt}/archives`,
    '-o',
    'APT::Sandbox::User=',
  ];
  if ((await show('apt-get', [...own, 'update', '-qq'])) !== 0) return true;
  const wanted = run('apt-get', [
    ...own,
    'install',
    '--print-uris',
    '-qq',
    '-y',
    '--no-install-recommends',
    ...packages,
  ]);
  if (wanted.status !== 0) return true;
  const names = [...wanted.stdout.matchAll(/'\S+'\s+([^_\s]+)_\S+\.deb/gu)].map((m) => m[1]);
  if (
    names.length > 0 &&
    (await show('apt-get', [...own, 'download', '-qq', ...names], { cwd: join(apt, 'archives') })) !== 0
  )
    return true;
  for (const file of readdirSync(join(apt, 'archives')).filter((f) => f.endsWith('.deb'))) {
    if (run('dpkg-deb', ['-x', join(apt, 'archives', file), base]).status !== 0) return true;
  }
  return false;
}
