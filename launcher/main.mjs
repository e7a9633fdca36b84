import { pathToFileURL } from 'node:url';
import { bundle, npmPackages } from './packages.mjs';
import { ROOT } from './run.mjs';
import { SetUpProblem, say } from './say.mjs';

const [command, ...rest] = process.argv.slice(2);

try {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 9))
    throw new SetUpProblem(`Node.js 20.9 or newer is needed; this is ${process.versions.node}.`);
  process.env.LANTERN_ROOT = ROOT;
  if (command === undefined || command === '--help' || command === 'help') {
    await npmPackages();
    const { HELP } = await import(pathToFileURL(await bundle('help', 'src/cli/help.ts')).href);
    console.log(HELP);
    process.exitCode = command === undefined ? 2 : 0;
  } else if (command === 'start') {
    const { start } = await import('./start.mjs');
    await start(rest);
  } else if (command === 'backup' || command === 'restore') {
    const { backup, restore } = await import('./backup.mjs');
    await (command === 'backup' ? backup : restore)(rest);
  } else if (command === 'torture') {
    const { torture } = await import('./torture.mjs');
    process.exitCode = await torture(rest);
  } else if (command === 'test') {
    const { test } = await import('./test.mjs');
    process.exitCode = await test(rest);
  } else {
    await npmPackages();
    await import(pathToFileURL(await bundle('cli', 'src/cli/entry.ts')).href);
  }
} catch (error) {
  if (!(error instanceof SetUpProblem)) throw error;
  say(error.message);
  process.exitCode = 1;
}
