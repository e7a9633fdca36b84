import { parentPort } from 'node:worker_threads';
import { readNetlist } from '@/core/netlist';

/** Reads board files in a thread of its own, one after the other. */
parentPort?.on('message', (text: string) => parentPort?.postMessage(readNetlist(text)));
