import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';

/** The steady clock now: seconds that only run forward, within one boot. */
export interface SteadyTime {
  readonly boot: string;
  readonly uptime: number;
}

const ownBoot = randomUUID();

/**
 * Reads the machine's steady clock: seconds since its start, sleep included, and the mark of that start. Where the
 * system does not tell, this process's own start stands in: after the process ends its times compare with nothing.
 */
export function steadyTime(): SteadyTime {
  try {
    const boot = readFileSync('/proc/sys/kernel/random/boot_id', 'utf8').trim();
    const uptime = Number(readFileSync('/proc/uptime', 'utf8').split(' ')[0]);
    if (boot !== '' && Number.isFinite(uptime)) return { boot, uptime };
  } catch {
    // Not on this system.
  }
  return { boot: ownBoot, uptime: performance.now() / 1000 };
}
