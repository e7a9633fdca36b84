import { readFileSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';

/** A core folder imports only from lower-numbered tiers. To move a folder, change this table in the same commit. */
const TIERS: Readonly<Record<string, number>> = {
  problem: 0,
  quantity: 1,
  linear: 1,
  graph: 1,
  csv: 1,
  circuit: 2,
  sums: 2,
  marking: 2,
  netlist: 3,
  fault: 4,
  stages: 5,
  solve: 5,
  schematic: 6,
  archetype: 5,
  trace: 6,
  tables: 7,
  compare: 3,
  infer: 8,
  registration: 3,
  meter: 6,
  expect: 7,
  substitute: 7,
  safety: 7,
  stress: 6,
  figures: 9,
  modify: 8,
  sweep: 3,
  diagnose: 8,
  permit: 9,
  ledger: 9,
  job: 10,
};

const core = __dirname;
const folders = readdirSync(core).filter((f) => statSync(join(core, f)).isDirectory());
const files = folders.flatMap((folder) =>
  readdirSync(join(core, folder))
    .filter((f) => f.endsWith('.ts') && !f.endsWith('.test.ts'))
    .map((f) => ({ folder, file: join(core, folder, f) })),
);

test('every core folder has a tier', () => {
  expect(folders.filter((f) => TIERS[f] === undefined)).toEqual([]);
});

test('imports go down the tiers, through an index, and never out of the core', () => {
  const wrong: string[] = [];
  for (const { folder, file } of files) {
    for (const [, from = ''] of readFileSync(file, 'utf8').matchAll(/from '([^']+)'/gu)) {
      if (from.startsWith('./')) continue;
      const sibling = /^\.\.\/([^/]+)$/u.exec(from)?.[1];
      if (sibling === undefined || !(TIERS[sibling]! < TIERS[folder]!)) wrong.push(`${folder}: ${from}`);
    }
  }
  expect(wrong).toEqual([]);
});

test('nothing in the core asks the clock or draws at random', () => {
  const wrong = files.filter(({ file }) => /Math\.random|Date\.now|new Date\(\)/u.test(readFileSync(file, 'utf8')));
  expect(wrong).toEqual([]);
});
