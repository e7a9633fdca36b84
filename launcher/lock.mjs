import { linkSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { SetUpProblem } from './say.mjs';

/**
 * Takes a lock for this process; gives the process that holds it, or null when it is ours now. A lock left by a dead
 * process is taken over; of many that try at once one gets it.
 */
export function takeLock(file) {
  mkdirSync(dirname(file), { recursive: true });
  // A link appears at once and with its content: nobody ever reads half a lock.
  const mine = `${file}.${process.pid}`;
  writeFileSync(mine, String(process.pid));
  try {
    for (let tries = 0; tries < 50; tries++) {
      if (quietly('EEXIST', () => linkSync(mine, file))) return null;
      const holder = holderOf(file);
      if (holder !== null && holder !== process.pid && isLauncher(holder)) return holder;
      const aside = `${mine}.stale`;
      if (!quietly('ENOENT', () => renameSync(file, aside))) continue;
      // Somebody else was quicker and it is theirs: back with it.
      if (!Object.is(holderOf(aside), holder)) quietly('EEXIST', () => linkSync(aside, file));
      rmSync(aside, { force: true });
    }
  } finally {
    rmSync(mine, { force: true });
  }
  throw new SetUpProblem(`The lock ${file} could not be taken. If nothing else is being started, remove it.`);
}

/** Gives a lock back, if it is ours. */
export function leaveLock(file) {
  if (holderOf(file) === process.pid) rmSync(file, { force: true });
}

/** Whether a process is a `lantern` command. */
export function isLauncher(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('launcher/main.mjs');
  } catch {
    return false;
  }
}

function holderOf(file) {
  try {
    return Number(readFileSync(file, 'utf8'));
  } catch {
    return null;
  }
}

/** Does something; false when it fails in this one way. */
function quietly(code, work) {
  try {
    work();
    return true;
  } catch (error) {
    if (error.code !== code) throw error;
    return false;
  }
}
