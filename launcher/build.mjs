import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT, fingerprint, onceFor, show } from './run.mjs';
import { SetUpProblem, say } from './say.mjs';

const SOURCES = ['src', 'next.config.ts', 'postcss.config.mjs', 'tsconfig.json', 'package-lock.json'];

/** Builds the production application when its sources have changed. */
export async function buildApplication() {
  const work = async () => {
    say('Building the application (when sources changed, a minute or so) …');
    const env = { ...process.env, NODE_ENV: 'production', NEXT_TELEMETRY_DISABLED: '1' };
    const status = await show(process.execPath, [join(ROOT, 'node_modules/next/dist/bin/next'), 'build'], { env });
    if (status !== 0) throw new SetUpProblem('The application could not be built: see above.');
  };
  const mark = `${fingerprint(SOURCES)}${existsSync(join(ROOT, '.next', 'BUILD_ID')) ? '' : Date.now()}`;
  if (existsSync(join(ROOT, '.next', 'BUILD_ID'))) await onceFor('build', mark, work);
  else {
    await work();
    await onceFor('build', fingerprint(SOURCES), async () => {});
  }
}
