import { createServer } from 'node:http';
import { door } from './door.mjs';
import { bundle } from './packages.mjs';
import { ROOT } from './run.mjs';
import { SetUpProblem } from './say.mjs';

/**
 * Serves the built application in this process; gives how to stop it. On loopback alone, unless LANTERN_LISTEN names an address of
 * this machine: then whoever reaches that can write into every job.
 */
export async function serveApplication(port, databaseUrl) {
  process.env.NODE_ENV = 'production';
  process.env.NEXT_TELEMETRY_DISABLED = '1';
  process.env.DATABASE_URL = databaseUrl;
  process.env.LANTERN_READER ??= await bundle('reader', 'src/workers/reader.thread.ts');
  const { default: next } = await import('next');
  const app = next({ dev: false, dir: ROOT, hostname: '127.0.0.1', port });
  await app.prepare();
  const handler = app.getRequestHandler();
  // A body that trickles in holds its place no longer than this.
  const server = createServer({ requestTimeout: 120_000 }, door(handler));
  await new Promise((resolve, reject) => {
    server.once('error', (error) =>
      reject(
        error.code === 'EADDRINUSE' ? new SetUpProblem(`Port ${port} is in use. Choose another with --port.`) : error,
      ),
    );
    server.listen(port, process.env.LANTERN_LISTEN || '127.0.0.1', resolve);
  });
  return async () => {
    server.closeAllConnections();
    await new Promise((resolve) => server.close(resolve));
    await app.close?.();
  };
}
