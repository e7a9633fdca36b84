import { isMainThread } from 'node:worker_threads';
import { answerInThread } from '../../bench/dictionaryThreads';
import { main } from './main';

if (isMainThread)
  void Promise.resolve(main(process.argv.slice(2))).then((status) => {
    process.exitCode = status;
  });
else answerInThread();
