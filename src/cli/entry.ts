import { main } from './main';

process.exitCode = main(process.argv.slice(2));
