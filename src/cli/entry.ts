import { main } from './main';

void Promise.resolve(main(process.argv.slice(2))).then((status) => {
  process.exitCode = status;
});
