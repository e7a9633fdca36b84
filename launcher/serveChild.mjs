import { serveApplication } from './serve.mjs';

// The application as a process of its own, for those who kill it (`lantern torture`, a browser test): port and database as arguments.
await serveApplication(Number(process.argv[2]), process.argv[3]);
process.send?.('ready');
