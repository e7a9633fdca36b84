import { fork } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './run.mjs';
import { SetUpProblem } from './say.mjs';

/** The application as a process of its own, once it answers. It may be killed. */
export function served(port, url, onBegin = () => undefined) {
  return new Promise((resolve, reject) => {
    const child = fork(join(ROOT, 'launcher', 'serveChild.mjs'), [String(port), url], {
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    });
    onBegin(child);
    child.once('message', () => resolve(child));
    child.once('exit', (code) => reject(new SetUpProblem(`The application ended with ${code}.`)));
  });
}
