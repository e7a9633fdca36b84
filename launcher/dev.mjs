import { migrateDatabase, seedDemo } from './database.mjs';
import { bundle, npmPackages } from './packages.mjs';
import { freePort, startCluster } from './postgres.mjs';
import { show } from './run.mjs';
import { say } from './say.mjs';

/** `npm run dev`: a database of its own with the demo in it, and the application as it is being written. */
await npmPackages();
const given = process.env.DATABASE_URL;
const cluster = given ? { url: given, stop: async () => {} } : await startCluster('dev');
try {
  await migrateDatabase(cluster.url);
  await seedDemo(cluster.url);
  const port = await freePort(4740);
  say(`Being written: http://127.0.0.1:${port}/`);
  process.exitCode = await show('node_modules/.bin/next', ['dev', '--hostname', '127.0.0.1', '--port', String(port)], {
    env: {
      ...process.env,
      DATABASE_URL: cluster.url,
      LANTERN_READER: await bundle('reader', 'src/workers/reader.thread.ts'),
      NEXT_TELEMETRY_DISABLED: '1',
    },
  });
} finally {
  await cluster.stop();
}
