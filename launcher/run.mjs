import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The root of the checkout, and the git-ignored folder for everything made at run time. */
export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
export const STATE = join(ROOT, '.lantern');

/** Runs a command to its end; gives status, standard output and standard error. */
export function run(command, args, options = {}) {
  const done = spawnSync(command, args, { cwd: ROOT, encoding: 'utf8', maxBuffer: 64 * 2 ** 20, ...options });
  return { status: done.status ?? 1, stdout: done.stdout ?? '', stderr: done.stderr ?? String(done.error ?? '') };
}

/** Runs a command with its output shown on standard error; resolves to its exit status. */
export function show(command, args, options = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 2, 2], ...options });
    child.on('error', () => resolve(1));
    child.on('exit', (code) => resolve(code ?? 1));
  });
}

/** Runs a command beside others; resolves to its exit status and all that it said. */
export function heard(command, args, options = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'], ...options });
    let output = '';
    const add = (chunk) => (output += chunk);
    child.stdout.on('data', add);
    child.stderr.on('data', add);
    child.on('error', (error) => resolve({ status: 1, output: String(error) }));
    child.on('close', (code) => resolve({ status: code ?? 1, output }));
  });
}

/** A fingerprint of files under some folders: path, size and time of each. */
export function fingerprint(paths) {
  const hash = createHash('sha256');
  const visit = (path) => {
    if (!existsSync(path)) return;
    const stat = statSync(path);
    if (stat.isDirectory()) {
      for (const name of readdirSync(path).sort()) visit(join(path, name));
      return;
    }
    hash.update(`${path} ${stat.size} ${stat.mtimeMs}\n`);
  };
  for (const path of paths) visit(join(ROOT, path));
  return hash.digest('hex');
}

/** Does the work unless the stamp says that it was done for this fingerprint. */
export async function onceFor(name, mark, work) {
  const stamp = join(STATE, `${name}.stamp`);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === mark) return false;
  await work();
  mkdirSync(STATE, { recursive: true });
  writeFileSync(stamp, mark);
  return true;
}
