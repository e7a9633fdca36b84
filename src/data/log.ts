import pino from 'pino';

const holder = globalThis as typeof globalThis & { lanternLog?: pino.Logger };

/**
 * Where trouble is written, with what caused it: the file that LANTERN_LOG names, or standard error.
 *
 * Nothing that was typed goes in, only what failed and where.
 */
export function log(): pino.Logger {
  const file = process.env['LANTERN_LOG'];
  holder.lanternLog ??= pino(
    { base: null, timestamp: pino.stdTimeFunctions.isoTime },
    pino.destination({ dest: file ?? 2, sync: true, mkdir: true }),
  );
  return holder.lanternLog;
}
