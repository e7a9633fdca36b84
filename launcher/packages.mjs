import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT, STATE, fingerprint, onceFor, show } from './run.mjs';
import { SetUpProblem, say } from './say.mjs';

/** Installs the npm packages of the lock file, once per lock file. */
export async function npmPackages() {
  const lock = readFileSync(join(ROOT, 'package-lock.json'));
  const mark = createHash('sha256').update(lock).digest('hex');
  if (!existsSync(join(ROOT, 'node_modules', 'next', 'package.json'))) await install();
  else await onceFor('npm', mark, install);
  await onceFor('npm', mark, async () => {});
}

async function install() {
  say('Installing npm packages (once, a minute or two) …');
  // Not `npm ci`: the lock may lack optional packages of other platforms, which that refuses. Versions stay the lock's.
  const status = await show('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error']);
  if (status !== 0)
    throw new SetUpProblem('npm packages could not be installed: see above. Check the network and try again.');
}

/** Bundles a TypeScript entry for plain Node when its sources have changed; gives the bundle's path. */
export async function bundle(name, entry) {
  const out = join(STATE, `${name}.mjs`);
  const mark = fingerprint(['src', 'bench', 'package-lock.json', 'launcher/packages.mjs']);
  const build = async () => {
    mkdirSync(STATE, { recursive: true });
    const { build: esbuild } = await import('esbuild');
    await esbuild({
      entryPoints: [join(ROOT, entry)],
      outfile: out,
      bundle: true,
      platform: 'node',
      format: 'esm',
      target: 'node20',
      packages: 'external',
      alias: { '@': join(ROOT, 'src') },
      logLevel: 'error',
    });
  };
  if (existsSync(out)) await onceFor(`bundle-${name}`, mark, build);
  else {
    await build();
    await onceFor(`bundle-${name}`, mark, async () => {});
  }
  return out;
}
