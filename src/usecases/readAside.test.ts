import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build } from 'esbuild';
import { readNetlist } from '@/core/netlist';
import { AsideReader } from './readAside';

const LONG = ['t', ...Array.from({ length: 900 }, (_, i) => `R${i + 1} n${i % 90} n${(i * 7 + 1) % 90} 1k`)].join('\n');
const folder = mkdtempSync(join(tmpdir(), 'reader-'));
const thread = join(folder, 'reader.mjs');

beforeAll(async () => {
  const entry = join(process.cwd(), 'src/workers/reader.thread.ts');
  await build({
    entryPoints: [entry],
    outfile: thread,
    bundle: true,
    platform: 'node',
    format: 'esm',
    alias: { '@': join(process.cwd(), 'src') },
    logLevel: 'error',
  });
}, 30_000);

test('a long file is read in another thread, as it would be here, errors and all, in turn', async () => {
  const reader = new AsideReader(thread);
  const bad = `${LONG}\nR1 a b -5`;
  const [one, two] = await Promise.all([reader.read(LONG), reader.read(bad)]);
  expect(one).toEqual(readNetlist(LONG));
  expect(two).toEqual(readNetlist(bad));
  expect(two.ok).toBe(false);
});

test('one that never ends is given up with a sentence, this thread stays free, and the next is tried anew', async () => {
  const stuck = join(folder, 'stuck.mjs');
  writeFileSync(
    stuck,
    `import { parentPort } from 'node:worker_threads'; parentPort.on('message', () => { for (;;); });`,
  );
  const reader = new AsideReader(stuck, 300);
  let beats = 0;
  const timer = setInterval(() => beats++, 10);
  const codes = await Promise.all(
    [LONG, LONG].map((text) =>
      reader.read(text).then(
        () => 'read',
        (error: { problem?: { code: string } }) => error.problem?.code ?? String(error),
      ),
    ),
  );
  clearInterval(timer);
  expect(codes).toEqual(['took-too-long', 'took-too-long']);
  expect(beats).toBeGreaterThan(20);
  // What is short never waits for it.
  expect((await reader.read('t\nR1 a b 1k')).ok).toBe(true);
});
