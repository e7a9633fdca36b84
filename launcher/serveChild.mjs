import { serveApplication } from './serve.mjs';

// The application as a process of its own, for `lantern torture`, which kills it: port and database as arguments.
await serveApplication(Number(process.argv[2]), process.argv[3]);
process.send?.('ready');
